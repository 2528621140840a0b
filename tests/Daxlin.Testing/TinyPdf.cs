using System.Globalization;
using System.IO.Compression;
using System.Text;

namespace Daxlin.Testing;

/// <summary>Writes PDFs object by object, so that a test can say exactly what is in them, right or wrong.</summary>
public sealed class TinyPdf
{
    private readonly List<byte[]> objects = [];
    private string trailerMore = "";

    /// <summary>A document of one page with Helvetica as F1, drawn by a content stream.</summary>
    /// <param name="pageMore">More entries of the page: <c>/Rotate 90 /CropBox [0 0 300 400]</c>.</param>
    /// <param name="resources">More resources of the page: <c>/ExtGState &lt;&lt; /Half &lt;&lt; /ca 0.5 &gt;&gt; &gt;&gt;</c>.</param>
    /// <param name="objects">Objects 6, 7 and so on: dictionaries, or streams with their entries.</param>
    public static byte[] OnePage(string content, string pageMore = "", string resources = "", params (string Entries, byte[]? Bytes)[] objects) => Pages([content], pageMore, resources, objects);

    public static byte[] Pages(IReadOnlyList<string> contents, string pageMore = "", string resources = "", params (string Entries, byte[]? Bytes)[] objects)
    {
        var pdf = new TinyPdf();
        var kids = string.Join(' ', Enumerable.Range(0, contents.Count).Select(page => $"{4 + 2 * page} 0 R"));
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add($"<< /Type /Pages /Kids [{kids}] /Count {contents.Count} /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        foreach (var content in contents)
        {
            pdf.Add($"<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> {resources} >> /Contents {pdf.objects.Count + 2} 0 R {pageMore} >>");
            pdf.AddStream("", Encoding.Latin1.GetBytes(content));
        }
        pdf.AddAll(objects);
        return pdf.Build();
    }

    private void AddAll(IEnumerable<(string Entries, byte[]? Bytes)> more)
    {
        foreach (var (entries, bytes) in more)
        {
            if (bytes is null)
                Add(entries);
            else
                AddStream(entries, bytes);
        }
    }

    /// <summary>A document of one page with two annotations: one of which nothing is drawn, and one that can draw object 6, a form.</summary>
    /// <param name="annotation">Its entries.</param>
    /// <param name="form">Entries of the form.</param>
    /// <param name="drawing">What the form draws.</param>
    public static byte[] Annotated(string content, string annotation, string form, string drawing)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> >> /Contents 5 0 R /Annots [7 0 R << /Subtype /Link /Rect [0 0 9 9] >>] >>");
        pdf.AddStream("", Encoding.Latin1.GetBytes(content));
        pdf.AddStream($"/Type /XObject /Subtype /Form {form} /Resources << /Font << /F1 3 0 R >> >>", Encoding.Latin1.GetBytes(drawing));
        pdf.Add($"<< /Type /Annot {annotation} >>");
        return pdf.Build();
    }

    /// <summary>A document of one page with Helvetica as F1, and another font as F2.</summary>
    /// <param name="font">The font's dictionary; what follows it are objects 7, 8 and so on.</param>
    /// <param name="objects">Dictionaries, or streams with their entries.</param>
    public static byte[] WithFont(string content, string font, params (string Entries, byte[]? Bytes)[] objects)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R /F2 6 0 R >> >> /Contents 5 0 R >>");
        pdf.AddStream("", Encoding.Latin1.GetBytes(content));
        pdf.Add(font);
        pdf.AddAll(objects);
        return pdf.Build();
    }

    /// <summary>A document of one page whose content is packed, and then changed.</summary>
    /// <param name="change">What becomes of the packed bytes.</param>
    public static byte[] Packed(string content, Func<byte[], byte[]> change)
    {
        var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            zlib.Write(Encoding.Latin1.GetBytes(content));
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> >> /Contents 5 0 R >>");
        pdf.AddStream("/Filter /FlateDecode", change(packed.ToArray()));
        return pdf.Build();
    }

    /// <summary>A document of one page that draws object 6, a form, as X, with object 7 as the graphics state Faint.</summary>
    /// <param name="form">Entries of the form.</param>
    public static byte[] WithForm(string content, string form, string drawing, string state)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> /XObject << /X 6 0 R >> /ExtGState << /Faint 7 0 R >> >> /Contents 5 0 R >>");
        pdf.AddStream("", Encoding.Latin1.GetBytes(content));
        pdf.AddStream($"/Type /XObject /Subtype /Form {form}", Encoding.Latin1.GetBytes(drawing));
        pdf.Add(state);
        return pdf.Build();
    }

    /// <summary>A document of one page that carries files.</summary>
    /// <param name="areAssociated">Says that they are told only as associated files; else in a tree of names with a node between.</param>
    /// <param name="entries">Entries of each file's stream: a filter.</param>
    public static byte[] Carrying(string content, IReadOnlyList<(string Name, byte[] Bytes)> files, bool areAssociated = false, string entries = "")
    {
        var pdf = new TinyPdf();
        var specifications = string.Join(' ', files.Select((_, at) => $"{7 + 2 * at} 0 R"));
        var names = string.Join(' ', files.Select((file, at) => $"({at:D3}) {7 + 2 * at} 0 R"));
        pdf.Add($"<< /Type /Catalog /Pages 2 0 R {(areAssociated ? $"/AF [{specifications}]" : "/Names << /EmbeddedFiles << /Kids [6 0 R] >> >>")} >>");
        pdf.Add("<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> >> /Contents 5 0 R >>");
        pdf.AddStream("", Encoding.Latin1.GetBytes(content));
        pdf.Add($"<< /Names [{names}] >>");
        foreach (var (name, bytes) in files)
        {
            pdf.Add($"<< /Type /Filespec /F ({name}) /UF ({name}) /EF << /F {pdf.objects.Count + 2} 0 R >> >>");
            pdf.AddStream($"/Type /EmbeddedFile {entries}", bytes);
        }
        return pdf.Build();
    }

    /// <summary>Text lines, each at its place from the bottom left, in 10 pt.</summary>
    public static string Text(params (double X, double Y, string Text)[] lines)
    {
        var content = new StringBuilder("BT /F1 10 Tf\n");
        foreach (var (x, y, text) in lines)
        {
            content.Append(CultureInfo.InvariantCulture, $"1 0 0 1 {x} {y} Tm ({text.Replace("(", "\\(", StringComparison.Ordinal).Replace(")", "\\)", StringComparison.Ordinal)}) Tj\n");
        }
        return content.Append("ET\n").ToString();
    }

    /// <summary>A page tree whose root is its own child.</summary>
    public static byte[] LoopingPageTree()
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Pages /Kids [2 0 R] /Count 1 /Parent 2 0 R >>");
        return pdf.Build();
    }

    /// <summary>A page whose content packs a few kilobytes and unpacks to <paramref name="megabytes"/>.</summary>
    public static byte[] InflatingWithoutEnd(int megabytes)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Contents 4 0 R >>");
        pdf.AddStream("/Filter /FlateDecode", Blanks(megabytes));
        return pdf.Build();
    }

    /// <summary>A page in a font whose program says that it has 100 bytes, and unpacks to <paramref name="megabytes"/>.</summary>
    public static byte[] FontInflatingWithoutEnd(int megabytes)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 5 0 R >> >> /Contents 4 0 R >>");
        pdf.AddStream("", Encoding.Latin1.GetBytes(Text((50, 700, "Total 1.00"))));
        pdf.Add("<< /Type /Font /Subtype /TrueType /BaseFont /Made /FirstChar 32 /LastChar 32 /Widths [500] /FontDescriptor 6 0 R >>");
        pdf.Add("<< /Type /FontDescriptor /FontName /Made /Flags 32 /FontBBox [0 0 500 700] /FontFile2 7 0 R >>");
        pdf.AddStream("/Filter /FlateDecode /Length1 100", Blanks(megabytes));
        return pdf.Build();
    }

    private static byte[] Blanks(int megabytes)
    {
        var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            var blanks = Encoding.ASCII.GetBytes(new string(' ', 1 << 20));
            for (var megabyte = 0; megabyte < megabytes; megabyte++)
                zlib.Write(blanks);
        }
        return packed.ToArray();
    }

    /// <summary>Forms that each draw the next one ten times: <paramref name="deep"/> of them are ten to that power of words.</summary>
    public static byte[] FormsInForms(int deep)
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /XObject << /X 6 0 R >> >> /Contents 4 0 R >>");
        pdf.AddStream("", "/X Do"u8.ToArray());
        pdf.Add("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>");
        for (var at = 1; at < deep; at++)
        {
            pdf.AddStream(
                $"/Type /XObject /Subtype /Form /BBox [0 0 595 842] /Resources << /XObject << /X {pdf.objects.Count + 2} 0 R >> >>",
                Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("/X Do ", 10))));
        }
        pdf.AddStream("/Type /XObject /Subtype /Form /BBox [0 0 595 842] /Resources << /Font << /F1 5 0 R >> >>", Encoding.Latin1.GetBytes(Text((50, 700, "Total 1.00"))));
        return pdf.Build();
    }

    /// <summary>A form that draws itself, over and over.</summary>
    public static byte[] SelfDrawingForm()
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R /Resources << /XObject << /X 5 0 R >> >> /Contents 4 0 R >>");
        pdf.AddStream("", "/X Do"u8.ToArray());
        pdf.AddStream("/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /X 5 0 R >> >>", "/X Do /X Do"u8.ToArray());
        return pdf.Build();
    }

    /// <summary>A document that says it is encrypted with a password nobody has.</summary>
    public static byte[] Encrypted()
    {
        var pdf = new TinyPdf();
        pdf.Add("<< /Type /Catalog /Pages 2 0 R >>");
        pdf.Add("<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595 842] >>");
        pdf.Add("<< /Type /Page /Parent 2 0 R >>");
        var lock32 = string.Concat(Enumerable.Repeat("5A", 32));
        pdf.Add($"<< /Filter /Standard /V 2 /R 3 /Length 128 /P -44 /O <{lock32}> /U <{lock32}> >>");
        pdf.trailerMore = " /Encrypt 4 0 R /ID [<00112233445566778899AABBCCDDEEFF> <00112233445566778899AABBCCDDEEFF>]";
        return pdf.Build();
    }

    private void Add(string body) => objects.Add(Encoding.Latin1.GetBytes(body));

    private void AddStream(string entries, byte[] data) => objects.Add(
    [
        .. Encoding.Latin1.GetBytes($"<< {entries} /Length {data.Length} >>\nstream\n"), .. data, .. "\nendstream"u8,
    ]);

    private byte[] Build()
    {
        var file = new MemoryStream();
        file.Write("%PDF-1.7\n"u8);
        var offsets = new List<long>();
        for (var number = 1; number <= objects.Count; number++)
        {
            offsets.Add(file.Position);
            file.Write(Encoding.Latin1.GetBytes($"{number} 0 obj\n"));
            file.Write(objects[number - 1]);
            file.Write("\nendobj\n"u8);
        }
        var xref = file.Position;
        file.Write(Encoding.Latin1.GetBytes($"xref\n0 {objects.Count + 1}\n0000000000 65535 f \n"));
        foreach (var offset in offsets)
            file.Write(Encoding.Latin1.GetBytes($"{offset:D10} 00000 n \n"));
        file.Write(Encoding.Latin1.GetBytes(
            $"trailer\n<< /Size {objects.Count + 1} /Root 1 0 R{trailerMore} >>\nstartxref\n{xref}\n%%EOF\n"));
        return file.ToArray();
    }
}
