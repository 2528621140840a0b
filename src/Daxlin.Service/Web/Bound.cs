using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Web;

/// <summary>Has acts done on rows, each bound to the revision that its person saw.</summary>
/// <remarks>
/// The turn to write is held from the look at the revision to the end of the act, so what was seen is still so when the act is
/// stored; all of it is one transaction, of which a refusal leaves nothing.
/// </remarks>
internal static class Bound
{
    /// <param name="what">What the row is called where there is none: <c>invoice</c>.</param>
    /// <param name="changed">What became of it since it was shown, as a sentence.</param>
    /// <param name="act">Does it and stores it, or says why it cannot be done; null for done.</param>
    /// <param name="answer">What the row has become.</param>
    public static async Task<Results<Ok<TAnswer>, ProblemHttpResult>> Do<TRow, TAnswer>(
        int id, string what, DaxlinDb db, WriteTurn turn, HttpRequest request, Func<TRow, string> changed, Func<TRow, Task<Refused?>> act, Func<TRow, Task<TAnswer>> answer,
        CancellationToken cancel)
        where TRow : class, IRevised
    {
        await using var change = await turn.Take(db, cancel);
        if (await db.Set<TRow>().SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } row)
            return Problem.NotThere($"{what} {id}");
        if (Seen.Refuse(request, row.Revision, () => changed(row)) is { } unseen)
            return unseen;
        if (await act(row) is { } refused)
            return refused.ToProblem();
        await change.Commit(cancel);
        Seen.Tag(request.HttpContext.Response, row.Revision);
        return TypedResults.Ok(await answer(row));
    }
}
