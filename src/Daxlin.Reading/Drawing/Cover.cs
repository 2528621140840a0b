using System.Collections.Immutable;
using Daxlin.Core.Pages;
using UglyToad.PdfPig.Core;

namespace Daxlin.Reading.Drawing;

/// <summary>An area that is drawn: a filled path, a thick line or a picture.</summary>
/// <param name="Outline">The path's parts; its lines only, where curves bulge it is taken for less.</param>
/// <param name="Bounds">Around it and within the clip, in points from the page's lower left; its top is the larger one.</param>
/// <param name="Picture">What it shows, if it is a picture.</param>
/// <param name="Ink">Its colour; null for a picture or a pattern.</param>
/// <param name="Opacity">How much of what lies under it it hides, from 0 to 1; null where that is another at each point, or not told by a number.</param>
/// <param name="At">How many things were drawn before it.</param>
internal sealed record Cover(ImmutableArray<ImmutableArray<PdfPoint>> Outline, Box Bounds, Picture? Picture, Ink? Ink, double? Opacity, int At)
{
    /// <summary>What lets through more than this hides nothing.</summary>
    private const double Opaque = 0.9;

    public bool HidesWhatLiesUnder => Opacity >= Opaque;

    public bool Holds(PdfPoint point)
    {
        if (point.X < Bounds.Left || point.X > Bounds.Right || point.Y < Bounds.Top || point.Y > Bounds.Bottom)
            return false;
        // A point is within if a ray from it crosses the outline an odd number of times.
        var isWithin = false;
        foreach (var part in Outline)
        {
            for (int index = 0, before = part.Length - 1; index < part.Length; before = index++)
            {
                var (from, to) = (part[before], part[index]);
                if (from.Y > point.Y != to.Y > point.Y && point.X < ((to.X - from.X) * (point.Y - from.Y) / (to.Y - from.Y)) + from.X)
                    isWithin = !isWithin;
            }
        }
        return isWithin;
    }
}
