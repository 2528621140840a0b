using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting;

internal static class PostingEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var runs = api.MapGroup("/posting-runs").WithTags("Posting").ChangesNeed(Right.Post);
        runs.MapGet("", List).WithSummary("All posting runs, newest first.");
        runs.MapPost("", Start).WithSummary("Posts the approved invoices of a batch, or of all batches, that are not posted yet; all or none.");
        runs.MapPost("/rehearsal", Rehearse).RequireRateLimiting(Limits.Heavy).WithSummary("What a posting run would come to and write; nothing is posted.").OnlyLooks();
        runs.MapGet("/{number:int}", Show).WithSummary("One posting run with its control totals.");
        runs.MapGet("/{number:int}/manifest", Manifest).WithSummary("A posting run with its layout, files, invoices and their hashes, for an auditor.");
        runs.MapGet("/{number:int}/file", Download).WithSummary("The file of a posting run, or the first of several.").Produces<string>(contentType: "text/csv");
        runs.MapGet("/{number:int}/files/{name}", DownloadOne).WithSummary("A file of a posting run by its name.").Produces<string>(contentType: "text/csv");
        runs.MapPost("/{number:int}/withdrawal", Withdraw).WithSummary("Takes a posting run back, or some of its invoices, by a numbered run with the other sign.");
    }

    private static async Task<Ok<List<PostingRunSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var before = page.AfterNumber ?? int.MaxValue;
        var runs = await page.Of(
            db.PostingRuns.AsNoTracking().Where(run => run.Number < before).OrderByDescending(run => run.Number)
                .Select(run => new { Run = run, Withdrawn = db.PostedInvoices.Count(row => row.RunNumber == run.Number && row.WithdrawnIn != null) }),
            run => run.Run.Number.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(runs.ConvertAll(one => Of(one.Run, one.Withdrawn)));
    }

    private static async Task<Results<Ok<PostingRunSummary>, ProblemHttpResult>> Show(int number, DaxlinDb db, CancellationToken cancel) =>
        await db.PostingRuns.FindAsync([number], cancel) is { } run ? TypedResults.Ok(await Of(run, db, cancel)) : NotThere(number);

    private static async Task<Results<Ok<PostingManifest>, ProblemHttpResult>> Manifest(int number, DaxlinDb db, LayoutShelf layouts, CancellationToken cancel)
    {
        if (await db.PostingRuns.FindAsync([number], cancel) is not { } run)
            return NotThere(number);
        var layout = run.Layout.Length == 0 ? null : await layouts.Row(run.Layout, run.LayoutVersion, cancel);
        var files = await db.PostedFiles.Where(file => file.RunNumber == number).OrderBy(file => file.Id)
            .Select(file => new PostedFileRecord(file.Name, file.MediaType, file.Records, file.Content.Length, file.Sha256)).ToListAsync(cancel);
        // What takes a run back has no rows of its own: it is named by those that it took.
        var rows = await db.PostedInvoices.Where(row => row.RunNumber == number || row.WithdrawnIn == number)
            .Join(db.Invoices, row => row.InvoiceId, invoice => invoice.Id, (row, invoice) => new
            {
                invoice.Id,
                invoice.Vendor,
                invoice.InvoiceNumber,
                invoice.InvoiceDate,
                invoice.Currency,
                invoice.Total,
                invoice.IsCreditNote,
                row.ContentSha256,
                row.WithdrawnIn,
                row.Origin,
            })
            .OrderBy(row => row.Id).ToListAsync(cancel);
        var approvals = await Approvals.Of(db, rows.ConvertAll(row => row.Id), run.At, cancel);
        return TypedResults.Ok(new PostingManifest(
            await Of(run, db, cancel), layout is null ? "" : HistoryChain.ContentOf(layout.Document), JsonSerializer.Deserialize<ImmutableSortedDictionary<string, int>>(run.Lists)!, run.CodingVersion, [.. files],
            [
                .. rows.Select(row => new PostedInvoiceRecord(
                    row.Id, row.Vendor, row.InvoiceNumber, row.InvoiceDate, row.Currency, row.Total, row.IsCreditNote, approvals.GetValueOrDefault(row.Id)?.By ?? "", approvals.GetValueOrDefault(row.Id)?.At,
                    row.ContentSha256, row.WithdrawnIn, PostedOn(run, row.Origin, row.InvoiceDate))),
            ]));
    }

    private static Task<Results<FileContentHttpResult, ProblemHttpResult>> Download(int number, DaxlinDb db, CancellationToken cancel) =>
        File(db.PostedFiles.Where(file => file.RunNumber == number).OrderBy(file => file.Id), $"file of posting run {number}", cancel);

    private static Task<Results<FileContentHttpResult, ProblemHttpResult>> DownloadOne(int number, string name, DaxlinDb db, CancellationToken cancel) =>
        File(db.PostedFiles.Where(file => file.RunNumber == number && file.Name == name), $"file “{name}” of posting run {number}", cancel);

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> File(IQueryable<PostedFile> files, string what, CancellationToken cancel) =>
        await files.AsNoTracking().FirstOrDefaultAsync(cancel) is { } file ? TypedResults.File(file.Content, file.MediaType, file.Name) : Problem.NotThere(what);

    private static async Task<Results<Created<PostingRunSummary>, ProblemHttpResult>> Start(
        RunToStart wanted, [FromHeader(Name = "Idempotency-Key")] string? key, Actor actor, DaxlinDb db, PostingRuns runs, Reach reach, WriteTurn turn, CancellationToken cancel)
    {
        if (await Unscoped(wanted, db, cancel) is { } unscoped)
            return unscoped;
        if (reach.Refuse(wanted.Batch) is { } outside)
            return outside.ToProblem();
        return await Once(key, db, turn, () => runs.Make(wanted, key, actor.Name, cancel), cancel);
    }

    private static async Task<Results<Ok<RehearsedRun>, ProblemHttpResult>> Rehearse(RunToStart wanted, DaxlinDb db, PostingRuns runs, CancellationToken cancel)
    {
        if (await Unscoped(wanted, db, cancel) is { } unscoped)
            return unscoped;
        var (run, refused) = await runs.Rehearse(wanted, cancel);
        return run is null ? refused!.ToProblem() : TypedResults.Ok(run);
    }

    private static async Task<Results<Created<PostingRunSummary>, ProblemHttpResult>> Withdraw(
        int number, RunToWithdraw wanted, [FromHeader(Name = "Idempotency-Key")] string? key, Actor actor, DaxlinDb db, PostingRuns runs, WriteTurn turn, CancellationToken cancel)
    {
        if (await db.PostingRuns.FindAsync([number], cancel) is not { } run)
            return NotThere(number);
        return await Once(key, db, turn, () => runs.Withdraw(run, wanted, key, actor.Name, cancel), cancel);
    }

    /// <summary>Makes a run, once for a key: the same request made again, because its answer was lost, gets the run that it made.</summary>
    private static async Task<Results<Created<PostingRunSummary>, ProblemHttpResult>> Once(
        string? key, DaxlinDb db, WriteTurn turn, Func<Task<(PostingRun? Run, Refused? Refused)>> make, CancellationToken cancel)
    {
        if (RequestKey.Refuse(key) is { } refusal)
            return refusal;
        await using var change = await turn.Take(db, cancel);
        var run = key is null ? null : await db.PostingRuns.SingleOrDefaultAsync(run => run.RequestKey == key, cancel);
        if (run is null)
        {
            (run, var refused) = await make();
            if (run is null)
                return refused!.ToProblem();
            await change.Commit(cancel);
        }
        return TypedResults.Created($"/api/v1/posting-runs/{run.Number}", await Of(run, db, cancel));
    }

    private static async Task<ProblemHttpResult?> Unscoped(RunToStart wanted, DaxlinDb db, CancellationToken cancel)
    {
        if (wanted.Batch is null == !wanted.AllBatches)
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "scope-missing",
                "Say which invoices are to be posted: “batch” with its number, or “allBatches”: true for those of all batches.");
        }
        return wanted.Batch is { } id && !await db.Batches.AnyAsync(batch => batch.Id == id, cancel) ? Problem.NotThere($"batch {id}") : null;
    }

    private static ProblemHttpResult NotThere(int number) => Problem.NotThere($"posting run {number}");

    private static async Task<PostingRunSummary> Of(PostingRun run, DaxlinDb db, CancellationToken cancel) =>
        Of(run, await db.PostedInvoices.CountAsync(row => row.RunNumber == run.Number && row.WithdrawnIn != null, cancel));

    private static PostingRunSummary Of(PostingRun run, int withdrawn) => new(
        run.Number, run.BatchId, run.At, run.By, run.Invoices, run.Rows, JsonSerializer.Deserialize<ImmutableSortedDictionary<string, string>>(run.Sums)!, run.Layout, run.LayoutVersion, run.Reverses,
        run.Reason, withdrawn, run.PostingDate);

    /// <summary>The day that a run posts an invoice on; what takes it back does so on the day that it was posted on, unless that is closed by now.</summary>
    private static DateOnly? PostedOn(PostingRun run, string origin, string invoiceDate)
    {
        var before = origin.Length > 0 ? JsonSerializer.Deserialize<ApprovedOrigin>(origin)!.PostingDate : null;
        return PostingRuns.DatesOf(run).Of(before ?? ExpressionType.Date.Read(invoiceDate) as DateOnly?);
    }
}
