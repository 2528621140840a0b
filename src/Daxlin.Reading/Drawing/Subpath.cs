using Daxlin.Core.Pages;
using UglyToad.PdfPig.Core;

namespace Daxlin.Reading.Drawing;

/// <summary>A part of a path while it is drawn, in points from the page's lower left. Curves are taken by the points that steer them.</summary>
internal sealed class Subpath
{
    private double left = double.MaxValue, low = double.MaxValue, right = double.MinValue, high = double.MinValue;

    public List<PdfPoint> Points { get; } = new(4);

    /// <summary>Says that it was drawn as a rectangle, and is ended.</summary>
    public bool IsRectangle { get; set; }

    /// <summary>Around its points; the top is the smaller height here, since heights count from the page's foot.</summary>
    public Box Bounds => new(left, low, right, high);

    public void Add(PdfPoint point)
    {
        Points.Add(point);
        (left, low, right, high) = (Math.Min(left, point.X), Math.Min(low, point.Y), Math.Max(right, point.X), Math.Max(high, point.Y));
    }
}
