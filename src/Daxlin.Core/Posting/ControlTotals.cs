using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting;

/// <summary>What a posting run comes to, to be held against what the ledger took.</summary>
/// <param name="Sums">The sum of the totals by currency; credit notes count as less, however their amounts are printed.</param>
public sealed record ControlTotals(int Invoices, int Rows, ImmutableSortedDictionary<string, decimal> Sums)
{
    public static ControlTotals Of(IReadOnlyCollection<ApprovedInvoice> invoices) => new(
        invoices.Count,
        invoices.Sum(invoice => PostingColumns.RowsOf(invoice).Count()),
        invoices.GroupBy(invoice => invoice.Currency).ToImmutableSortedDictionary(group => group.Key, group => group.Sum(Counts)));

    private static decimal Counts(ApprovedInvoice invoice)
    {
        var total = decimal.Parse(
            invoice.Fields.GetValueOrDefault(TradeNames.Total, "0"),
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
        return invoice.IsCreditNote ? -Math.Abs(total) : total;
    }
}
