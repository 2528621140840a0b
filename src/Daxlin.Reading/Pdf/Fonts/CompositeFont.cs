namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A font whose codes have one to four bytes and stand for numbers of a collection of glyphs (ISO 32000-2, 9.7).</summary>
/// <param name="encoding">Takes bytes to codes, and those to numbers.</param>
/// <param name="glyphs">Of a code and its number; made when the code is first shown.</param>
internal sealed class CompositeFont(CMap encoding, Func<uint, int, Glyph> glyphs) : Font
{
    private readonly Dictionary<uint, Glyph> made = [];

    public override bool IsVertical => encoding.IsVertical;

    public override Glyph Next(ReadOnlySpan<byte> text, out int length)
    {
        var code = encoding.Code(text, out length);
        if (!made.TryGetValue(code, out var glyph))
            made[code] = glyph = glyphs(code, (int)(encoding.NumberOf(code) ?? 0));
        return glyph;
    }
}
