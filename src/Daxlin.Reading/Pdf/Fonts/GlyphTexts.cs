namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Settles what a glyph is, out of what the file claims and what the font itself says.</summary>
/// <remarks>
/// A file's character map (ToUnicode) is a claim: it draws nothing. Where it says another figure or letter than the glyph's own name or
/// the font's own program, a person sees what the font draws, and that is read; the claim is told.
/// </remarks>
internal static class GlyphTexts
{
    /// <param name="claimed">By the file's character map; null if it says nothing.</param>
    /// <param name="own">By the font; none if it does not say.</param>
    /// <returns>The text that is read, and the claim where it is another.</returns>
    public static (string Text, string? Claimed) Settle(string? claimed, IReadOnlyList<string> own)
    {
        if (own.Count == 0)
            return (Cleaned(claimed) ?? Glyph.Unnamed, null);
        if (claimed is null or "" or Glyph.Unnamed)
            return (own[0], null);
        var plain = SpokenText.Of(claimed);
        foreach (var text in own)
        {
            // Figures of another script are read as they are drawn.
            if (!Contradict(plain, SpokenText.Of(text)))
                return (text.All(char.IsAsciiDigit) ? text : Cleaned(claimed) ?? text, null);
        }
        return (own[0], claimed);
    }

    /// <summary>No text where the map writes one that is none.</summary>
    private static string? Cleaned(string? text) => text is null or "" or "\uFFFD" or "\uFEFF" or "\uFFFF" ? null : text;

    private static bool Contradict(string claimed, string own) =>
        claimed != own && (claimed.Any(char.IsAsciiDigit) || own.Any(char.IsAsciiDigit) || (claimed.Length > 0 && own.Length > 0 && claimed.All(char.IsAsciiLetter) && own.All(char.IsAsciiLetter)));
}
