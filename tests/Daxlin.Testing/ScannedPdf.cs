using System.Globalization;
using Daxlin.Reading.Pictures;

namespace Daxlin.Testing;

/// <summary>Makes scans of what is printed, as a scanner writes them: a picture a page, and no text.</summary>
public static class ScannedPdf
{
    /// <summary>The first page of a file, as a PDF that holds its picture.</summary>
    public static async Task<byte[]> Of(string file, double dpi = PageRaster.Dpi) => Holding(await PictureOf(file, dpi), "");

    /// <summary>The same behind a page of print.</summary>
    public static async Task<byte[]> Behind(string printed, string file) => Holding(await PictureOf(file, PageRaster.Dpi), printed);

    /// <summary>The first page of a file, as a picture.</summary>
    public static Task<GreyPicture> PictureOf(string file, double dpi) => PageRaster.InGrey(file, 1, dpi, TimeSpan.FromSeconds(120), CancellationToken.None);

    private static byte[] Holding(GreyPicture picture, string printed)
    {
        using var packed = new MemoryStream();
        using (var zlib = new System.IO.Compression.ZLibStream(packed, System.IO.Compression.CompressionLevel.Fastest, leaveOpen: true))
            zlib.Write(picture.Dots);
        string[] pages = printed.Length == 0 ? [""] : [printed, ""];
        pages[^1] = string.Create(CultureInfo.InvariantCulture, $"q {picture.Width * picture.Point:F2} 0 0 {picture.Height * picture.Point:F2} 0 0 cm /Scan Do Q");
        var entries = string.Create(CultureInfo.InvariantCulture, $"/Type /XObject /Subtype /Image /Width {picture.Width} /Height {picture.Height} /ColorSpace /DeviceGray /BitsPerComponent 8 /Filter /FlateDecode");
        return TinyPdf.Pages(pages, string.Create(CultureInfo.InvariantCulture, $"/MediaBox [0 0 {picture.Width * picture.Point:F2} {picture.Height * picture.Point:F2}]"), $"/XObject << /Scan {4 + (2 * pages.Length)} 0 R >>", (entries, packed.ToArray()));
    }
}
