using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Rehearsal;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Rehearsals;

internal static class RehearsalEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var rehearsals = api.MapGroup("/rehearsals").WithTags("Rehearsals").ChangesNeed(Right.Work);
        rehearsals.MapPost("", Begin).RequireRateLimiting(Limits.Heavy).WithSummary("Rehearses a template draft over the invoices that were captured before; no invoice is changed.");
        rehearsals.MapGet("/{id:int}", Show).WithSummary("How far a rehearsal is, and how many invoices would come out otherwise.");
        rehearsals.MapGet("/{id:int}/invoices", Invoices).WithSummary("The invoices that would come out otherwise, the gravest first, value by value.");
        rehearsals.MapGet("/{id:int}/events", Events).WithSummary("The same as server-sent events, each time it moves on, until it is done.");
        rehearsals.MapPost("/{id:int}/stop", Stop).WithSummary("Stops a rehearsal; what it has found stays.");
    }

    private static async Task<Results<Created<RehearsalSummary>, ProblemHttpResult>> Begin(
        DraftToRehearse wanted, [FromHeader(Name = "Idempotency-Key")] string? key, Actor actor, DaxlinDb db, RehearsalStart start, Reach reach, CancellationToken cancel)
    {
        if (wanted.Batch is not null && reach.Refuse(wanted.Batch) is { } outside)
            return outside.ToProblem();
        if (RequestKey.Refuse(key) is { } refusal)
            return refusal;
        Template template;
        try
        {
            template = TemplateReader.Read(wanted.Template ?? "");
        }
        catch (JsonFaultException error)
        {
            return TemplateEndpoints.Faulty(error);
        }
        if (wanted.Batch is { } batch && !await db.Batches.AnyAsync(row => row.Id == batch, cancel))
            return Problem.NotThere($"batch {batch}");
        var rehearsal = await start.Begin(template.Name, wanted.Template!, wanted.Batch, key, actor.Name, cancel);
        return TypedResults.Created($"/api/v1/rehearsals/{rehearsal.Id}", await Of(db, rehearsal, cancel));
    }

    private static async Task<Results<Ok<RehearsalSummary>, ProblemHttpResult>> Show(int id, DaxlinDb db, CancellationToken cancel) =>
        await Find(id, db, cancel) is { } rehearsal ? TypedResults.Ok(rehearsal) : NotThere(id);

    private static async Task<RehearsalSummary?> Find(int id, DaxlinDb db, CancellationToken cancel) =>
        await db.Rehearsals.SingleOrDefaultAsync(row => row.Id == id, cancel) is { } rehearsal ? await Of(db, rehearsal, cancel) : null;

    private static ProblemHttpResult NotThere(int id) => Problem.NotThere($"rehearsal {id}");

    private static async Task<RehearsalSummary> Of(DaxlinDb db, Rehearsal rehearsal, CancellationToken cancel)
    {
        var counts = await db.RehearsalOutcomes.Where(row => row.RehearsalId == rehearsal.Id).GroupBy(row => row.Verdict)
            .Select(group => new { group.Key, Count = group.Count() }).ToDictionaryAsync(group => group.Key, group => group.Count, cancel);
        int Count(Verdict verdict) => counts.GetValueOrDefault(verdict);
        return new RehearsalSummary(
            rehearsal.Id, rehearsal.Template, rehearsal.BaseVersion, rehearsal.BatchId, rehearsal.At, rehearsal.By, rehearsal.State.ToString().ToLowerInvariant(), rehearsal.Failure,
            rehearsal.Documents, rehearsal.Done, rehearsal.Unreadable,
            new RecognitionCounts(rehearsal.Own, rehearsal.OwnRecognised, rehearsal.Others, rehearsal.OthersRecognised),
            new RehearsalCounts(
                Count(Verdict.DecidedChanges), Count(Verdict.ClearChanges), Count(Verdict.Lost), Count(Verdict.Worse), Count(Verdict.HeldChanges), Count(Verdict.Better), rehearsal.Same));
    }

    private static async Task<Results<Ok<List<RehearsedInvoiceRecord>>, ProblemHttpResult>> Invoices(
        int id, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Rehearsals.AnyAsync(row => row.Id == id, cancel))
            return NotThere(id);
        var rows = db.RehearsalOutcomes.Where(row => row.RehearsalId == id);
        if (page.AfterNumber is { } after && await rows.SingleOrDefaultAsync(row => row.Id == after, cancel) is { } last)
            rows = rows.Where(row => row.Verdict > last.Verdict || (row.Verdict == last.Verdict && row.InvoiceId > last.InvoiceId));
        var part = await page.Of(
            rows.OrderBy(row => row.Verdict).ThenBy(row => row.InvoiceId)
                .Join(db.Invoices, row => row.InvoiceId, invoice => invoice.Id, (row, invoice) => new { Row = row, invoice.BatchId, invoice.Intake.FileName, invoice.Vendor, invoice.InvoiceNumber, invoice.Currency }),
            entry => entry.Row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(part.ConvertAll(entry => new RehearsedInvoiceRecord(
            entry.Row.InvoiceId, entry.FileName, entry.BatchId, entry.Vendor, entry.InvoiceNumber, entry.Currency, Word(entry.Row.Verdict),
            entry.Row.Before.ToString().ToLowerInvariant(), entry.Row.After.ToString().ToLowerInvariant(), entry.Row.FirstFinding,
            JsonSerializer.Deserialize<ImmutableArray<ValueChangeRecord>>(entry.Row.Changes, JsonSerializerOptions.Web))));
    }

    private static string Word(Verdict verdict) => JsonNamingPolicy.CamelCase.ConvertName(verdict.ToString());

    private static async Task<Results<Ok<RehearsalSummary>, ProblemHttpResult>> Stop(int id, DaxlinDb db, WriteTurn turn, RehearsalEvents events, CancellationToken cancel)
    {
        await using (var change = await turn.Take(db, cancel))
        {
            await db.Rehearsals.Where(row => row.Id == id && row.State == RehearsalState.Running)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.State, RehearsalState.Stopped), cancel);
            await change.Commit(cancel);
        }
        events.Moved(id);
        return await Find(id, db, cancel) is { } rehearsal ? TypedResults.Ok(rehearsal) : NotThere(id);
    }

    private static async Task<Results<ServerSentEventsResult<RehearsalSummary>, ProblemHttpResult>> Events(
        int id, IDbContextFactory<DaxlinDb> databases, RehearsalEvents events, IHostApplicationLifetime lifetime, TimeProvider clock, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (!await db.Rehearsals.AnyAsync(row => row.Id == id, cancel))
            return NotThere(id);
        return TypedResults.ServerSentEvents(ProgressStream.Of(
            id, events,
            async looks =>
            {
                await using var now = await databases.CreateDbContextAsync(looks);
                return await Find(id, now, looks);
            },
            rehearsal => rehearsal.State != "running", clock, lifetime, cancel));
    }
}
