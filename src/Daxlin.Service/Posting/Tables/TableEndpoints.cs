using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Vendors;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Tables;

/// <summary>What is on screen as files that spreadsheets take: CSV, or values parted by tabs for the clipboard, or a spreadsheet.</summary>
internal static class TableEndpoints
{
    /// <summary>So many entries of the history in a table: what a spreadsheet is still quick with.</summary>
    private const int MostEntries = 100_000;

    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/invoices/{id:int}/rows", OfInvoice).WithTags("Invoices").Produces<string>(contentType: "text/csv")
            .WithSummary("An invoice's item rows as a table: csv, or tsv or xlsx if “as” says so.");
        api.MapGet("/batches/{id:int}/table", OfBatch).WithTags("Invoices").Produces<string>(contentType: "text/csv")
            .WithSummary("A batch's invoices as a table, all or those to look at: csv, or tsv or xlsx if “as” says so.");
        api.MapGet("/review/table", OfQueue).WithTags("Review").Produces<string>(contentType: "text/csv")
            .WithSummary("Invoices of all batches as a table, narrowed and ordered as the queue is: csv, or tsv or xlsx if “as” says so.");
        api.MapGet("/posting-runs/table", OfRuns).WithTags("Posting").Produces<string>(contentType: "text/csv")
            .WithSummary("All posting runs as a table, a row a run and currency: csv, or tsv or xlsx if “as” says so.");
        api.MapGet("/vendors/table", OfVendors).WithTags("Vendors").Produces<string>(contentType: "text/csv")
            .WithSummary("Vendors as a table, all or those with some letters: csv, or tsv or xlsx if “as” says so.");
        // A template may be called "table", so this is not among them.
        api.MapGet("/template-table", OfTemplates).WithTags("Templates").Produces<string>(contentType: "text/csv")
            .WithSummary("All templates as a table with what came of each: csv, or tsv or xlsx if “as” says so.");
        api.MapGet("/history/table", OfHistory).WithTags("History").Produces<string>(contentType: "text/csv")
            .WithSummary("What was done as a table, the newest first: csv, or tsv or xlsx if “as” says so.");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfInvoice(int id, [FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Invoices.AnyAsync(invoice => invoice.Id == id, cancel))
            return Problem.NotThere($"invoice {id}");
        await foreach (var (invoice, _, _) in ApprovedInvoices.Read(db, [id], ImmutableDictionary<int, ApprovedOrigin>.Empty, cancel))
            return File(TableToHand.OfRows(invoice), form, $"invoice-{id}");
        return Problem.NotThere($"invoice {id}");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfBatch(
        int id, [FromQuery(Name = "as")] string? form, [FromQuery(Name = "open")] bool? open, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var invoices = db.Invoices.Where(invoice => invoice.BatchId == id && (open != true || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Unplaced)).OrderBy(invoice => invoice.Id);
        return File(await TableOf(invoices, db, cancel), form, $"batch-{id}");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfQueue(
        [AsParameters] ReviewQueue queue, [FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel) =>
        queue.Refusal() is { } refused ? refused.ToProblem() : File(await TableOf(queue.Of(db, null), db, cancel), form, "invoices");

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfRuns([FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel)
    {
        var runs = await db.PostingRuns.AsNoTracking().OrderByDescending(run => run.Number).ToListAsync(cancel);
        return File(
            new TableToHand(
                ["run", "made on", "by", "layout", "version", "takes back", "invoices", "records", "sum", "currency", "because"],
                [
                    .. runs.SelectMany(run => JsonSerializer.Deserialize<SortedDictionary<string, string>>(run.Sums)!.Select(sum => ImmutableArray.Create(
                        Text(run.Number), run.At.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), run.By, run.Layout, run.Layout.Length == 0 ? "" : Text(run.LayoutVersion), run.Reverses is { } taken ? Text(taken) : "",
                        Text(run.Invoices), Text(run.Rows), sum.Value, sum.Key, run.Reason))),
                ],
                [ValueKind.Whole, ValueKind.Date, ValueKind.Text, ValueKind.Text, ValueKind.Whole, ValueKind.Whole, ValueKind.Whole, ValueKind.Whole, ValueKind.Money, ValueKind.Currency, ValueKind.Text]),
            form, "posting-runs");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfVendors(
        [FromQuery(Name = "search")] string? search, [FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel)
    {
        var vendors = (await VendorList.Counted(db, VendorList.Like(db, search)).ToListAsync(cancel)).ConvertAll(VendorList.SummaryOf);
        return File(
            new TableToHand(
                ["vendor", "terms", "bills in", "ledger account", "accounts", "accounts that wait", "invoices", "held"],
                [
                    .. vendors.Select(one => ImmutableArray.Create(
                        one.Name, one.Terms, one.Currency, one.LedgerAccount, Text(one.Accounts), Text(one.AccountsWaiting), Text(one.Invoices), Text(one.Held))),
                ],
                [ValueKind.Text, ValueKind.Text, ValueKind.Currency, ValueKind.Text, ValueKind.Whole, ValueKind.Whole, ValueKind.Whole, ValueKind.Whole]),
            form, "vendors");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfTemplates([FromQuery(Name = "as")] string? form, DaxlinDb db, DriftWatch drift, CancellationToken cancel)
    {
        var templates = await TemplateList.SummariesOf(await TemplateList.All(db).ToListAsync(cancel), db, drift, cancel);
        return File(
            new TableToHand(
                ["template", "vendor", "currency", "version", "saved on", "saved by", "note", "retired", "invoices", "untouched", "held", "drift"],
                [
                    .. templates.Select(one => ImmutableArray.Create(
                        one.Name, one.Vendor, one.Currency, Text(one.Version), Day(one.SavedAt), one.SavedBy, one.Note, one.IsRetired ? "yes" : "no", Text(one.Invoices), Text(one.Untouched), Text(one.Held),
                        string.Join(" ", one.Drift.Select(sign => sign.Says)))),
                ],
                [
                    ValueKind.Text, ValueKind.Text, ValueKind.Currency, ValueKind.Whole, ValueKind.Date, ValueKind.Text, ValueKind.Text, ValueKind.YesNo, ValueKind.Whole, ValueKind.Whole, ValueKind.Whole,
                    ValueKind.Text,
                ]),
            form, "templates");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfHistory(
        [AsParameters] HistoryFilter filter, [FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel)
    {
        var entries = await filter.Of(db).OrderByDescending(row => row.Id).Take(MostEntries + 1).ToListAsync(cancel);
        if (entries.Count > MostEntries)
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "table-too-long",
                $"A table holds {MostEntries.ToString("N0", CultureInfo.InvariantCulture)} entries, and more were made. Narrow the days, or write them out as NDJSON.");
        }
        return File(
            new TableToHand(
                ["at (UTC)", "of", "what was done", "before", "after", "by", "because"],
                [.. entries.Select(row => ImmutableArray.Create(row.At.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture), row.Stream, row.What, row.Before, row.After, row.By, row.Reason))],
                [.. Enumerable.Repeat(ValueKind.Text, 7)]),
            form, "history");
    }

    /// <summary>Invoices in their order, each with its batch and when it was taken in and approved.</summary>
    private static async Task<TableToHand> TableOf(IQueryable<Invoice> invoices, DaxlinDb db, CancellationToken cancel)
    {
        var rows = await invoices
            .Select(invoice => new
            {
                invoice.Id,
                invoice.State,
                invoice.Vendor,
                invoice.LooksLike,
                invoice.IsCreditNote,
                invoice.InvoiceNumber,
                invoice.Intake.FileName,
                invoice.InvoiceDate,
                invoice.DueDate,
                invoice.Lines,
                invoice.Total,
                invoice.Currency,
                invoice.FirstFinding,
                invoice.Intake.ReceivedAt,
                Batch = db.Batches.Where(batch => batch.Id == invoice.BatchId).Select(batch => batch.Name).First(),
            })
            .ToListAsync(cancel);
        var approvals = await Approvals.Of(db, [.. rows.Where(row => row.State is InvoiceState.Approved or InvoiceState.Posted).Select(row => row.Id)], DateTime.MaxValue, cancel);
        return new TableToHand(
            [
                "no.", "state", "vendor", "kind", "invoice number", "file", "invoice date", "due date", "rows", "total", "currency", "what to look at", "batch", "taken in on", "approved on", "approved by",
            ],
            [
                .. rows.Select(row => ImmutableArray.Create(
                    Text(row.Id), InvoiceDetails.Word(row.State), row.Vendor.Length > 0 ? row.Vendor : row.LooksLike, row.IsCreditNote ? "credit note" : "invoice", row.InvoiceNumber, row.FileName,
                    row.InvoiceDate, row.DueDate == Invoice.NeverDue ? "" : row.DueDate, Text(row.Lines), row.Total, row.Currency, row.FirstFinding, row.Batch, Day(row.ReceivedAt),
                    approvals.GetValueOrDefault(row.Id) is { } approval ? Day(approval.At) : "", approvals.GetValueOrDefault(row.Id)?.By ?? "")),
            ],
            [
                ValueKind.Whole, ValueKind.Text, ValueKind.Text, ValueKind.Text, ValueKind.Text, ValueKind.Text, ValueKind.Date, ValueKind.Date, ValueKind.Whole, ValueKind.Money, ValueKind.Currency, ValueKind.Text,
                ValueKind.Text, ValueKind.Date, ValueKind.Date, ValueKind.Text,
            ]);
    }

    /// <param name="form">csv, tsv or xlsx; csv if null.</param>
    internal static Results<FileContentHttpResult, ProblemHttpResult> File(TableToHand table, string? form, string name) => TableFile.Of(table, form ?? TableFile.Csv, name) is { } file
        ? file.ToResult() : Problem.Of(StatusCodes.Status422UnprocessableEntity, "form-unknown", $"A table is written as csv, tsv or xlsx; “{form}” is none of them.");

    private static string Day(DateTime at) => at.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
