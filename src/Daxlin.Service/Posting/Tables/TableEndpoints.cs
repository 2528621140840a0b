using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using CsvHelper;
using Daxlin.Core.Posting;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Tables;

/// <summary>What is on screen as files that spreadsheets take: CSV, or values parted by tabs for the clipboard.</summary>
internal static class TableEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/invoices/{id:int}/rows", OfInvoice).WithTags("Invoices").Produces<string>(contentType: "text/csv")
            .WithSummary("An invoice's item rows as a table: csv, or tsv if “as” says so.");
        api.MapGet("/batches/{id:int}/table", OfBatch).WithTags("Invoices").Produces<string>(contentType: "text/csv")
            .WithSummary("A batch's invoices as a table, all or those to look at: csv, or tsv if “as” says so.");
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
        var rows = await db.Invoices.Where(invoice => invoice.BatchId == id && (open != true || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Unplaced)).OrderBy(invoice => invoice.Id)
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
            })
            .ToListAsync(cancel);
        return File(
            new TableToHand(
                ["no.", "state", "vendor", "kind", "invoice number", "file", "invoice date", "due date", "rows", "total", "currency", "what to look at"],
                [
                    .. rows.Select(row => ImmutableArray.Create(
                        Text(row.Id), InvoiceDetails.Word(row.State), row.Vendor.Length > 0 ? row.Vendor : row.LooksLike, row.IsCreditNote ? "credit note" : "invoice", row.InvoiceNumber, row.FileName,
                        row.InvoiceDate, row.DueDate == Invoice.NeverDue ? "" : row.DueDate, Text(row.Lines), row.Total, row.Currency, row.FirstFinding)),
                ]),
            form, $"batch-{id}");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> File(TableToHand table, string? form, string name) => form switch
    {
        null or "csv" => TypedResults.File(Encoding.UTF8.GetBytes(Csv(table)), "text/csv; charset=utf-8", name + ".csv"),
        "tsv" => TypedResults.File(Encoding.UTF8.GetBytes(table.Tabbed), "text/tab-separated-values; charset=utf-8", name + ".tsv"),
        _ => Problem.Of(StatusCodes.Status422UnprocessableEntity, "form-unknown", $"A table is written as csv or tsv; “{form}” is neither."),
    };

    private static string Csv(TableToHand table)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            foreach (var row in table.Cells)
                csv.WriteRecord([.. row]);
        }
        return text.ToString();
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
