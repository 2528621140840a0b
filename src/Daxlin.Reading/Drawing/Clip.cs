using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>The part of a page that is drawn in (ISO 32000-2, 8.5.4).</summary>
/// <param name="Bounds">Around it, in points from the page's lower left; its top is the smaller height here.</param>
/// <param name="Outline">What it was cut to last; null where that is a rectangle, or nothing yet.</param>
/// <param name="Before">What it was before that, where it was no rectangle.</param>
/// <param name="Cuts">How many outlines it was cut to.</param>
internal sealed record Clip(Box Bounds, Outline? Outline, Clip? Before, int Cuts)
{
    /// <summary>Outlines within outlines, each of which is looked at for each letter.</summary>
    private const int MostCuts = 1000;

    public static Clip None { get; } = new(new Box(double.MinValue, double.MinValue, double.MaxValue, double.MaxValue), null, null, 0);

    public Clip CutTo(Outline outline, bool isRectangle)
    {
        if (Cuts >= MostCuts)
            throw new UnreadableException("too-large", $"A page is cut to more than {MostCuts} outlines within each other, which no invoice needs; it was not read.");
        return new Clip(Cut(outline.Bounds), isRectangle ? null : outline, Outline is null ? Before : this, isRectangle ? Cuts : Cuts + 1);
    }

    public Box Cut(Box box) => new(
        Math.Max(Bounds.Left, box.Left), Math.Max(Bounds.Top, box.Top), Math.Min(Bounds.Right, box.Right), Math.Min(Bounds.Bottom, box.Bottom));

    public bool Holds(Point point)
    {
        for (var clip = this; clip is not null; clip = clip.Before)
        {
            if (point.X < clip.Bounds.Left || point.X > clip.Bounds.Right || point.Y < clip.Bounds.Top || point.Y > clip.Bounds.Bottom || clip.Outline?.Holds(point) == false)
                return false;
        }
        return true;
    }
}
