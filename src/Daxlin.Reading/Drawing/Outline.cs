using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>An area of a page by its outline; its lines only, where curves bulge it is taken by the points that steer them.</summary>
/// <param name="Bounds">Around it, in points from the page's lower left; its top is the smaller height here.</param>
/// <param name="IsEvenOdd">What lies within by how often a ray crosses the outline, or by how often it winds around (ISO 32000-2, 8.5.3.3).</param>
internal sealed record Outline(ImmutableArray<ImmutableArray<Point>> Parts, Box Bounds, bool IsEvenOdd)
{
    public static Outline Of(ImmutableArray<Point> corners)
    {
        var (left, low, right, high) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue);
        foreach (var corner in corners)
            (left, low, right, high) = (Math.Min(left, corner.X), Math.Min(low, corner.Y), Math.Max(right, corner.X), Math.Max(high, corner.Y));
        return new Outline([corners], new Box(left, low, right, high), IsEvenOdd: false);
    }

    public bool Holds(Point point)
    {
        if (point.X < Bounds.Left || point.X > Bounds.Right || point.Y < Bounds.Top || point.Y > Bounds.Bottom)
            return false;
        var (crossed, wound) = (0, 0);
        foreach (var part in Parts)
        {
            for (int index = 0, before = part.Length - 1; index < part.Length; before = index++)
            {
                var (from, to) = (part[before], part[index]);
                if (from.Y > point.Y == to.Y > point.Y || point.X >= ((to.X - from.X) * (point.Y - from.Y) / (to.Y - from.Y)) + from.X)
                    continue;
                crossed++;
                wound += to.Y > from.Y ? 1 : -1;
            }
        }
        return IsEvenOdd ? crossed % 2 == 1 : wound != 0;
    }
}
