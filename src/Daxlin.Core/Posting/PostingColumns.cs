using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
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

    private static readonly FrozenSet<string> Settled = Header.Concat(Item).Concat(Source).Append(TradeNames.VendorName).ToFrozenSet();

    /// <summary>The settled columns, then those of the templates' own names, then the source.</summary>
    internal static ImmutableArray<string> With(IEnumerable<string> own) => [.. Header, .. Item, .. own, .. Source];

    /// <summary>The names of the template's own that an invoice has values of.</summary>
    internal static IEnumerable<string> NamesOf(ApprovedInvoice invoice) => invoice.Fields.Keys
        .Concat(invoice.Lines.SelectMany(FlatRowsOf).SelectMany(cells => cells.Keys))
        .Where(name => !Settled.Contains(name));

    /// <summary>The columns of item rows, those of the template's own that an invoice has values of among them.</summary>
    internal static IEnumerable<string> ItemsOf(ApprovedInvoice invoice) => Item.Where(column => column != Block)
        .Concat(TradeNames.Columns.Except(Item))
        .Concat(invoice.Lines.SelectMany(FlatRowsOf).SelectMany(cells => cells.Keys).Except(Settled).Except(TradeNames.Columns).Order(StringComparer.Ordinal));

    /// <summary>The header values of an invoice, with what Daxlin knows of it.</summary>
    /// <param name="isReversed">Says that amounts have the other sign: the record takes a posting back.</param>
    public static PostingRecord HeaderOf(ApprovedInvoice invoice, bool isReversed = false)
    {
        var cells = new Dictionary<string, string>(invoice.Fields);
        // A vendor that prints its taxes by rate states no sum of them; the ledger takes one.
        if (!invoice.Taxes.IsEmpty)
            cells.TryAdd(TradeNames.Tax, invoice.Tax.ToString(CultureInfo.InvariantCulture));
        cells[InvoiceId] = Text(invoice.Id);
        cells[Kind] = invoice.IsCreditNote ? "credit note" : "invoice";
        cells[Vendor] = invoice.Vendor;
        cells[TradeNames.Currency] = invoice.Currency;
        cells[File] = invoice.File;
        cells[Document] = invoice.Sha256;
        cells[LayoutNames.LineCount] = Text(invoice.Lines.Length);
        cells[LayoutNames.Batch] = invoice.Origin.Batch;
        cells[LayoutNames.ApprovedBy] = invoice.Origin.ApprovedBy;
        cells[LayoutNames.ApprovedOn] = ExpressionTypes.Settled(invoice.Origin.ApprovedOn);
        cells[LayoutNames.TakenInOn] = ExpressionTypes.Settled(invoice.Origin.TakenInOn);
        cells[LayoutNames.VendorAccount] = invoice.Origin.VendorAccount;
        cells[LayoutNames.VendorTaxCode] = invoice.Origin.VendorTaxCode;
        return new PostingRecord(isReversed ? PostingRecord.Reversed(cells) : cells);
    }

    /// <summary>
    /// The rows of an invoice: one a line item, more where a list under it is repeated; a single one without item columns
    /// if it has no lines.
    /// </summary>
    /// <param name="isReversed">Says that amounts and quantities have the other sign: the rows take a posting back.</param>
    public static IEnumerable<PostingRecord> RowsOf(ApprovedInvoice invoice, bool isReversed = false) =>
        RowsOf(invoice, HeaderOf(invoice, isReversed), isReversed);

    internal static IEnumerable<PostingRecord> RowsOf(ApprovedInvoice invoice, PostingRecord header, bool isReversed)
    {
        if (invoice.Lines.IsEmpty)
            yield return header;
        foreach (var line in invoice.Lines)
        {
            foreach (var cells in FlatRowsOf(line))
            {
                cells[Line] = Text(line.Number);
                cells[Block] = line.Block;
                cells[Page] = line.Page == 0 ? "" : Text(line.Page);
                yield return new PostingRecord(isReversed ? PostingRecord.Reversed(cells) : cells, header);
            }
        }
    }

    /// <summary>How many rows <see cref="RowsOf(ApprovedInvoice, bool)"/> gives.</summary>
    public static int CountOf(ApprovedInvoice invoice) => invoice.Lines.IsEmpty ? 1
        : invoice.Lines.Sum(line => Math.Max(1, line.Under.Where(list => list.Flat == FlatForm.Repeated).Sum(list => list.Rows.Length)));

    /// <summary>A line's cells with those of the lists under it, once for each row of the lists that are repeated.</summary>
    /// <remarks>
    /// A joined list becomes one cell named after it: <c>serials</c> is "K1041; K1042". A repeated one adds its columns,
    /// <c>deliveries.vessel</c>. The line's quantity and amount stand on the first of its
    /// rows only, so that adding up the column still gives the subtotal.
    /// </remarks>
    private static IEnumerable<Dictionary<string, string>> FlatRowsOf(ApprovedLine line)
    {
        var repeated = line.Under.Where(list => list.Flat == FlatForm.Repeated).SelectMany(list => list.Rows.Select(row => (List: list.Name, Row: row))).ToList();
        for (var at = 0; at < Math.Max(1, repeated.Count); at++)
        {
            var cells = new Dictionary<string, string>(line.Cells);
            foreach (var list in line.Under)
            {
                if (list.Flat == FlatForm.Joined)
                    cells[list.Name] = string.Join("; ", list.Rows.Select(row => string.Join(' ', row.Values)));
            }
            foreach (var name in at == 0 ? [] : SummedOnce)
                cells.Remove(name);
            if (at < repeated.Count)
            {
                foreach (var (column, value) in repeated[at].Row)
                    cells[$"{repeated[at].List}.{column}"] = value;
            }
            yield return cells;
        }
    }

    /// <summary>Columns that are added up: they stand once a line.</summary>
    private static readonly ImmutableArray<string> SummedOnce = [TradeNames.Quantity, TradeNames.DiscountAmount, TradeNames.Amount];

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
