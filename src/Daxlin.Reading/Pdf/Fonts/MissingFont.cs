namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>What text is shown in whose font is not there: something stands there, and nobody can tell what.</summary>
internal sealed class MissingFont : Font
{
    private const double AnyWidth = 0.5;

    private static readonly Glyph blank = new(" ", AnyWidth, AnyWidth);
    private static readonly Glyph unknown = new(Glyph.Unknown, AnyWidth, AnyWidth);

    public static Font Instance { get; } = new MissingFont();

    public override Glyph Next(ReadOnlySpan<byte> text, out int length)
    {
        length = 1;
        return text[0] == ' ' ? blank : unknown;
    }
}
