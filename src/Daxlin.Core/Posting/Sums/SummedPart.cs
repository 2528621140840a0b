using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Sums;

/// <summary>What one invoice, or one line or share of it, adds to a sum.</summary>
/// <param name="Key">The vendor, the month as 2026-05, or the code; empty where there is none.</param>
/// <param name="Line">The line's number; 0 for the invoice as a whole.</param>
/// <param name="Text">The line's description; empty for the invoice as a whole.</param>
/// <param name="Amount">Less than nothing where it takes off: credit notes do, however vendors print them.</param>
public sealed record SummedPart(string Key, int Line, string Text, decimal Amount)
{
    /// <summary>The parts of an invoice, which come to its total for vendors and months, and to the amounts of its lines for codes.</summary>
    public static ImmutableArray<SummedPart> Of(ApprovedInvoice invoice, SumBy by) => by switch
    {
        SumBy.Vendor => [Whole(invoice, invoice.Vendor)],
        SumBy.Month => [Whole(invoice, invoice.InvoiceDate is { } date ? date.ToString("yyyy-MM", CultureInfo.InvariantCulture) : "")],
        _ => OfCodes(invoice, NameOf(by)),
    };

    private static SummedPart Whole(ApprovedInvoice invoice, string key) => new(key, 0, "", invoice.IsCreditNote ? -Math.Abs(invoice.Total) : invoice.Total);

    private static string NameOf(SumBy by) => by switch
    {
        SumBy.Account => CodeNames.Account,
        SumBy.CostCentre => CodeNames.CostCentre,
        SumBy.Project => CodeNames.Project,
        _ => CodeNames.TaxCode,
    };

    private static ImmutableArray<SummedPart> OfCodes(ApprovedInvoice invoice, string name)
    {
        // A credit note's lines are printed with a minus where its total is.
        var sign = invoice.IsCreditNote && invoice.Total > 0 ? -1 : 1;
        var coded = invoice.Coding.ToDictionary(line => line.Line, line => line.Parts);
        var parts = ImmutableArray.CreateBuilder<SummedPart>();
        foreach (var line in invoice.Lines)
        {
            var text = line.Cells.GetValueOrDefault(TradeNames.Description, "");
            if (coded.TryGetValue(line.Number, out var shares))
                parts.AddRange(shares.Select(share => new SummedPart(share[name], line.Number, text, sign * share.Amount)));
            else if (ExpressionType.Number.Read(line.Cells.GetValueOrDefault(TradeNames.Amount, "")) is decimal amount)
                parts.Add(new SummedPart("", line.Number, text, sign * amount));
        }
        if (invoice.Lines.IsEmpty && coded.TryGetValue(0, out var whole))
            parts.AddRange(whole.Select(share => new SummedPart(share[name], 0, "", sign * share.Amount)));
        else if (invoice.Lines.IsEmpty)
            parts.Add(Whole(invoice, ""));
        return parts.ToImmutable();
    }
}
