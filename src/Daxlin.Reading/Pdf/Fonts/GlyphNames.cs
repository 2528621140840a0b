using UglyToad.PdfPig.Fonts;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>What a glyph's name says that it is, by the list and the rules of the Adobe Glyph List Specification (1.4).</summary>
internal static class GlyphNames
{
    /// <summary>What is before a dot in a name counts, joined parts are a ligature: <c>f_i</c> is "fi", <c>five.oldstyle</c> is "5".</summary>
    /// <returns>Null for a name that says nothing, such as <c>g35</c> or <c>.notdef</c>.</returns>
    public static string? TextOf(string name)
    {
        var dot = name.IndexOf('.', StringComparison.Ordinal);
        var plain = dot < 0 ? name : name[..dot];
        if (plain.Length == 0)
            return null;
        if (!plain.Contains('_', StringComparison.Ordinal))
            return Listed(plain);
        var parts = plain.Split('_').Select(Listed).ToList();
        return parts.Contains(null) ? null : string.Concat(parts);
    }

    private static string? Listed(string name)
    {
        if (name.Length == 0)
            return null;
        try
        {
            return GlyphList.AdobeGlyphList.NameToUnicode(name);
        }
        catch (Exception error) when (error is FormatException or ArgumentException or OverflowException)
        {
            // A name that begins as one of a number and is none: "uniwm", "ucwm".
            return null;
        }
    }

    /// <summary>As <see cref="TextOf"/>, for the symbols of the standard font ZapfDingbats.</summary>
    public static string? DingbatOf(string name) => name.StartsWith('a') ? GlyphList.ZapfDingbats.NameToUnicode(name) : Listed(name);
}
