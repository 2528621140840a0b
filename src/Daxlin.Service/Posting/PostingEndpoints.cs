using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Core.Templates;
using Daxlin.Service.Batches;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
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
        var runs = api.MapGroup("/posting-runs").WithTags("Posting");
        runs.MapGet("", List).WithSummary("All posting runs, newest first.");
        runs.MapPost("", Start).WithSummary("Posts the approved invoices of a batch, or of all batches, that are not posted yet; all or none.");
        runs.MapGet("/{number:int}", Show).WithSummary("One posting run with its control totals.");
        runs.MapGet("/{number:int}/file", Download).WithSummary("The file of a posting run, as CSV.")
            .Produces<string>(contentType: "text/csv");
    }

    private static async Task<Ok<List<PostingRunSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var before = page.AfterNumber ?? int.MaxValue;
        var runs = await page.Of(
            db.PostingRuns.Where(run => run.Number < before).OrderByDescending(run => run.Number)
                .Select(run => new { run.Number, run.BatchId, run.At, run.By, run.Invoices, run.Rows, run.Sums }),
            run => run.Number.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(runs.ConvertAll(run => new PostingRunSummary(
            run.Number, run.BatchId, run.At, run.By, run.Invoices, run.Rows, SumsOf(run.Sums))));
    }

    private static async Task<Results<Ok<PostingRunSummary>, ProblemHttpResult>> Show(int number, DaxlinDb db, CancellationToken cancel) =>
        await db.PostingRuns.FindAsync([number], cancel) is { } run ? TypedResults.Ok(Of(run)) : Problem.NotThere($"posting run {number}");

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Download(int number, DaxlinDb db, CancellationToken cancel) =>
        await db.PostingRuns.FindAsync([number], cancel) is { } run
            ? TypedResults.File(Encoding.UTF8.GetBytes(run.File), "text/csv; charset=utf-8", $"posting-run-{number}.csv")
            : Problem.NotThere($"posting run {number}");

    /// <summary>
    /// The run, its invoices' new states and its file are stored in one transaction: a kill leaves all of it or nothing.
    /// </summary>
    private static async Task<Results<Created<PostingRunSummary>, ProblemHttpResult>> Start(
        RunToStart wanted, [FromHeader(Name = "Idempotency-Key")] string? key, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        if (wanted.Batch is null == !wanted.AllBatches)
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "scope-missing",
                "Say which invoices are to be posted: “batch” with its number, or “allBatches”: true for those of all batches.");
        }
        if (RequestKey.Refuse(key) is { } refusal)
            return refusal;
        if (wanted.Batch is { } id && !await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        using var _ = await turn.Take(cancel);
        // The same request made again, because its answer was lost: the run that it made.
        if (key is not null && await db.PostingRuns.SingleOrDefaultAsync(run => run.RequestKey == key, cancel) is { } made)
            return TypedResults.Created($"/api/v1/posting-runs/{made.Number}", Of(made));
        var invoices = await db.Invoices.Include(invoice => invoice.Intake)
            .Where(invoice => invoice.State == InvoiceState.Approved && (wanted.Batch == null || invoice.BatchId == wanted.Batch))
            .OrderBy(invoice => invoice.Id)
            .ToListAsync(cancel);
        if (invoices.Count == 0)
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "nothing-to-post",
                "There is nothing to post: no invoice is approved that was not posted before.");
        }
        if (invoices.Find(invoice => invoice.ApprovedSha256 != HistoryChain.ContentOf(invoice.Record)) is { } altered)
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "altered-since-approved",
                $"The values of invoice {altered.Id} are not those that were approved; something else than Daxlin changed them. Nothing was posted. The history says who approved what.");
        }
        var despite = wanted.Despite?.Trim() ?? "";
        var disagreements = await BatchSheets.Disagreements([.. invoices.Select(invoice => invoice.BatchId).Distinct()], db, cancel);
        if (disagreements.Count > 0 && !Reason.SaysSomething(despite))
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "totals-differ",
                $"What is to be posted does not come to what was stated. {string.Join(' ', disagreements)} Nothing was posted. To post it all the same, say why, in words of {Reason.FewestLetters} letters at least.");
        }
        var approved = invoices.ConvertAll(Approved);
        var totals = ControlTotals.Of(approved);
        var number = (await db.PostingRuns.MaxAsync(run => (int?)run.Number, cancel) ?? 0) + 1;
        var run = new PostingRun
        {
            Number = number,
            BatchId = wanted.Batch,
            At = clock.GetUtcNow().UtcDateTime,
            By = actor.Name,
            RequestKey = key,
            Invoices = totals.Invoices,
            Rows = totals.Rows,
            Sums = JsonSerializer.Serialize(totals.Sums.ToImmutableSortedDictionary(
                sum => sum.Key, sum => sum.Value.ToString(CultureInfo.InvariantCulture))),
            File = PostingFile.Write(approved),
        };
        db.PostingRuns.Add(run);
        foreach (var invoice in invoices)
        {
            db.PostedInvoices.Add(new PostedInvoice { InvoiceId = invoice.Id, RunNumber = number });
            invoice.State = InvoiceState.Posted;
        }
        await HistoryLog.Record(
            db,
            [
                new Deed(HistoryStreams.PostingRun(number), run.At, run.By, HistoryActs.Posted, $"posted {invoices.Count} {(invoices.Count == 1 ? "invoice" : "invoices")}")
                {
                    After = run.Sums,
                    Reason = disagreements.Count == 0 ? "" : $"{despite} ({string.Join(' ', disagreements)})",
                    Content = HistoryChain.ContentOf(run.File),
                },
                .. invoices.Select(invoice => new Deed(HistoryStreams.Invoice(invoice.Id), run.At, run.By, HistoryActs.Posted, $"posted in run {number}")
                {
                    Before = "approved",
                    After = "posted",
                    Content = invoice.ApprovedSha256,
                }),
            ],
            cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await HistoryLog.Seal(db, run.At, cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Created($"/api/v1/posting-runs/{number}", Of(run));
    }

    private static ApprovedInvoice Approved(Invoice invoice)
    {
        var record = InvoiceRecords.FromJson(invoice.Record);
        var fields = record.Fields.ToImmutableDictionary(field => field.Key, field => field.Value.Value);
        return new ApprovedInvoice(
            invoice.Id, invoice.Vendor, invoice.IsCreditNote, invoice.Currency, invoice.Intake.FileName, invoice.Intake.Sha256, fields,
            [.. record.Taxes.Select(row => row.Cells.GetValueOrDefault(TradeNames.Amount)).OfType<ValueRecord>().Select(cell => AmountOf(cell.Value))],
            // A ledger counts the rows that there are, whichever numbers corrections left.
            [.. record.Lines.Select((line, at) => new ApprovedLine(
                line.Block, at + 1, line.Cells.Values.Select(cell => cell.Page).Where(page => page > 0).DefaultIfEmpty(0).Min(),
                line.Cells.ToImmutableDictionary(cell => cell.Key, cell => cell.Value.Value),
                [.. line.Under.Select(list => new ApprovedList(
                    list.Name, Enum.Parse<FlatForm>(list.Flat, ignoreCase: true),
                    [.. list.Rows.Select(row => row.ToImmutableSortedDictionary(cell => cell.Key, cell => cell.Value.Value))]))]))]);
    }

    private static decimal AmountOf(string value) =>
        decimal.Parse(value, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);

    private static PostingRunSummary Of(PostingRun run) =>
        new(run.Number, run.BatchId, run.At, run.By, run.Invoices, run.Rows, SumsOf(run.Sums));

    private static ImmutableSortedDictionary<string, string> SumsOf(string json) =>
        JsonSerializer.Deserialize<ImmutableSortedDictionary<string, string>>(json)!;
}
