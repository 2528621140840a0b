using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>An area that is drawn: a filled path, a thick line or a picture.</summary>
/// <param name="Clip">What of the page it is drawn in.</param>
/// <param name="Bounds">Around it and within the clip, in points from the page's lower left; its top is the smaller height here.</param>
/// <param name="Picture">What it shows, if it is a picture.</param>
/// <param name="Ink">Its colour; null for a picture or a pattern.</param>
/// <param name="Opacity">How much of what lies under it it hides, from 0 to 1; null where that is another at each point, or not told by a number.</param>
/// <param name="At">How many things were drawn before it.</param>
internal sealed record Cover(Outline Outline, Clip Clip, Box Bounds, Picture? Picture, Ink? Ink, double? Opacity, int At)
{
    /// <summary>What lets through more than this hides nothing.</summary>
    private const double Opaque = 0.9;

    public bool HidesWhatLiesUnder => Opacity >= Opaque;

    public bool Holds(Point point) => Outline.Holds(point) && Clip.Holds(point);
}
