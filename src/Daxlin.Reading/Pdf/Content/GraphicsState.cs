using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Fonts;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>The graphics state (ISO 32000-2, 8.4 and 9.3), as far as it decides which text is drawn where, and whether it is seen.</summary>
internal record struct GraphicsState()
{
    public Matrix Matrix { get; set; } = Matrix.Identity;

    public Clip Clip { get; set; } = Clip.None;

    public ColourSpace FillSpace { get; set; } = ColourSpace.Grey;

    public ColourSpace StrokeSpace { get; set; } = ColourSpace.Grey;

    /// <summary>The colour that areas and letters are filled with; null for a pattern.</summary>
    public Ink? FillInk { get; set; } = Ink.Black;

    public Ink? StrokeInk { get; set; } = Ink.Black;

    public double FillAlpha { get; set; } = 1;

    public double StrokeAlpha { get; set; } = 1;

    /// <summary>How much of what is drawn as one group is laid on the page.</summary>
    public double GroupAlpha { get; set; } = 1;

    /// <summary>Colours are mixed with what lies under them in another way than by a number.</summary>
    public bool IsMixed { get; set; }

    /// <summary>The same, of the group that it is drawn in.</summary>
    public bool IsGroupMixed { get; set; }

    /// <summary>It is laid on the page through a mask that is drawn (11.6.4.3).</summary>
    public bool IsMasked { get; set; }

    /// <summary>The same, of the group that it is drawn in.</summary>
    public bool IsGroupMasked { get; set; }

    public double LineWidth { get; set; } = 1;

    /// <summary>What text is shown in; null before any is chosen, or where it cannot be had.</summary>
    public Font? Font { get; set; }

    public double FontSize { get; set; }

    public double CharacterSpacing { get; set; }

    public double WordSpacing { get; set; }

    /// <summary>How wide text is set, 1 as its font says.</summary>
    public double Stretch { get; set; } = 1;

    public double Leading { get; set; }

    public double Rise { get; set; }

    public TextMode Mode { get; set; }

    public readonly double FillOpacity => FillAlpha * GroupAlpha;

    public readonly double StrokeOpacity => StrokeAlpha * GroupAlpha;

    /// <summary>How much of what lies under it a filled area hides; null where no number says.</summary>
    public readonly double? FillCover => IsMixed || IsGroupMixed || IsMasked || IsGroupMasked ? null : FillOpacity;

    /// <summary>The same of lines.</summary>
    public readonly double? StrokeCover => IsMixed || IsGroupMixed || IsMasked || IsGroupMasked ? null : StrokeOpacity;
}
