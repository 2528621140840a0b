using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Adds up what a layout writes, invoice by invoice, and holds it against what the invoices come to.</summary>
public sealed class LayoutProof(PostingLayout layout)
{
    private readonly Dictionary<(int Table, int Column, string Currency, bool IsOfCreditNotes), ProvedSum> sums = [];

    /// <summary>Counts an invoice in. What two invoices have too much and too little must not make up for each other, so each is held against its own figures.</summary>
    public ImmutableArray<LayoutFault> Add(LaidOutInvoice laidOut)
    {
        var faults = ImmutableArray.CreateBuilder<LayoutFault>();
        var invoice = laidOut.Invoice;
        for (var number = 0; number < layout.Tables.Length; number++)
        {
            var table = layout.Tables[number];
            for (var at = 0; at < table.Columns.Length; at++)
            {
                var column = table.Columns[at];
                if (column.Proves == Proved.Nothing)
                    continue;
                var own = new ProvedSum(
                    table.Name, column.Heading, column.Proves, invoice.Currency, invoice.IsCreditNote, Wanted(column.Proves, laidOut),
                    laidOut.Records.Where(record => ReferenceEquals(record.Table, table)).Sum(record => record.Values[at] as decimal? ?? 0));
                var key = (number, at, invoice.Currency, invoice.IsCreditNote);
                sums[key] = sums.TryGetValue(key, out var soFar) ? soFar with { Wanted = soFar.Wanted + own.Wanted, Written = soFar.Written + own.Written } : own;
                if (!own.Holds)
                    faults.Add(new LayoutFault(invoice.Id, table.Name, column.Heading, own.Says));
            }
        }
        return faults.DrainToImmutable();
    }

    public ImmutableArray<ProvedSum> Sums =>
        [.. sums.OrderBy(sum => sum.Key.Currency, StringComparer.Ordinal).ThenBy(sum => sum.Key.IsOfCreditNotes).ThenBy(sum => (sum.Key.Table, sum.Key.Column)).Select(sum => sum.Value)];

    private static decimal Wanted(Proved proves, LaidOutInvoice laidOut) => proves switch
    {
        Proved.Total => laidOut.Sign * laidOut.Invoice.Total,
        Proved.Journal => laidOut.JournalSide,
        Proved.Lines => laidOut.Sign * laidOut.Invoice.Lines.Sum(line => ExpressionType.Number.Read(line.Cells.GetValueOrDefault(TradeNames.Amount, "")) as decimal? ?? 0),
        _ => laidOut.Sign * laidOut.Invoice.Tax,
    };
}
