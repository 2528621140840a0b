using System.IO.Compression;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>A spreadsheet (ECMA-376) that is being written, several sheets side by side.</summary>
/// <remarks>
/// A package takes one part after the other, and a part that waits for its turn is kept compressed: a sheet of 200,000 rows
/// is twenty times as large as it is in the file.
/// </remarks>
internal sealed class SheetBook(Stream bytes) : IDisposable
{
    public const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private const string Parts = "application/vnd.openxmlformats-officedocument.spreadsheetml";

    private readonly List<SheetWriter> sheets = [];

    /// <param name="columns">Their headings and widths, in letters.</param>
    public SheetWriter Add(string name, IReadOnlyList<(string Heading, double Width)> columns)
    {
        var sheet = new SheetWriter(name, columns);
        sheets.Add(sheet);
        return sheet;
    }

    /// <summary>Writes the file (ECMA-376, part 2): what its parts are, how they belong together, and the parts.</summary>
    public void End()
    {
        using var package = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true);
        Write(package, "[Content_Types].xml", $"""
            <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="{Parts}.sheet.main+xml"/><Override PartName="/xl/styles.xml" ContentType="{Parts}.styles+xml"/>{Each(at => $"<Override PartName=\"/xl/{PathOf(at)}\" ContentType=\"{Parts}.worksheet+xml\"/>")}</Types>
            """);
        Write(package, "_rels/.rels", RelationsOf($"<Relationship Id=\"book\" Type=\"{Relations}/officeDocument\" Target=\"xl/workbook.xml\"/>"));
        Write(package, "xl/_rels/workbook.xml.rels", RelationsOf(
            $"<Relationship Id=\"styles\" Type=\"{Relations}/styles\" Target=\"styles.xml\"/>{Each(at => $"<Relationship Id=\"{IdOf(at)}\" Type=\"{Relations}/worksheet\" Target=\"{PathOf(at)}\"/>")}"));
        Write(package, "xl/workbook.xml", new Workbook(new Sheets(sheets.Select((sheet, at) => new Sheet { Id = IdOf(at), SheetId = (uint)at + 1, Name = sheet.Name }))).OuterXml);
        Write(package, "xl/styles.xml", SheetStyles.Sheet().OuterXml);
        for (var at = 0; at < sheets.Count; at++)
        {
            using var part = package.CreateEntry($"xl/{PathOf(at)}").Open();
            sheets[at].CopyTo(part);
        }
    }

    private static void Write(ZipArchive package, string path, string xml)
    {
        using var part = new StreamWriter(package.CreateEntry(path).Open());
        part.Write($"<?xml version=\"1.0\" encoding=\"utf-8\" standalone=\"yes\"?>{xml.Trim()}");
    }

    private static string RelationsOf(string relations) => $"<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">{relations}</Relationships>";

    private string Each(Func<int, string> of) => string.Concat(Enumerable.Range(0, sheets.Count).Select(of));

    private static string IdOf(int sheet) => $"sheet{sheet + 1}";

    private static string PathOf(int sheet) => $"worksheets/sheet{sheet + 1}.xml";

    /// <summary>Lets go of the sheets; without <see cref="End"/> there is no file.</summary>
    public void Dispose()
    {
        foreach (var sheet in sheets)
            sheet.Dispose();
    }
}
