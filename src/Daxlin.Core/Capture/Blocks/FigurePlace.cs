using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Where the figures of a block's rows stand beside the text around them.</summary>
/// <param name="Anchor">Beside which height of the text.</param>
/// <param name="Offset">How many points below it; negative above.</param>
internal sealed record FigurePlace(FigureAnchor Anchor, double Offset)
{
    /// <summary>What figures are off from where a template's fold has them costs nothing of itself, but near is likelier than far.</summary>
    private const double PerPitchOff = 0.1;

    /// <summary>What it costs that a row has none of the text that stands around its figures in the others.</summary>
    private const double NoText = 1;

    /// <summary>The block has no text around its figures.</summary>
    public static FigurePlace None { get; } = new(FigureAnchor.None, 0);

    /// <summary>What it costs that a row's figures stand where they do, in pitches of its text.</summary>
    /// <param name="row">Index of its line of figures.</param>
    /// <param name="above">The lines above the figures that the row takes.</param>
    /// <param name="below">The lines below them.</param>
    public double CostOf(ImmutableArray<BlockLine> lines, int row, ReadOnlySpan<int> above, ReadOnlySpan<int> below, TextPitch pitch)
    {
        if (Anchor == FigureAnchor.None)
            return 0;
        if (above.IsEmpty && below.IsEmpty && !HasTextAround(lines[row]))
            return NoText;
        if (OffsetOf(lines, row, above, below, Anchor) is not { } offset)
            return 0;
        var text = above.Length > 0 ? lines[above[0]] : below.Length > 0 ? lines[below[0]] : lines[row];
        return (Math.Abs(offset - Offset) + PerPitchOff * Math.Abs(Offset)) / pitch.Of(text);
    }

    /// <summary>How far the figures of a row stand below a height of its text; null if no text is around them, or it goes on on another page.</summary>
    public static double? OffsetOf(
        ImmutableArray<BlockLine> lines, int row, ReadOnlySpan<int> above, ReadOnlySpan<int> below, FigureAnchor anchor)
    {
        var (first, last) = (double.MaxValue, double.MinValue);
        if (HasTextAround(lines[row]))
            first = last = lines[row].Baseline;
        foreach (var part in new[] { above.ToArray(), below.ToArray() })
        {
            foreach (var index in part)
            {
                if (!lines[index].IsAround)
                    continue;
                if (lines[index].Page != lines[row].Page)
                    return null;
                (first, last) = (Math.Min(first, lines[index].Baseline), Math.Max(last, lines[index].Baseline));
            }
        }
        if (first > last)
            return null;
        return lines[row].FigureBaseline - anchor switch
        {
            FigureAnchor.Top => first,
            FigureAnchor.End => last,
            _ => (first + last) / 2,
        };
    }

    private static bool HasTextAround(BlockLine line)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && line.Cutter.RuleOf(column)?.Fold == Fold.Around)
                return true;
        }
        return false;
    }
}
