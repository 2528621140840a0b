namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>What a code of a text stands for in a font.</summary>
/// <param name="Text">What a person reads; "\0" where nothing says.</param>
/// <param name="Advance">How far it moves on, of the type's size: along the line, or down the column in vertical writing (negative).</param>
/// <param name="Width">Of the type's size.</param>
/// <param name="Claimed">What the file says that it is, where the font itself says another letter or figure.</param>
internal sealed record Glyph(string Text, double Advance, double Width, string? Claimed = null)
{
    /// <summary>What nothing names, and what may be a blank.</summary>
    public const string Unnamed = "\0";

    /// <summary>What leaves a mark that nothing names.</summary>
    public const string Unknown = "\uFFFD";

    /// <summary>From where a column runs to where the glyph starts, of the type's size; nothing along a line.</summary>
    public (double X, double Y) Origin { get; init; }

    /// <summary>It has a text, and its font draws nothing for it.</summary>
    public bool LeavesNoMark { get; init; }

    /// <summary>This glyph, by what its font draws for it.</summary>
    /// <param name="isBlank">The font draws nothing; null where that is not known.</param>
    /// <remarks>A blank that leaves a mark is something that nothing names: a bar over a figure, say.</remarks>
    public Glyph As(bool? isBlank) => string.IsNullOrWhiteSpace(Text)
        ? isBlank == false && Text.Length > 0 ? this with { Text = Unknown } : this
        : isBlank == true && Text != Unnamed ? this with { LeavesNoMark = true } : this;

    /// <summary>What draws it, where that is content and no outline.</summary>
    public GlyphDrawing? Drawing { get; init; }
}
