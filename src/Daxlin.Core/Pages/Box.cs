namespace Daxlin.Core.Pages;

/// <summary>A rectangle on a page in PDF points, origin at the top left as a person sees the page, y downwards.</summary>
public readonly record struct Box(double Left, double Top, double Right, double Bottom)
{
    public double Width => Right - Left;
    public double Height => Bottom - Top;
    public double CenterX => (Left + Right) / 2;
    public double CenterY => (Top + Bottom) / 2;

    /// <summary>The smallest box that holds both.</summary>
    public Box Union(Box other) => new(
        Math.Min(Left, other.Left), Math.Min(Top, other.Top), Math.Max(Right, other.Right), Math.Max(Bottom, other.Bottom));

    /// <summary>How many points the two share from left to right; 0 if they stand apart.</summary>
    public double SharedWidth(Box other) => Math.Max(0, Math.Min(Right, other.Right) - Math.Max(Left, other.Left));

    /// <summary>How many points the two share from top to bottom; 0 if one is wholly above the other.</summary>
    public double SharedHeight(Box other) => Math.Max(0, Math.Min(Bottom, other.Bottom) - Math.Max(Top, other.Top));

    /// <summary>Says that the centre of <paramref name="other"/> lies in this box.</summary>
    public bool HoldsCenterOf(Box other) =>
        other.CenterX >= Left && other.CenterX <= Right && other.CenterY >= Top && other.CenterY <= Bottom;

    /// <summary>The smallest box around all of <paramref name="boxes"/>; an empty box at the origin for none.</summary>
    public static Box Around(IEnumerable<Box> boxes)
    {
        Box? all = null;
        foreach (var box in boxes)
            all = all?.Union(box) ?? box;
        return all ?? default;
    }
}
