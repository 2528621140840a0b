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

    /// <summary>What areas and letters are filled with.</summary>
    public Paint FillPaint { get; set; } = Paint.Black;

    public Paint StrokePaint { get; set; } = Paint.Black;

    public double FillAlpha { get; set; } = 1;

    public double StrokeAlpha { get; set; } = 1;

    /// <summary>How much of what is drawn as one group is laid on the page.</summary>
    public double GroupAlpha { get; set; } = 1;

    /// <summary>How colours are mixed with what lies under them.</summary>
    public Mixing Mixing { get; set; }

    /// <summary>The same, of the group that it is drawn in.</summary>
    public Mixing GroupMixing { get; set; }

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

    /// <summary>How colours are mixed, here and by the group around: the one of which less can be told.</summary>
    public readonly Mixing MixingOfColours => (Mixing)Math.Max((int)Mixing, (int)GroupMixing);

    /// <summary>How what is drawn comes together with what lies under it, its mask and its groups taken together.</summary>
    public readonly Mixing MixingOfAll
    {
        get
        {
            var colours = MixingOfColours;
            return !IsMasked && !IsGroupMasked ? colours : colours == Mixing.None ? Mixing.Masked : Mixing.Untold;
        }
    }

}
