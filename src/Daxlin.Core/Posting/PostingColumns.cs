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
            .Concat(invoices.SelectMany(invoice => invoice.Lines).SelectMany(line => line.Cells.Keys))
            .Where(name => !settled.Contains(name))
            .Distinct()
            .Order(StringComparer.Ordinal);
        return [.. Header, .. Item, .. own, .. Source];
    }

    /// <summary>The rows of an invoice: one a line item; a single one without item columns if it has no lines.</summary>
    public static IEnumerable<PostingRecord> RowsOf(ApprovedInvoice invoice)
    {
        var header = invoice.Fields
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
            yield return new PostingRecord(header
                .SetItems(line.Cells)
                .SetItem(Line, Text(line.Number))
                .SetItem(Block, line.Block)
                .SetItem(Page, line.Page == 0 ? "" : Text(line.Page)));
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
