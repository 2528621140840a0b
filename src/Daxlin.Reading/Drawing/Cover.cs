using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>An area that is drawn: a filled path, a thick line or a picture.</summary>
/// <param name="Clip">What of the page it is drawn in.</param>
/// <param name="Bounds">Around it and within the clip, in points from the page's lower left; its top is the smaller height here.</param>
/// <param name="Picture">What it shows, if it is a picture.</param>
/// <param name="Ink">Its colour; null for a picture or a pattern.</param>
/// <param name="Opacity">How much of what lies under it it hides, from 0 to 1, beside what a picture's own mask lets through; null where no number says.</param>
/// <param name="IsMasked">It is drawn through a mask, of which nobody can tell what it lets through.</param>
/// <param name="At">How many things were drawn before it.</param>
internal sealed record Cover(Outline Outline, Clip Clip, Box Bounds, Picture? Picture, Ink? Ink, double? Opacity, bool IsMasked, int At)
{
    /// <summary>What lets through more than this hides nothing.</summary>
    private const double Opaque = 0.9;

    /// <summary>Says that it hides all of what lies under it.</summary>
    public static bool IsWhole(double? opacity) => opacity >= Opaque;

    /// <summary>Says that it lets through all of what lies under it.</summary>
    public static bool IsNone(double? opacity) => opacity <= 1 - Opaque;

    public bool Holds(Point point) => Outline.Holds(point) && Clip.Holds(point);

    /// <summary>Says that nobody can tell whether what lies under it is seen.</summary>
    public bool IsUntold => IsMasked || Picture is { Content.Value.IsUntold: true };

    /// <summary>How much of a letter under it it hides, from 0 to 1; null where nobody can tell.</summary>
    public double? OpacityOver(in DrawnLetter letter) => Picture is null ? Opacity : Opacity * Picture.CoverAround(letter.Middle, letter.Size);
}
