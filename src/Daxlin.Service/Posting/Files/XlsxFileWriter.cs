using System.Globalization;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes a spreadsheet (ECMA-376): a sheet for each table, its heading frozen, and one for the control totals.</summary>
/// <remarks>
/// Cells are numbers, dates or text by their type; text is never a formula, whatever it begins with. Rows go to the sheet as they
/// come, so that many take no memory of their own but the file's.
/// </remarks>
internal sealed class XlsxFileWriter : LayoutWriter
{
    /// <summary>Places in the list of cell formats.</summary>
    private const uint Plain = 0, Date = 1, Bold = 2, FirstOfDecimals = 3;

    private const int MostDecimals = 10;

    /// <summary>Column widths, in letters of the standard typeface.</summary>
    private const double DateWidth = 12, NumberWidth = 14, TextWidth = 24, WidestUnlessSaid = 60;

    private readonly SpreadsheetDocument document;
    private readonly Dictionary<LayoutTable, SheetWriter> sheets;

    public XlsxFileWriter(IReadOnlyCollection<LayoutTable> tables)
    {
        document = SpreadsheetDocument.Create(Bytes, SpreadsheetDocumentType.Workbook);
        var book = document.AddWorkbookPart();
        book.Workbook = new Workbook(new Sheets());
        book.AddNewPart<WorkbookStylesPart>().Stylesheet = Styles();
        sheets = tables.ToDictionary(table => table, table => new SheetWriter(book, table.Name, [.. table.Columns.Select(column => (column.Heading, WidthOf(column)))]));
    }

    public override string MediaType => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

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
        foreach (var sheet in sheets.Values)
            sheet.Dispose();
        using (var totals = new SheetWriter(
            document.WorkbookPart!, "Control totals", [("Table", TextWidth), ("Column", TextWidth), ("Of", DateWidth), ("Currency", DateWidth), ("Control total", NumberWidth), ("Written", NumberWidth)]))
        {
            foreach (var sum in sums)
            {
                totals.Write(
                [
                    (sum.Table, Plain), (sum.Column, Plain), (sum.IsOfCreditNotes ? "credit notes" : "invoices", Plain), (sum.Currency, Plain),
                    (sum.Wanted, DecimalsStyle(Core.Values.Currency.Find(sum.Currency)?.MinorDigits ?? 2)), (sum.Written, DecimalsStyle(Core.Values.Currency.Find(sum.Currency)?.MinorDigits ?? 2)),
                ]);
            }
        }
        document.Dispose();
        return Bytes.ToArray();
    }

    public override void Dispose()
    {
        foreach (var sheet in sheets.Values)
            sheet.Dispose();
        document.Dispose();
        base.Dispose();
    }

    private static double WidthOf(LayoutColumn column) => Math.Max(
        column.Heading.Length + 2,
        column.Width > 0 ? Math.Min(column.Width + 2, WidestUnlessSaid) : column.Value.Type switch
        {
            ExpressionType.Number => NumberWidth,
            ExpressionType.Text => TextWidth,
            _ => DateWidth,
        });

    private static uint StyleOf(LayoutColumn column, object? value) => value switch
    {
        DateOnly => Date,
        decimal when column.Decimals is { } digits => DecimalsStyle(digits),
        decimal number when column.HasDigitsOfCurrency => DecimalsStyle(number.Scale),
        _ => Plain,
    };

    private static uint DecimalsStyle(int digits) => FirstOfDecimals + (uint)digits;

    private static Stylesheet Styles()
    {
        // Numbers of the book's own formats begin at 164 (ECMA-376, 18.8.30).
        const uint own = 164;
        var formats = new NumberingFormats(new NumberingFormat { NumberFormatId = own, FormatCode = "yyyy-mm-dd" });
        var cells = new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = own, ApplyNumberFormat = true }, new CellFormat { FontId = 1, ApplyFont = true });
        for (uint digits = 0; digits <= MostDecimals; digits++)
        {
            formats.Append(new NumberingFormat { NumberFormatId = own + 1 + digits, FormatCode = "0" + (digits == 0 ? "" : "." + new string('0', (int)digits)) });
            cells.Append(new CellFormat { NumberFormatId = own + 1 + digits, ApplyNumberFormat = true });
        }
        return new Stylesheet(
            formats, new Fonts(new Font(), new Font(new Bold())), new Fills(new Fill(new PatternFill { PatternType = PatternValues.None }), new Fill(new PatternFill { PatternType = PatternValues.Gray125 })),
            new Borders(new Border()), new CellStyleFormats(new CellFormat()), cells);
    }

    /// <summary>One sheet, written row by row.</summary>
    private sealed class SheetWriter : IDisposable
    {
        private readonly OpenXmlWriter writer;
        private bool isClosed;
        private uint rows;

        public SheetWriter(WorkbookPart book, string name, IReadOnlyList<(string Heading, double Width)> columns)
        {
            var part = book.AddNewPart<WorksheetPart>();
            var sheets = book.Workbook!.GetFirstChild<Sheets>()!;
            sheets.Append(new Sheet { Id = book.GetIdOfPart(part), SheetId = (uint)sheets.ChildElements.Count + 1, Name = name });
            writer = OpenXmlWriter.Create(part);
            writer.WriteStartElement(new Worksheet());
            writer.WriteElement(new SheetViews(new SheetView(
                new Pane { VerticalSplit = 1, TopLeftCell = "A2", ActivePane = PaneValues.BottomLeft, State = PaneStateValues.Frozen })
            { WorkbookViewId = 0 }));
            writer.WriteElement(new Columns(columns.Select((column, at) => new Column { Min = (uint)at + 1, Max = (uint)at + 1, Width = column.Width, CustomWidth = true })));
            writer.WriteStartElement(new SheetData());
            Write([.. columns.Select(column => ((object?)column.Heading, Bold))]);
        }

        public void Write(ReadOnlySpan<(object? Value, uint Style)> cells)
        {
            // Optional by the standard, but there are readers that place no cell without its reference.
            writer.WriteStartElement(new Row { RowIndex = ++rows });
            for (var at = 0; at < cells.Length; at++)
            {
                var cell = CellOf(cells[at].Value, cells[at].Style);
                cell.CellReference = string.Create(CultureInfo.InvariantCulture, $"{ColumnOf(at)}{rows}");
                writer.WriteElement(cell);
            }
            writer.WriteEndElement();
        }

        /// <summary>A, B … Z, AA …</summary>
        private static string ColumnOf(int at) => (at < 26 ? "" : ColumnOf(at / 26 - 1)) + (char)('A' + at % 26);

        private static Cell CellOf(object? value, uint style) => value switch
        {
            null => new Cell { StyleIndex = style },
            decimal number => new Cell { StyleIndex = style, CellValue = new CellValue(number.ToString(CultureInfo.InvariantCulture)) },
            // Days since the end of 1899, the serial numbers of dates (ECMA-376, 18.17.4.1).
            DateOnly date => new Cell { StyleIndex = style, CellValue = new CellValue(date.ToDateTime(TimeOnly.MinValue).ToOADate().ToString(CultureInfo.InvariantCulture)) },
            bool isSo => new Cell { StyleIndex = style, DataType = CellValues.Boolean, CellValue = new CellValue(isSo ? "1" : "0") },
            var text => new Cell
            {
                StyleIndex = style,
                DataType = CellValues.InlineString,
                InlineString = new InlineString(new Text(Writable((string)text)) { Space = SpaceProcessingModeValues.Preserve }),
            },
        };

        /// <summary>Control characters have no place in XML.</summary>
        private static string Writable(string text) => text.Any(char.IsControl) ? string.Concat(text.Select(letter => char.IsControl(letter) && letter is not ('\n' or '\t') ? ' ' : letter)) : text;

        public void Dispose()
        {
            if (isClosed)
                return;
            isClosed = true;
            writer.WriteEndElement();
            writer.WriteEndElement();
            writer.Close();
        }
    }
}
