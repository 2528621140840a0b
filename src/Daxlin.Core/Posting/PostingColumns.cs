using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting;

/// <summary>The columns of a posting run and what stands in them.</summary>
public static class PostingColumns
{
    public const string Kind = "kind";
    public const string Vendor = "vendor";
    public const string File = "file";
    public const string Page = "page";
    public const string Document = "document";
    public const string InvoiceId = "invoiceId";
    public const string Line = "line";
    public const string Block = "block";

    private static readonly ImmutableArray<string> Header =
    [
        InvoiceId, Kind, Vendor, TradeNames.InvoiceNumber, TradeNames.InvoiceDate, TradeNames.DueDate, TradeNames.PurchaseOrder,
        TradeNames.VendorTaxId, TradeNames.Iban, TradeNames.Currency, TradeNames.Subtotal, TradeNames.Discount,
        TradeNames.Freight, TradeNames.Tax, TradeNames.Total,
    ];

    private static readonly ImmutableArray<string> Item =
    [
        Line, Block, TradeNames.ItemCode, TradeNames.Description, TradeNames.Section, TradeNames.Quantity, TradeNames.Unit,
        TradeNames.UnitPrice, TradeNames.PriceBasis, TradeNames.DiscountPercent, TradeNames.TaxRate, TradeNames.Amount,
    ];

    private static readonly ImmutableArray<string> Source = [File, Page, Document];

    /// <summary>The settled columns, then those of the templates' own names in alphabetical order, then the source.</summary>
    public static ImmutableArray<string> Of(IReadOnlyCollection<ApprovedInvoice> invoices)
    {
        var settled = Header.Concat(Item).Concat(Source).Append(TradeNames.VendorName).ToHashSet();
        var own = invoices.SelectMany(invoice => invoice.Fields.Keys)
            .Concat(invoices.SelectMany(invoice => invoice.Lines).SelectMany(FlatRowsOf).SelectMany(cells => cells.Keys))
            .Where(name => !settled.Contains(name))
            .Distinct()
            .Order(StringComparer.Ordinal);
        return [.. Header, .. Item, .. own, .. Source];
    }

    /// <summary>
    /// The rows of an invoice: one a line item, more where a list under it is repeated; a single one without item columns
    /// if it has no lines.
    /// </summary>
    public static IEnumerable<PostingRecord> RowsOf(ApprovedInvoice invoice)
    {
        // A vendor that prints its taxes by rate states no sum of them; the ledger takes one.
        var fields = invoice.Fields.ContainsKey(TradeNames.Tax) || invoice.Taxes.IsEmpty ? invoice.Fields
            : invoice.Fields.Add(TradeNames.Tax, invoice.Taxes.Sum().ToString(CultureInfo.InvariantCulture));
        var header = fields
            .Remove(TradeNames.VendorName)
            .SetItem(InvoiceId, Text(invoice.Id))
            .SetItem(Kind, invoice.IsCreditNote ? "credit note" : "invoice")
            .SetItem(Vendor, invoice.Vendor)
            .SetItem(TradeNames.Currency, invoice.Currency)
            .SetItem(File, invoice.File)
            .SetItem(Document, invoice.Sha256);
        if (invoice.Lines.IsEmpty)
            yield return new PostingRecord(header);
        foreach (var line in invoice.Lines)
        {
            foreach (var cells in FlatRowsOf(line))
            {
                yield return new PostingRecord(header
                    .SetItems(cells)
                    .SetItem(Line, Text(line.Number))
                    .SetItem(Block, line.Block)
                    .SetItem(Page, line.Page == 0 ? "" : Text(line.Page)));
            }
        }
    }

    /// <summary>A line's cells with those of the lists under it, once for each row of the lists that are repeated.</summary>
    /// <remarks>
    /// A joined list becomes one cell named after it: <c>serials</c> is "K1041; K1042". A repeated one adds its columns,
    /// <c>deliveries.vessel</c>. The line's quantity and amount stand on the first of its
    /// rows only, so that adding up the column still gives the subtotal.
    /// </remarks>
    private static IEnumerable<ImmutableDictionary<string, string>> FlatRowsOf(ApprovedLine line)
    {
        var cells = line.Cells.SetItems(line.Under.Where(list => list.Flat == FlatForm.Joined).Select(list => KeyValuePair.Create(
            list.Name, string.Join("; ", list.Rows.Select(row => string.Join(' ', row.Values))))));
        var repeated = line.Under.Where(list => list.Flat == FlatForm.Repeated).SelectMany(list => list.Rows.Select(
            row => row.Select(cell => KeyValuePair.Create($"{list.Name}.{cell.Key}", cell.Value)))).ToList();
        yield return repeated.Count == 0 ? cells : cells.SetItems(repeated[0]);
        foreach (var more in repeated.Skip(1))
            yield return cells.RemoveRange(SummedOnce).SetItems(more);
    }

    /// <summary>Columns that are added up: they stand once a line.</summary>
    private static readonly ImmutableArray<string> SummedOnce = [TradeNames.Quantity, TradeNames.DiscountAmount, TradeNames.Amount];

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
