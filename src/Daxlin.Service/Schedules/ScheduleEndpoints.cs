using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Schedules;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Outgoing;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

internal static class ScheduleEndpoints
{
    /// <summary>So many due times are told of a document that is checked.</summary>
    private const int ToldTimes = 3;

    public static void Map(RouteGroupBuilder api)
    {
        var schedules = api.MapGroup("/schedules").WithTags("Schedules").ChangesNeed(Right.Post).NeedsAllGroups();
        schedules.MapGet("", List).WithSummary("All schedules, the newest version of each, with when it is due and what it did last.");
        schedules.MapPost("", Save).WithSummary("Saves a schedule's document; a changed one becomes the next version.");
        schedules.MapPost("/check", Check).WithSummary("What a schedule's document says, when it would be due, and what is wrong with it; nothing is stored or done.");
        schedules.MapGet("/{name}", Show).WithSummary("A schedule with its document, the newest version unless one is named.");
        schedules.MapVersions<ScheduleShelf, ScheduleVersion>("A schedule's versions, the newest first.");
        schedules.MapGet("/{name}/turns", ListTurns).WithSummary("What a schedule did and when, the newest first.");
        schedules.MapPost("/{name}/turn", TakeNow).RequireRateLimiting(Limits.Heavy).WithSummary("Has a schedule do its work now, beside the times at which it is due.");
        schedules.MapPausing<ScheduleShelf, ScheduleVersion, ScheduleState>("Stops what a schedule does by itself until somebody says to go on.", "Lets a schedule go on from now; times that have passed are not made up.");
        schedules.MapRetirement<ScheduleShelf, ScheduleVersion>("Retires a schedule: it does nothing any more.", "Brings a retired schedule back.");
        api.MapGet("/schedule.schema.json", () => Results.Stream(ScheduleSchema.Open(), "application/schema+json")).WithTags("Schedules").WithSummary("The JSON Schema of schedules.");
    }

    private static async Task<Ok<List<ScheduleSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(
            ScheduleShelf.Newest(db).AsNoTracking().Where(row => string.Compare(row.Name, after) > 0).OrderBy(row => row.Name).Select(row => new
            {
                Row = row,
                State = db.ScheduleStates.SingleOrDefault(state => state.Name == row.Name),
                Last = db.ScheduledTurns.Where(turn => turn.Schedule == row.Name).OrderByDescending(turn => turn.Id).FirstOrDefault(),
            }),
            row => row.Row.Name, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one =>
        {
            var schedule = ScheduleShelf.Read(one.Row);
            return new ScheduleSummary(
                one.Row.Name, one.Row.Version, one.Row.SavedAt, one.Row.SavedBy, one.Row.Note, schedule?.Act.Word ?? "", schedule?.Due.Says ?? "", ScheduleShelf.WordOf(one.Row.IsRetired, one.State),
                one.State?.Trouble ?? "", one.State?.TroubleSince, one.Row.IsRetired ? null : one.State?.NextAt, one.Last is null ? null : RecordOf(one.Last));
        }));
    }

    private static async Task<Results<Ok<ScheduleDetail>, ProblemHttpResult>> Show(string name, int? version, ScheduleShelf shelf, HttpResponse response, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } newest)
            return NotThere(name);
        if (await shelf.Row(name, version, cancel) is not { } row)
            return Problem.NotThere($"version {version} of the schedule “{name}”");
        var (schedule, state) = (ScheduleShelf.Read(row), await shelf.Db.ScheduleStates.AsNoTracking().SingleOrDefaultAsync(one => one.Name == name, cancel));
        Seen.Tag(response, newest.Version);
        return TypedResults.Ok(new ScheduleDetail(
            row.Name, row.Version, newest.Version, row.SavedAt, row.SavedBy, row.Note, ScheduleShelf.WordOf(newest.IsRetired, state), state?.Trouble ?? "", state?.TroubleSince,
            newest.IsRetired ? null : state?.NextAt, row.Document, schedule?.Says ?? []));
    }

    private static async Task<Results<Ok<List<ScheduledTurnRecord>>, ProblemHttpResult>> ListTurns(string name, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Schedules.AnyAsync(row => row.Name == name, cancel))
            return NotThere(name);
        var before = page.AfterNumber ?? int.MaxValue;
        var rows = await page.Of(
            db.ScheduledTurns.AsNoTracking().Where(row => row.Schedule == name && row.Id < before).OrderByDescending(row => row.Id), row => row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(rows.ConvertAll(RecordOf));
    }

    private static async Task<Results<Ok<DocumentSaved>, Created<DocumentSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, Actor actor, ScheduleShelf shelf, LayoutShelf layouts, ListShelf lists, ReceiverShelf receivers, WriteTurn turn, CancellationToken cancel)
    {
        var document = await SentDocument.Of(request, ScheduleReader.Longest, cancel);
        Schedule schedule;
        try
        {
            schedule = ScheduleReader.Read(document);
        }
        catch (JsonFaultException error)
        {
            return shelf.Faulty(error);
        }
        return await FaultOf(schedule.Act, layouts, lists, receivers, cancel) is { } unfit ? unfit.ToProblem()
            : await shelf.Save(schedule.Name, document, note, $"/api/v1/schedules/{schedule.Name}", request, actor, turn, cancel);
    }

    /// <summary>Why a schedule could not do what it says: its layout or a receiver is not there, or not in use.</summary>
    private static async Task<Refused?> FaultOf(ScheduledAct act, LayoutShelf layouts, ListShelf lists, ReceiverShelf receivers, CancellationToken cancel)
    {
        if (act is DigestAct digest)
            return (await ReceiverShelf.ByMail(digest.Receiver, receivers.Db, cancel)).Refused;
        var posting = (PostingAct)act;
        if (posting.Layout.Length > 0 && (await layouts.FindInUse(posting.Layout, (await lists.Now(cancel)).Lists, cancel)).Refused is { } without)
            return without;
        foreach (var receiver in posting.Deliver)
        {
            if ((await receivers.FindFor(receiver, posting.Layout, cancel)).Refused is { } unfit)
                return unfit;
        }
        return null;
    }

    private static Results<Ok<CheckedSchedule>, ProblemHttpResult> Check(ScheduleToCheck wanted, TimeProvider clock)
    {
        if (wanted.Document is null)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "The key “document” is missing: the schedule's document, as text.");
        try
        {
            var schedule = ScheduleReader.Read(wanted.Document);
            var times = ImmutableArray.CreateBuilder<DateTime>();
            for (var next = clock.GetUtcNow(); times.Count < ToldTimes;)
                times.Add((next = schedule.Due.After(next, clock.LocalTimeZone)).UtcDateTime);
            return TypedResults.Ok(new CheckedSchedule(schedule.Name, [], schedule.Says, times.ToImmutable()));
        }
        catch (JsonFaultException error)
        {
            return TypedResults.Ok(new CheckedSchedule("", DocumentFaultRecord.Of(error.Faults), [], []));
        }
    }

    /// <remarks>It says for each that was made; whoever asks twice has it done twice, which posts nothing twice.</remarks>
    private static async Task<Results<Ok<ScheduledTurnRecord>, ProblemHttpResult>> TakeNow(string name, Actor actor, ScheduleShelf shelf, Turns turns, TimeProvider clock, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(shelf.Db, cancel);
        if (await shelf.Row(name, null, cancel) is not { } row)
            return NotThere(name);
        if (row.IsRetired)
            return Problem.Of(StatusCodes.Status409Conflict, "schedule-retired", $"The schedule “{name}” is retired: it does nothing any more.");
        var taken = await turns.Take(row, await shelf.StateOf(name, cancel), clock.GetUtcNow().UtcDateTime, actor.Name, cancel);
        await change.Commit(cancel);
        return TypedResults.Ok(RecordOf(taken));
    }

    private static ScheduledTurnRecord RecordOf(ScheduledTurn turn) => new(
        turn.Id, turn.Version, turn.DueAt, turn.At, turn.By, turn.Outcome switch { TurnOutcome.Done => "done", TurnOutcome.Nothing => "nothing", _ => "refused" },
        JsonSerializer.Deserialize<ImmutableArray<int>>(turn.Runs), MailWords.Of(turn.State), turn.Subject, turn.Text, turn.Says);

    private static ProblemHttpResult NotThere(string name) => Problem.NotThere($"schedule “{name}”");
}
