using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>A path while it is drawn, in points from the page's lower left, in lists that are kept for the next. Curves are taken by the points that steer them.</summary>
internal sealed class DrawnPath
{
    private readonly List<Point> points = [];
    private readonly List<Part> parts = [];

    /// <param name="Bounds">Around its points; the top is the smaller height here, since heights count from the page's foot.</param>
    /// <param name="IsRectangle">Says that it was drawn as a rectangle, and is ended.</param>
    public readonly record struct Part(int Start, int Count, Box Bounds, bool IsRectangle);

    public IReadOnlyList<Part> Parts => parts;

    public void Clear()
    {
        points.Clear();
        parts.Clear();
    }

    public void Begin(Point point)
    {
        // A part that was begun and not drawn on is none.
        if (parts.Count > 0 && parts[^1].Count == 1)
        {
            points.RemoveAt(points.Count - 1);
            parts.RemoveAt(parts.Count - 1);
        }
        parts.Add(new Part(points.Count, 1, new Box(point.X, point.Y, point.X, point.Y), false));
        points.Add(point);
    }

    public void Add(Point point)
    {
        // What is drawn on from a rectangle is another part.
        if (parts.Count == 0 || parts[^1].IsRectangle)
        {
            Begin(point);
            return;
        }
        var part = parts[^1];
        var box = part.Bounds;
        parts[^1] = part with
        {
            Count = part.Count + 1,
            Bounds = new Box(Math.Min(box.Left, point.X), Math.Min(box.Top, point.Y), Math.Max(box.Right, point.X), Math.Max(box.Bottom, point.Y)),
        };
        points.Add(point);
    }

    public void AddRectangle(in Matrix matrix, double x, double y, double width, double height)
    {
        Begin(matrix.Take(x, y));
        Add(matrix.Take(x + width, y));
        Add(matrix.Take(x + width, y + height));
        Add(matrix.Take(x, y + height));
        parts[^1] = parts[^1] with { IsRectangle = true };
    }

    /// <summary>Draws on from where a part began, after it is closed.</summary>
    public void Close()
    {
        if (parts.Count > 0 && !parts[^1].IsRectangle && parts[^1].Count > 1)
            Add(points[parts[^1].Start]);
    }

    public Point At(int index) => points[index];

    /// <summary>Says that it is one rectangle along the page's sides.</summary>
    public bool IsUprightRectangle => parts is [{ IsRectangle: true, Start: var start }]
        && (points[start].X == points[start + 1].X || points[start].Y == points[start + 1].Y) && (points[start + 1].X == points[start + 2].X || points[start + 1].Y == points[start + 2].Y);

    /// <summary>Says that a part of it is wider and higher than so much.</summary>
    public bool HasArea(double than) => parts.Exists(part => part.Count > 2 && part.Bounds.Width > than && part.Bounds.Height > than);

    /// <returns>Null where nothing has two points or more across.</returns>
    public Outline? Outline(bool isEvenOdd, int fewestPoints = 1)
    {
        var outlines = ImmutableArray.CreateBuilder<ImmutableArray<Point>>(parts.Count);
        var (left, low, right, high) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue);
        foreach (var part in parts)
        {
            if (part.Count < fewestPoints)
                continue;
            outlines.Add([.. points[part.Start..(part.Start + part.Count)]]);
            (left, low, right, high) = (Math.Min(left, part.Bounds.Left), Math.Min(low, part.Bounds.Top), Math.Max(right, part.Bounds.Right), Math.Max(high, part.Bounds.Bottom));
        }
        return outlines.Count == 0 ? null : new Outline(outlines.DrainToImmutable(), new Box(left, low, right, high), isEvenOdd);
    }
}
