using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Periods;

internal static class PeriodEndpoints
{
    private const int MostChanges = 100;

    public static void Map(RouteGroupBuilder api)
    {
        var periods = api.MapGroup("/closed-periods").WithTags("Posting").ChangesNeed(Right.Administer);
        periods.MapGet("", Show).WithSummary("Which periods are closed, and who said so.");
        periods.MapPut("", Close).WithSummary("Closes all days up to one, or opens some again for a reason: what is dated on a closed day is posted on another.");
    }

    private static async Task<Ok<ClosedPeriodsRecord>> Show(DaxlinDb db, HttpResponse response, CancellationToken cancel)
    {
        var rows = await db.PeriodClosings.AsNoTracking().OrderByDescending(row => row.Id).Take(MostChanges).ToListAsync(cancel);
        Seen.Tag(response, rows.FirstOrDefault()?.Id ?? 0);
        return TypedResults.Ok(new ClosedPeriodsRecord(
            rows.FirstOrDefault()?.Through, rows.FirstOrDefault()?.Id ?? 0, [.. rows.Select(row => new PeriodChangeRecord(row.Through, row.At, row.By, row.Reason))]));
    }

    private static async Task<Results<Ok<ClosedPeriodsRecord>, ProblemHttpResult>> Close(
        PeriodsToClose wanted, HttpRequest request, HttpResponse response, Actor actor, DaxlinDb db, ClosedPeriods periods, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var newest = await periods.Newest(cancel);
        if (Seen.Refuse(request, newest?.Id ?? 0, () => Changed(newest)) is { } changed)
        {
            return changed;
        }
        if (await periods.Close(newest, wanted, actor.Name, cancel) is { } refused)
            return refused.ToProblem();
        await change.Commit(cancel);
        return await Show(db, response, cancel);
    }

    /// <summary>What became of the closed periods since they were shown.</summary>
    private static string Changed(PeriodClosing? newest) => newest is null ? "Nobody has closed a period yet; look at them again."
        : $"The closed periods are not as they were shown: {newest.By} said at {newest.At.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture)} UTC "
            + (newest.Through is { } day ? $"that all up to {ExpressionTypes.Settled(day)} is closed." : "that nothing is closed.") + " Look at them again.";
}
