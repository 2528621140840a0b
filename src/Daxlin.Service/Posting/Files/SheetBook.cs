using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>A spreadsheet (ECMA-376) that is being written, sheet by sheet.</summary>
internal sealed class SheetBook : IDisposable
{
    public const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private readonly SpreadsheetDocument document;

    /// <param name="bytes">What it is written to; whole when it is disposed of.</param>
    public SheetBook(Stream bytes)
    {
        document = SpreadsheetDocument.Create(bytes, SpreadsheetDocumentType.Workbook);
        var book = document.AddWorkbookPart();
        book.Workbook = new Workbook(new Sheets());
        book.AddNewPart<WorkbookStylesPart>().Stylesheet = SheetStyles.Sheet();
    }

    /// <param name="columns">Their headings and widths, in letters.</param>
    public SheetWriter Add(string name, IReadOnlyList<(string Heading, double Width)> columns) => new(document.WorkbookPart!, name, columns);

    public void Dispose() => document.Dispose();
}
