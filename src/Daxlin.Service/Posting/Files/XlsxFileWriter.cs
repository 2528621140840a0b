using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes a spreadsheet (ECMA-376): a sheet for each table, its heading frozen, and one for the control totals.</summary>
/// <remarks>
/// Cells are numbers, dates or text by their type; text is never a formula, whatever it begins with. Rows go to the sheet as they
/// come, so that many take no memory of their own but the file's.
/// </remarks>
internal sealed class XlsxFileWriter : LayoutWriter
{
    private readonly SheetBook book;
    private readonly Dictionary<LayoutTable, SheetWriter> sheets;

    public XlsxFileWriter(IReadOnlyCollection<LayoutTable> tables)
    {
        book = new SheetBook(Bytes);
        sheets = tables.ToDictionary(table => table, table => book.Add(table.Name, [.. table.Columns.Select(column => (column.Heading, WidthOf(column)))]));
    }

    public override string MediaType => SheetBook.MediaType;

    public override void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records)
    {
        foreach (var record in records)
        {
            sheets[record.Table].Write([.. record.Values.Select((value, at) => (value, StyleOf(record.Table.Columns[at], value)))]);
            Records++;
        }
    }

    public override byte[] End(IReadOnlyCollection<ProvedSum> sums)
    {
        var totals = book.Add(
            "Control totals", [("Table", SheetStyles.TextWidth), ("Column", SheetStyles.TextWidth), ("Of", SheetStyles.DateWidth), ("Currency", SheetStyles.DateWidth), ("Control total", SheetStyles.NumberWidth), ("Written", SheetStyles.NumberWidth)]);
        foreach (var sum in sums)
        {
            totals.Write(
            [
                (sum.Table, SheetStyles.Plain), (sum.Column, SheetStyles.Plain), (sum.IsOfCreditNotes ? "credit notes" : "invoices", SheetStyles.Plain), (sum.Currency, SheetStyles.Plain),
                (sum.Wanted, SheetStyles.Decimals(Core.Values.Currency.Find(sum.Currency)?.MinorDigits ?? 2)), (sum.Written, SheetStyles.Decimals(Core.Values.Currency.Find(sum.Currency)?.MinorDigits ?? 2)),
            ]);
        }
        book.End();
        return Bytes.ToArray();
    }

    public override void Dispose()
    {
        book.Dispose();
        base.Dispose();
    }

    private static double WidthOf(LayoutColumn column) => Math.Max(
        column.Heading.Length + 2,
        column.Width > 0 ? Math.Min(column.Width + 2, SheetStyles.WidestUnlessSaid) : column.Value.Type switch
        {
            ExpressionType.Number => SheetStyles.NumberWidth,
            ExpressionType.Text => SheetStyles.TextWidth,
            _ => SheetStyles.DateWidth,
        });

    private static uint StyleOf(LayoutColumn column, object? value) => value switch
    {
        DateOnly => SheetStyles.Date,
        decimal when column.Decimals is { } digits => SheetStyles.Decimals(digits),
        decimal number when column.HasDigitsOfCurrency => SheetStyles.Decimals(number.Scale),
        _ => SheetStyles.Plain,
    };
}
