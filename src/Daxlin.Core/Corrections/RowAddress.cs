using Daxlin.Core.Capture;

namespace Daxlin.Core.Corrections;

/// <summary>Which row a correction is about.</summary>
/// <remarks>
/// A row is known by the place of its first printed value: a capture done again, by a template that takes one row more, may
/// call the third row the fourth. Its number tells only where a row is not printed.
/// </remarks>
/// <param name="List"><c>lines</c>, <c>taxes</c>, or the name of a block of its own.</param>
/// <param name="Number">As captured, from 1; 0 for a row that a person added.</param>
/// <param name="Anchor">The place of its first printed value; null if nothing of it is printed.</param>
/// <param name="AddedBy">The correction that added it; 0 for a captured row.</param>
public sealed record RowAddress(string List, int Number, PlaceOnPage? Anchor, int AddedBy = 0)
{
    /// <summary>How far apart two captures may see one place, in points.</summary>
    private const double SamePlace = 3;

    /// <summary>The address of a captured row.</summary>
    public static RowAddress Of(string list, CapturedLine line)
    {
        foreach (var cell in line.Cells)
        {
            if (!cell.Trace.Places.IsEmpty)
                return new RowAddress(list, line.Number, cell.Trace.Places[0]);
        }
        return new RowAddress(list, line.Number, null);
    }

    /// <summary>Says that both are one row, as far as its place tells.</summary>
    public bool IsAt(RowAddress other) =>
        List == other.List && Anchor is { } here && other.Anchor is { } there && here.Page == there.Page
        && Math.Abs(here.Box.Left - there.Box.Left) <= SamePlace && Math.Abs(here.Box.Top - there.Box.Top) <= SamePlace;
}
