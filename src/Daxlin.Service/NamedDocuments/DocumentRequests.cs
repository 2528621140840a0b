using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.NamedDocuments;

/// <summary>What requests do to documents of a shelf, each bound to the version that was seen.</summary>
internal static class DocumentRequests
{
    /// <summary>Saves a document that was read and found in order.</summary>
    /// <remarks>One that is there is bound to what was seen if If-Match says so; a file under version control is saved unseen.</remarks>
    /// <param name="address">Of a document that is new.</param>
    public static async Task<Results<Ok<DocumentSaved>, Created<DocumentSaved>, ProblemHttpResult>> Save<TVersion>(
        this DocumentShelf<TVersion> shelf, string name, string document, string? note, string address, HttpRequest request, Actor actor, WriteTurn turn, CancellationToken cancel)
        where TVersion : NamedDocument, new()
    {
        if (Note.Of(note) is not { } words)
            return Note.TooLong;
        await using var change = await turn.Take(shelf.Db, cancel);
        var newest = await shelf.Row(name, null, cancel);
        if (newest is not null && Seen.RefuseVersion(request, newest.Version, $"{shelf.What} “{name}”", newest.SavedBy, newest.SavedAt, newest.Note) is { } unseen)
            return unseen;
        var saved = await shelf.Save(newest, name, document, words, actor.Name, cancel);
        await change.Commit(cancel);
        return saved.IsNew ? TypedResults.Created(address, saved) : TypedResults.Ok(saved);
    }

    /// <summary>Retires a document, or brings it back; always bound to what was seen.</summary>
    public static async Task<Results<Ok<DocumentSaved>, ProblemHttpResult>> SetRetired<TVersion>(
        this DocumentShelf<TVersion> shelf, string name, bool isRetired, DocumentNote said, HttpRequest request, Actor actor, WriteTurn turn, CancellationToken cancel)
        where TVersion : NamedDocument, new()
    {
        if (Note.Of(said.Note) is not { } words)
            return Note.TooLong;
        await using var change = await turn.Take(shelf.Db, cancel);
        var what = $"{shelf.What} “{name}”";
        if (await shelf.Row(name, null, cancel) is not { } newest)
            return Problem.NotThere(what);
        if (Seen.Refuse(request, newest.Version, () => Seen.ChangedVersion(newest.Version, what, newest.SavedBy, newest.SavedAt, newest.Note)) is { } unseen)
            return unseen;
        if (newest.IsRetired == isRetired)
            return Problem.Of(StatusCodes.Status409Conflict, isRetired ? "already-retired" : "not-retired", $"The {what} is {(isRetired ? "retired already" : "in use")}.");
        var saved = await shelf.SetRetired(newest, isRetired, words, actor.Name, cancel);
        await change.Commit(cancel);
        return TypedResults.Ok(saved);
    }
}
