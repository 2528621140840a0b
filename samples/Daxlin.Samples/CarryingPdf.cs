using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Daxlin.Samples;

/// <summary>Adds a file to a PDF by an incremental update (ISO 32000-2, 7.5.6): what was there stays byte for byte.</summary>
internal static partial class CarryingPdf
{
    /// <param name="pdf">With a table of cross-references, not a stream of them, and a catalog that names no files yet.</param>
    public static byte[] Add(byte[] pdf, string name, byte[] bytes)
    {
        var text = Encoding.Latin1.GetString(pdf);
        var root = Root().Matches(text)[^1].Groups[1].Value;
        var size = int.Parse(Size().Matches(text)[^1].Groups[1].ValueSpan, CultureInfo.InvariantCulture);
        var before = StartXref().Matches(text)[^1].Groups[1].Value;
        var catalog = Regex.Match(text, $@"(?s)(?:^|[\r\n]){root} 0 obj\s*<<(.*?)>>\s*endobj").Groups[1].Value;
        var file = new MemoryStream();
        file.Write(pdf);
        var entries = new List<(int Number, long At)>();
        void Object(int number, byte[] body)
        {
            entries.Add((number, file.Position));
            file.Write(Latin($"{number} 0 obj\n"));
            file.Write(body);
            file.Write("\nendobj\n"u8);
        }
        file.Write("\n"u8);
        Object(int.Parse(root, CultureInfo.InvariantCulture), Latin($"<<{catalog} /AF [{size + 1} 0 R] /Names << /EmbeddedFiles << /Names [({name}) {size + 1} 0 R] >> >> >>"));
        Object(size, [.. Latin($"<< /Type /EmbeddedFile /Subtype /text#2Fxml /Length {bytes.Length} >>\nstream\n"), .. bytes, .. "\nendstream"u8]);
        Object(size + 1, Latin($"<< /Type /Filespec /F ({name}) /UF ({name}) /AFRelationship /Alternative /EF << /F {size} 0 R /UF {size} 0 R >> >>"));
        var xref = file.Position;
        file.Write("xref\n"u8);
        foreach (var (number, at) in entries)
            file.Write(Latin($"{number} 1\n{at:D10} 00000 n \n"));
        file.Write(Latin($"trailer\n<< /Size {size + 2} /Root {root} 0 R /Prev {before} >>\nstartxref\n{xref}\n%%EOF\n"));
        return file.ToArray();
    }

    private static byte[] Latin(string text) => Encoding.Latin1.GetBytes(text);

    [GeneratedRegex(@"/Root\s+(\d+)\s+0\s+R")]
    private static partial Regex Root();

    [GeneratedRegex(@"/Size\s+(\d+)")]
    private static partial Regex Size();

    [GeneratedRegex(@"startxref\s+(\d+)")]
    private static partial Regex StartXref();
}
