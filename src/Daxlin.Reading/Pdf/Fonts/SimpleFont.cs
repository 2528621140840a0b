namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A font of single bytes (ISO 32000-2, 9.6).</summary>
/// <param name="glyphs">Made when their code is first shown.</param>
internal sealed class SimpleFont(Func<int, Glyph> glyphs) : Font
{
    private readonly Glyph?[] made = new Glyph?[256];

    public override Glyph Next(ReadOnlySpan<byte> text, out int length)
    {
        length = 1;
        return made[text[0]] ??= glyphs(text[0]);
    }
}
