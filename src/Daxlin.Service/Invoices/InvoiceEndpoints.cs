using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

internal static class InvoiceEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var invoices = api.MapGroup("/invoices").WithTags("Invoices").ChangesNeed(Right.Work);
        api.MapGet("/batches/{id:int}/invoices", OfBatch).WithTags("Invoices")
            .WithSummary("The invoices of a batch: what to look at first, then by the names of their files.");
        invoices.MapGet("/{id:int}", Show).WithSummary("An invoice with its values, lines, findings and ties.");
        invoices.MapPost("/{id:int}/return", Return)
            .WithSummary("Returns an invoice to its vendor: it is posted nowhere; what the vendor is told is kept on record, and sent once if an address is named.");
        invoices.MapPost("/{id:int}/set-aside", PutAside)
            .WithSummary("Sets an invoice aside that nobody has decided on: it is returned, posts nothing and holds no other.");
    }

    private static async Task<Results<Ok<List<InvoiceSummary>>, ProblemHttpResult>> OfBatch(
        int id, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var rows = db.Invoices.Where(invoice => invoice.BatchId == id)

            // In the order in which a clerk looks at them.
            .Select(invoice => new
            {
                Row = invoice,
                invoice.Intake.FileName,
                FilePages = invoice.Intake.Pages,
                Urgency = invoice.State == InvoiceState.Unplaced ? 0 : invoice.State == InvoiceState.Held ? 1 : invoice.State == InvoiceState.Clear ? 2
                    : invoice.State == InvoiceState.Approved ? 3 : invoice.State == InvoiceState.Posted ? 4 : 5,
            });
        if (page.AfterNumber is { } after && await rows.SingleOrDefaultAsync(entry => entry.Row.Id == after, cancel) is { } last)
        {
            rows = rows.Where(entry => entry.Urgency > last.Urgency || (entry.Urgency == last.Urgency
                && (string.Compare(entry.Row.LooksLike, last.Row.LooksLike) > 0 || (entry.Row.LooksLike == last.Row.LooksLike
                    && (string.Compare(entry.FileName, last.FileName) > 0 || (entry.FileName == last.FileName
                        && (entry.Row.FirstPage > last.Row.FirstPage || (entry.Row.FirstPage == last.Row.FirstPage && entry.Row.Id > last.Row.Id))))))));
        }
        var part = await page.Of(
            rows.OrderBy(entry => entry.Urgency).ThenBy(entry => entry.Row.LooksLike).ThenBy(entry => entry.FileName).ThenBy(entry => entry.Row.FirstPage).ThenBy(entry => entry.Row.Id)
                .Select(entry => new
                {
                    entry.Row.Id,
                    entry.Row.State,
                    entry.Row.IsCreditNote,
                    entry.FileName,
                    entry.Row.FirstPage,
                    entry.Row.LastPage,
                    entry.FilePages,
                    entry.Row.Vendor,
                    entry.Row.InvoiceNumber,
                    entry.Row.InvoiceDate,
                    entry.Row.Currency,
                    entry.Row.Total,
                    entry.Row.Lines,
                    entry.Row.Findings,
                    entry.Row.FirstFinding,
                    entry.Row.LooksLike,
                    entry.Row.Numbers,
                    entry.Row.NumbersTied,
                    entry.Row.FirstApprovedBy,
                    entry.Row.FirstApprovedFor,
                    entry.Row.Revision,
                }),
            row => Text(row.Id), context, cancel);
        return TypedResults.Ok(part.ConvertAll(row => new InvoiceSummary(
            row.Id, InvoiceDetails.Word(row.State), row.IsCreditNote ? "creditNote" : "invoice", row.FileName, row.FirstPage, row.LastPage, row.FilePages,
            row.Vendor, row.InvoiceNumber, row.InvoiceDate, row.Currency, row.Total, row.Lines, row.Findings, row.FirstFinding, id, row.Revision, row.LooksLike, row.Numbers, row.NumbersTied,
            row.State is InvoiceState.Held or InvoiceState.Clear ? new Approver(row.FirstApprovedBy, row.FirstApprovedFor).ToString() : "")));
    }

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Show(int id, DaxlinDb db, HttpResponse response, CancellationToken cancel) =>
        await InvoiceDetails.Find(id, db, cancel) is { } invoice ? InvoiceDetails.Tagged(invoice, response) : Problem.NotThere($"invoice {id}");

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> PutAside(
        int id, SetAside wanted, HttpRequest request, Actor actor, BoundActs acts, SettingAside setting, CancellationToken cancel) =>
        acts.Do(id, request, invoice => setting.Do(invoice, wanted.Reason, null, "", actor.Name, cancel), cancel);

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Return(
        int id, ReturnToVendor wanted, HttpRequest request, Actor actor, BoundActs acts, SettingAside setting, CancellationToken cancel) =>
        acts.Do(id, request, invoice => setting.Do(invoice, wanted.Reason, wanted.Letter ?? "", wanted.SendTo?.Trim() ?? "", actor.Name, cancel), cancel);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
