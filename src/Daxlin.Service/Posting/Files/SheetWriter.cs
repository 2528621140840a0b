using System.Globalization;
using System.IO.Compression;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>One sheet, written row by row and kept compressed until the file takes it.</summary>
internal sealed class SheetWriter : IDisposable
{
    private readonly MemoryStream kept = MemoryOfFiles.New();
    private readonly DeflateStream compressing;
    private readonly OpenXmlWriter writer;
    private bool isClosed;
    private uint rows;

    public SheetWriter(string name, IReadOnlyList<(string Heading, double Width)> columns)
    {
        Name = name;
        compressing = new DeflateStream(kept, CompressionLevel.Fastest, leaveOpen: true);
        writer = OpenXmlWriter.Create(compressing);
        writer.WriteStartDocument(standalone: true);
        writer.WriteStartElement(new Worksheet());
        writer.WriteElement(new SheetViews(new SheetView(
            new Pane { VerticalSplit = 1, TopLeftCell = "A2", ActivePane = PaneValues.BottomLeft, State = PaneStateValues.Frozen })
        { WorkbookViewId = 0 }));
        writer.WriteElement(new Columns(columns.Select((column, at) => new Column { Min = (uint)at + 1, Max = (uint)at + 1, Width = column.Width, CustomWidth = true })));
        writer.WriteStartElement(new SheetData());
        Write([.. columns.Select(column => ((object?)column.Heading, SheetStyles.Bold))]);
    }

    public string Name { get; }

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

    /// <summary>Ends the sheet and writes it as it is in the file.</summary>
    public void CopyTo(Stream part)
    {
        Close();
        kept.Position = 0;
        using var sheet = new DeflateStream(kept, CompressionMode.Decompress, leaveOpen: true);
        sheet.CopyTo(part);
    }

    private void Close()
    {
        if (isClosed)
            return;
        isClosed = true;
        writer.WriteEndElement();
        writer.WriteEndElement();
        writer.Close();
        compressing.Dispose();
    }

    public void Dispose()
    {
        Close();
        kept.Dispose();
    }
}
