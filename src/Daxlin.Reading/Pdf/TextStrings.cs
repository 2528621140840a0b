using System.Text;

namespace Daxlin.Reading.Pdf;

/// <summary>Texts that a file states in words (ISO 32000-2, 7.9.2.2), rather than shows.</summary>
internal static class TextStrings
{
    public static string Of(ReadOnlySpan<byte> bytes) => bytes switch
    {
        [0xFE, 0xFF, .. var wide] => Encoding.BigEndianUnicode.GetString(wide),
        [0xFF, 0xFE, .. var wide] => Encoding.Unicode.GetString(wide),
        [0xEF, 0xBB, 0xBF, .. var plain] => Encoding.UTF8.GetString(plain),
        // PDFDocEncoding is Latin 1 but for some signs that no figure has.
        _ => Encoding.Latin1.GetString(bytes),
    };
}
