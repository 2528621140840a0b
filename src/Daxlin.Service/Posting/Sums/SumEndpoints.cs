using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Sums;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using Daxlin.Service.Batches;
using Daxlin.Service.Posting.Tables;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Daxlin.Service.Posting.Sums;

internal static class SumEndpoints
{
    private const int MostParts = 1000;

    public static void Map(RouteGroupBuilder api)
    {
        var sums = api.MapGroup("/sums").WithTags("Posting");
        sums.MapGet("", Show).WithSummary("What approved and posted invoices come to, by vendor, month, ledger account, cost centre, project or tax code.");
        sums.MapGet("/parts", Parts).WithSummary("The rows behind one sum: invoices, or lines and their shares; at most a thousand.");
        sums.MapGet("/table", Table).Produces<string>(contentType: "text/csv").WithSummary("The sums as a table: csv, or tsv or xlsx if “as” says so.");
    }

    private static async Task<Results<Ok<SumsRecord>, ProblemHttpResult>> Show([AsParameters] SummedInvoices wanted, DaxlinDb db, CancellationToken cancel)
    {
        if (await wanted.Refusal(db, cancel) is { } refused)
            return refused.ToProblem();
        var sums = await Added(wanted, db, cancel);
        return TypedResults.Ok(new SumsRecord(wanted.Word, Rows(sums.Groups), Rows(sums.Totals)));
    }

    private static async Task<Results<Ok<List<SumPart>>, ProblemHttpResult>> Parts(
        [AsParameters] SummedInvoices wanted, [FromQuery(Name = "key")] string? key, [FromQuery(Name = "currency")] string? currency, DaxlinDb db, CancellationToken cancel)
    {
        if (await wanted.Refusal(db, cancel) is { } refused)
            return refused.ToProblem();
        var parts = new List<SumPart>();
        await foreach (var invoice in wanted.Read(db, cancel))
        {
            if (currency is not null && invoice.Currency != currency)
                continue;
            parts.AddRange(SummedPart.Of(invoice, wanted.What).Where(part => part.Key == (key ?? "")).Select(part => new SumPart(
                invoice.Id, invoice.Vendor, invoice.Fields.GetValueOrDefault(TradeNames.InvoiceNumber, ""), invoice.Fields.GetValueOrDefault(TradeNames.InvoiceDate, ""), part.Line, part.Text,
                BatchSheets.Settled(part.Amount, invoice.Currency), invoice.Currency)));
            if (parts.Count >= MostParts)
                break;
        }
        return TypedResults.Ok(parts[..Math.Min(parts.Count, MostParts)]);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Table(
        [AsParameters] SummedInvoices wanted, [FromQuery(Name = "as")] string? form, DaxlinDb db, CancellationToken cancel)
    {
        if (await wanted.Refusal(db, cancel) is { } refused)
            return refused.ToProblem();
        var sums = await Added(wanted, db, cancel);
        return TableEndpoints.File(
            new TableToHand(
                [TradeNames.Spoken(wanted.Word), "invoices", "amount", "currency"],
                [.. Rows(sums.Groups).Select(row => ImmutableArray.Create(row.Key, row.Invoices.ToString(CultureInfo.InvariantCulture), row.Amount, row.Currency))],
                [ValueKind.Text, ValueKind.Whole, ValueKind.Money, ValueKind.Currency]),
            form, $"sums-by-{wanted.Word}");
    }

    private static async Task<SumsSoFar> Added(SummedInvoices wanted, DaxlinDb db, CancellationToken cancel)
    {
        var sums = new SumsSoFar(wanted.What);
        await foreach (var invoice in wanted.Read(db, cancel))
            sums.Add(invoice);
        return sums;
    }

    private static ImmutableArray<SumRow> Rows(ImmutableArray<SummedGroup> groups) =>
        [.. groups.Select(group => new SumRow(group.Key, group.Currency, group.Invoices, BatchSheets.Settled(group.Amount, group.Currency)))];
}
