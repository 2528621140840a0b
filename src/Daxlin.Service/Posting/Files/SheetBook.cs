using System.IO.Packaging;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>A spreadsheet (ECMA-376) that is being written, several sheets side by side.</summary>
/// <remarks>
/// A package that can be read as well keeps all of its parts in memory, at twenty times their size in the file for a sheet of 200,000 rows.
/// One that is only written takes one part after the other; a sheet that waits for its turn is kept compressed.
/// </remarks>
internal sealed class SheetBook(Stream bytes) : IDisposable
{
    public const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";
    private const string Parts = "application/vnd.openxmlformats-officedocument.spreadsheetml.";

    private readonly List<SheetWriter> sheets = [];

    /// <param name="columns">Their headings and widths, in letters.</param>
    public SheetWriter Add(string name, IReadOnlyList<(string Heading, double Width)> columns)
    {
        var sheet = new SheetWriter(name, columns);
        sheets.Add(sheet);
        return sheet;
    }

    /// <summary>Writes the file: the book, how its cells look, and its sheets.</summary>
    /// <remarks>A part is written when it is added, or never: the next one ends it. So the book names its sheets before they are there.</remarks>
    public void End()
    {
        using var package = Package.Open(bytes, FileMode.Create, FileAccess.Write);
        var names = sheets.Select((sheet, at) => new Sheet { Id = IdOf(at), SheetId = (uint)at + 1, Name = sheet.Name });
        var book = Add(package, "/xl/workbook.xml", "sheet.main+xml", stream => Write(stream, new Workbook(new Sheets(names))));
        package.CreateRelationship(book.Uri, TargetMode.Internal, Relations + "officeDocument");
        var styles = Add(package, "/xl/styles.xml", "styles+xml", stream => Write(stream, SheetStyles.Sheet()));
        book.CreateRelationship(styles.Uri, TargetMode.Internal, Relations + "styles");
        for (var at = 0; at < sheets.Count; at++)
        {
            var sheet = Add(package, $"/xl/worksheets/{IdOf(at)}.xml", "worksheet+xml", sheets[at].CopyTo);
            book.CreateRelationship(sheet.Uri, TargetMode.Internal, Relations + "worksheet", IdOf(at));
        }
    }

    private static PackagePart Add(Package package, string path, string kind, Action<Stream> write)
    {
        var part = package.CreatePart(new Uri(path, UriKind.Relative), Parts + kind, CompressionOption.Normal);
        using var stream = part.GetStream(FileMode.Create, FileAccess.Write);
        write(stream);
        return part;
    }

    private static void Write(Stream stream, OpenXmlElement root)
    {
        using var writer = OpenXmlWriter.Create(stream);
        writer.WriteStartDocument(standalone: true);
        writer.WriteElement(root);
    }

    private static string IdOf(int sheet) => $"sheet{sheet + 1}";

    /// <summary>Lets go of the sheets; without <see cref="End"/> there is no file.</summary>
    public void Dispose()
    {
        foreach (var sheet in sheets)
            sheet.Dispose();
    }
}
