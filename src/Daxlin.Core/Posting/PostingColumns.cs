using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Coding;
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

    /// <summary>The net amount that a share of an invoice without lines comes to.</summary>
    internal const string PartAmount = "partAmount";

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

    /// <summary>The names of the template's own that an invoice has values of, and of the day that it is posted on where that is not its own.</summary>
    internal static IEnumerable<string> NamesOf(ApprovedInvoice invoice) => invoice.Fields.Keys
        .Concat(invoice.Lines.SelectMany(line => FlatRowsOf(line, PartsOf(invoice, line.Number))).SelectMany(cells => cells.Keys))
        .Where(name => !Settled.Contains(name))
        .Concat(invoice.PostingDate != invoice.InvoiceDate ? [LayoutNames.PostingDate] : []);

    /// <summary>The columns of item rows, those of the template's own that an invoice has values of among them.</summary>
    internal static IEnumerable<string> ItemsOf(ApprovedInvoice invoice) => Item.Where(column => column != Block)
        .Concat(TradeNames.Columns.Except(Item))
        .Concat(invoice.Lines.SelectMany(line => FlatRowsOf(line, PartsOf(invoice, line.Number))).SelectMany(cells => cells.Keys).Except(Settled).Except(TradeNames.Columns).Order(StringComparer.Ordinal));

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
        cells[LayoutNames.PostingDate] = ExpressionTypes.Settled(invoice.PostingDate);
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
        {
            var parts = PartsOf(invoice, 0);
            foreach (var part in parts)
                yield return new PostingRecord(new Dictionary<string, string>(CellsOf(part)) { [PartAmount] = ExpressionTypes.Settled(isReversed ? -part.Amount : part.Amount) }, header);
            if (parts.IsEmpty)
                yield return header;
        }
        foreach (var line in invoice.Lines)
        {
            foreach (var cells in FlatRowsOf(line, PartsOf(invoice, line.Number)))
            {
                cells[Line] = Text(line.Number);
                cells[Block] = line.Block;
                cells[Page] = line.Page == 0 ? "" : Text(line.Page);
                yield return new PostingRecord(isReversed ? PostingRecord.Reversed(cells) : cells, header);
            }
        }
    }

    private static ImmutableArray<CodedPart> PartsOf(ApprovedInvoice invoice, int line)
    {
        foreach (var coded in invoice.Coding)
        {
            if (coded.Line == line)
                return coded.Parts;
        }
        return [];
    }

    private static IEnumerable<KeyValuePair<string, string>> CellsOf(CodedPart part) => part.Codes.Select(code => KeyValuePair.Create(code.Key, code.Value.Value));

    /// <summary>How many rows <see cref="RowsOf(ApprovedInvoice, bool)"/> gives.</summary>
    public static int CountOf(ApprovedInvoice invoice) => invoice.Lines.IsEmpty ? Math.Max(1, PartsOf(invoice, 0).Length)
        : invoice.Lines.Sum(line => CountOf(line, PartsOf(invoice, line.Number)));

    private static int CountOf(ApprovedLine line, ImmutableArray<CodedPart> parts) =>
        Math.Max(Math.Max(1, parts.Length), line.Under.Where(list => list.Flat == FlatForm.Repeated).Sum(list => list.Rows.Length));

    /// <summary>A line's cells with those of the lists under it, once for each row of the lists that are repeated, or for each share if those are more.</summary>
    /// <remarks>
    /// A joined list becomes one cell named after it: <c>serials</c> is "K1041; K1042". A repeated one adds its columns,
    /// <c>deliveries.vessel</c>. The line's quantity and amount stand on the first of its rows only, so that adding up the column still
    /// gives the subtotal. A line that is parted into shares has a row for each, with its amount and its codes; those of one that is not
    /// stand on all its rows.
    /// </remarks>
    private static IEnumerable<Dictionary<string, string>> FlatRowsOf(ApprovedLine line, ImmutableArray<CodedPart> parts)
    {
        var repeated = line.Under.Where(list => list.Flat == FlatForm.Repeated).SelectMany(list => list.Rows.Select(row => (List: list.Name, Row: row))).ToList();
        for (var at = 0; at < CountOf(line, parts); at++)
        {
            var cells = new Dictionary<string, string>(line.Cells);
            foreach (var list in line.Under)
            {
                if (list.Flat == FlatForm.Joined)
                    cells[list.Name] = string.Join("; ", list.Rows.Select(row => string.Join(' ', row.Values)));
            }
            foreach (var name in at == 0 ? [] : SummedOnce)
                cells.Remove(name);
            if (!parts.IsEmpty)
            {
                // What was captured under a code's name was a code already when the line was coded.
                foreach (var name in CodeNames.All)
                    cells.Remove(name);
                foreach (var (name, code) in parts.Length == 1 ? CellsOf(parts[0]) : at < parts.Length ? CellsOf(parts[at]) : [])
                    cells[name] = code;
                if (parts.Length > 1 && at < parts.Length)
                    cells[TradeNames.Amount] = ExpressionTypes.Settled(parts[at].Amount);
            }
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
