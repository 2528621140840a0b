using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

internal static class StandInEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var standIns = api.MapGroup("/stand-ins").WithTags("People");
        standIns.MapGet("", List).WithSummary("Who approves for whom, the newest first; what has ended, too.");
        standIns.MapPost("", Begin).WithSummary("Says who approves for an approver who is away, up to a day.").NeedsAnyone();
        standIns.MapPost("/{id:int}/end", End).WithSummary("Ends that before its time.").NeedsAnyone();
    }

    private static async Task<Ok<List<StandInRecord>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var rows = await page.Of(
            db.StandIns.Where(row => page.AfterNumber == null || row.Id < page.AfterNumber).OrderByDescending(row => row.Id).Select(row => new
            {
                Row = row,
                Absent = db.Users.First(person => person.Id == row.AbsentId).UserName,
                StandIn = db.Users.First(person => person.Id == row.StandInId).UserName,
            }),
            one => $"{one.Row.Id}", context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one => RecordOf(one.Row, one.Absent ?? "", one.StandIn ?? "", now)));
    }

    private static async Task<Results<Created<StandInRecord>, ProblemHttpResult>> Begin(
        StandInToName wanted, Actor actor, StandingIn standing, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (made, refused) = await standing.Begin(wanted, actor, cancel);
        if (made is null)
            return refused!.ToProblem();
        await change.Commit(cancel);
        return TypedResults.Created("/api/v1/stand-ins", await RecordOf(made, db, clock, cancel));
    }

    private static Task<Results<Ok<StandInRecord>, ProblemHttpResult>> End(
        int id, NothingSaid said, HttpRequest request, Actor actor, StandingIn standing, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel) =>
        Bound.Do<StandIn, StandInRecord>(
            id, "stand-in", db, turn, request, _ => "That was changed since it was shown. Look at it again.", row => standing.End(row, actor, cancel), row => RecordOf(row, db, clock, cancel), cancel);

    private static async Task<StandInRecord> RecordOf(StandIn row, DaxlinDb db, TimeProvider clock, CancellationToken cancel)
    {
        var names = await db.Users.Where(person => person.Id == row.AbsentId || person.Id == row.StandInId).ToDictionaryAsync(person => person.Id, person => person.UserName ?? "", cancel);
        return RecordOf(row, names[row.AbsentId], names[row.StandInId], clock.GetUtcNow().UtcDateTime);
    }

    private static StandInRecord RecordOf(StandIn row, string absent, string standIn, DateTime now) =>
        new(row.Id, absent, standIn, row.From, DateOnly.FromDateTime(row.Until.AddDays(-1)), row.EndedAt is null && row.Until > now, row.Revision);
}
