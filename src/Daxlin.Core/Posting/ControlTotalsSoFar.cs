using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>Adds up what a posting run comes to, invoice by invoice.</summary>
/// <param name="isReversal">Says that the run takes another back: what it comes to is less.</param>
public sealed class ControlTotalsSoFar(bool isReversal)
{
    private readonly SortedDictionary<string, decimal> sums = new(StringComparer.Ordinal);
    private int invoices;
    private int rows;

    public void Add(ApprovedInvoice invoice)
    {
        invoices++;
        rows += PostingColumns.CountOf(invoice);
        var counts = invoice.IsCreditNote ? -Math.Abs(invoice.Total) : invoice.Total;
        sums[invoice.Currency] = sums.GetValueOrDefault(invoice.Currency) + (isReversal ? -counts : counts);
    }

    public ControlTotals Totals => new(invoices, rows, sums.ToImmutableSortedDictionary(StringComparer.Ordinal));
}
