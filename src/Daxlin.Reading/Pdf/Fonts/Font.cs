namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Takes the bytes of a shown text to glyphs.</summary>
internal abstract class Font
{
    /// <summary>Says that text runs down the page.</summary>
    public virtual bool IsVertical => false;

    /// <summary>The next glyph of a text.</summary>
    /// <param name="text">Not empty.</param>
    /// <param name="length">How many bytes its code has, one at least.</param>
    public abstract Glyph Next(ReadOnlySpan<byte> text, out int length);
}
