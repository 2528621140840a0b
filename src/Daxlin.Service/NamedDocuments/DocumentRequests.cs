using Daxlin.Core.Json;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.NamedDocuments;

/// <summary>What requests do to documents of a shelf, each bound to the version that was seen.</summary>
internal static class DocumentRequests
{
    /// <summary>A document's versions, the newest first.</summary>
    public static async Task<Results<Ok<List<DocumentVersionRecord>>, ProblemHttpResult>> Versions<TVersion>(this DocumentShelf<TVersion> shelf, string name, CancellationToken cancel)
        where TVersion : NamedDocument, new()
    {
        var versions = await shelf.Db.Set<TVersion>().Where(row => row.Name == name).OrderByDescending(row => row.Version)
            .Select(row => new DocumentVersionRecord(row.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired)).ToListAsync(cancel);
        return versions.Count == 0 ? Problem.NotThere($"{shelf.What} “{name}”") : TypedResults.Ok(versions);
    }

    /// <summary>Why a document is not saved, with each of its faults.</summary>
    public static ProblemHttpResult Faulty<TVersion>(this DocumentShelf<TVersion> shelf, JsonFaultException error)
        where TVersion : NamedDocument, new() => Problem.Of(
        StatusCodes.Status422UnprocessableEntity, $"{shelf.What}-faulty",
        error.Faults.Length == 1 ? $"The {shelf.What} has a fault: {error.Faults[0]}" : $"The {shelf.What} has {error.Faults.Length} faults.", ("faults", DocumentFaultRecord.Of(error.Faults)));

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
