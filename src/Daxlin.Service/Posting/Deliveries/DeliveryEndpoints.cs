using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Deliveries;

internal static class DeliveryEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var deliveries = api.MapGroup("/deliveries").WithTags("Delivery").ChangesNeed(Right.Post);
        deliveries.MapGet("", List).WithSummary("All deliveries of posting runs, newest first; of one state, if “state” says so: waiting, delivered, given-up or settled.");
        deliveries.MapGet("/{id:int}", Show).WithSummary("One delivery.");
        deliveries.MapPost("/{id:int}/retry", TryAgain).WithSummary("Tries a delivery at once that waits or was given up.");
        deliveries.MapPost("/{id:int}/settlement", Settle).WithSummary("Ends a delivery that waits or was given up, by what a person knows.");
        var ofRun = api.MapGroup("/posting-runs/{number:int}/deliveries").WithTags("Delivery").ChangesNeed(Right.Post);
        ofRun.MapGet("", OfRun).WithSummary("The deliveries of a posting run, in the order in which they were asked for.");
        ofRun.MapPost("", Ask).WithSummary("Asks for a posting run to be delivered to a receiver.");
        ofRun.MapGet("/events", Events).WithSummary("How many deliveries of a posting run wait, as server-sent events, until none is due.");
    }

    private static async Task<Results<Ok<List<DeliveryRecord>>, ProblemHttpResult>> List([AsParameters] ListPage page, string? state, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var before = page.AfterNumber ?? int.MaxValue;
        var rows = db.Deliveries.AsNoTracking().Where(row => row.Id < before);
        if (!string.IsNullOrEmpty(state))
        {
            if (DeliveryRecord.StateOf(state) is not { } wanted)
                return Problem.Of(StatusCodes.Status422UnprocessableEntity, "state-unknown", $"“{state}” is no state of a delivery; there are waiting, delivered, given-up and settled.");
            rows = rows.Where(row => row.State == wanted);
        }
        var part = await page.Of(rows.OrderByDescending(row => row.Id), row => row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(part.ConvertAll(DeliveryRecord.Of));
    }

    private static async Task<Results<Ok<DeliveryRecord>, ProblemHttpResult>> Show(int id, DaxlinDb db, CancellationToken cancel) =>
        await db.Deliveries.FindAsync([id], cancel) is { } row ? TypedResults.Ok(DeliveryRecord.Of(row)) : NotThere(id);

    private static async Task<Results<Ok<List<DeliveryRecord>>, ProblemHttpResult>> OfRun(int number, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.PostingRuns.AnyAsync(run => run.Number == number, cancel))
            return Problem.NotThere($"posting run {number}");
        var rows = await db.Deliveries.AsNoTracking().Where(row => row.RunNumber == number).OrderBy(row => row.Id).ToListAsync(cancel);
        return TypedResults.Ok(rows.ConvertAll(DeliveryRecord.Of));
    }

    private static async Task<Results<Created<DeliveryRecord>, ProblemHttpResult>> Ask(
        int number, DeliveryToAsk wanted, Actor actor, DaxlinDb db, DeliveryActs acts, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (await db.PostingRuns.FindAsync([number], cancel) is not { } run)
            return Problem.NotThere($"posting run {number}");
        var (delivery, refused) = await acts.Ask(run, wanted, actor.Name, cancel);
        if (delivery is null)
            return refused!.ToProblem();
        await change.Commit(cancel);
        return TypedResults.Created($"/api/v1/deliveries/{delivery.Id}", DeliveryRecord.Of(delivery));
    }

    private static Task<Results<Ok<DeliveryRecord>, ProblemHttpResult>> TryAgain(int id, Actor actor, DaxlinDb db, DeliveryActs acts, WriteTurn turn, CancellationToken cancel) =>
        Act(id, db, turn, row => acts.TryAgain(row, actor.Name, cancel), cancel);

    private static Task<Results<Ok<DeliveryRecord>, ProblemHttpResult>> Settle(
        int id, DeliveryToSettle wanted, Actor actor, DaxlinDb db, DeliveryActs acts, WriteTurn turn, CancellationToken cancel) =>
        Act(id, db, turn, row => acts.Settle(row, wanted, actor.Name, cancel), cancel);

    private static async Task<Results<Ok<DeliveryRecord>, ProblemHttpResult>> Act(int id, DaxlinDb db, WriteTurn turn, Func<Delivery, Task<Refused?>> act, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (await db.Deliveries.FindAsync([id], cancel) is not { } row)
            return NotThere(id);
        if (await act(row) is { } refused)
            return refused.ToProblem();
        await change.Commit(cancel);
        return TypedResults.Ok(DeliveryRecord.Of(row));
    }

    private static ServerSentEventsResult<DeliveryProgress> Events(
        int number, IDbContextFactory<DaxlinDb> databases, DeliveryEvents events, IHostApplicationLifetime lifetime, TimeProvider clock, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(ProgressStream.Of(
            number, events,
            async looks =>
            {
                await using var db = await databases.CreateDbContextAsync(looks);
                var now = clock.GetUtcNow().UtcDateTime;
                var all = db.Deliveries.Where(row => row.State == DeliveryState.Waiting);
                // What waits behind another that failed is tried when that one is.
                var waiting = await all.Where(row => row.RunNumber == number)
                    .Select(row => all.Where(other => other.Receiver == row.Receiver && other.Id <= row.Id).Max(other => other.NextAt)).ToListAsync(looks);
                return new DeliveryProgress(waiting.Count, waiting.Count(at => at <= now));
            },
            progress => progress.Due == 0, clock, lifetime, cancel));

    private static ProblemHttpResult NotThere(int id) => Problem.NotThere($"delivery {id}");
}
