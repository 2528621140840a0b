using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>A piece of print that is one word: as the first reading saw it, or ink that it passed over.</summary>
/// <param name="First">What the first reading made of it; null if it passed it over.</param>
/// <param name="Box">Around all its ink, in dots.</param>
/// <param name="Size">The size of its type, in dots.</param>
/// <param name="Baseline">In dots from the top.</param>
internal sealed record Piece(RecognisedWord? First, Box Box, double Size, double Baseline)
{
    /// <summary>Says that ink belongs to it which the first reading did not see.</summary>
    public bool HasMoreInk { get; init; }

    /// <summary>The pieces that it was put together of, where print was parted that may be one word: "159" and "82" with a point between; else null.</summary>
    public (Piece Left, Piece Right)? Parts { get; init; }

    public bool Equals(Piece? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => Box.GetHashCode();

    /// <summary>How far apart two boxes stand from left to right; below 0 where they share a part.</summary>
    public static double Gap(Box one, Box other) => Math.Max(other.Left - one.Right, one.Left - other.Right);

    /// <summary>Says that another stands on the same line.</summary>
    public bool IsInLineWith(Piece other) => Math.Abs(Baseline - other.Baseline) < 0.3 * Math.Max(Size, other.Size) && Box.SharedHeight(other.Box) > 0.3 * Math.Min(Box.Height, other.Box.Height);
}
