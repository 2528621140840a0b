using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Parts the lines of a block into rows at blank gaps or at rulings.</summary>
internal static class RowGroups
{
    /// <summary>A ruling that parts rows is drawn over at least this part of the block's width.</summary>
    private const double AcrossBlock = 0.5;

    /// <summary>The lines of each row; null if rows begin by what is printed on a line, not by gaps or rulings.</summary>
    public static IEnumerable<ImmutableArray<TextLine>>? Of(RowRule rule, Page page, int start, int closing, LineCutter cutter)
    {
        var lines = page.Lines[start..Math.Max(start, closing)];
        return rule switch
        {
            BeginsAfterGap after => Parted(lines, (bottom, line) => line.Box.Top - bottom > after.Gap),
            BeginsBelowRuling => AtRulings(page, lines, cutter),
            _ => null,
        };
    }

    private static IEnumerable<ImmutableArray<TextLine>> AtRulings(Page page, ImmutableArray<TextLine> lines, LineCutter cutter)
    {
        var (left, right) = cutter.Bounds;
        // A ruling may be drawn cell by cell; the pieces at one height count together.
        var heights = page.Strokes
            .Where(stroke => !stroke.IsUpright)
            .GroupBy(stroke => Math.Round(stroke.Box.CenterY))
            .Where(pieces => pieces.Sum(piece => Math.Max(0, Math.Min(right, piece.Box.Right) - Math.Max(left, piece.Box.Left))) >= AcrossBlock * (right - left))
            .Select(pieces => pieces.First().Box.CenterY)
            .ToList();
        TextLine? before = null;
        return Parted(lines, (_, line) =>
        {
            var parts = before is not null && heights.Any(y => y > before.Box.CenterY && y < line.Box.CenterY);
            before = line;
            return parts;
        });
    }

    private static IEnumerable<ImmutableArray<TextLine>> Parted(ImmutableArray<TextLine> lines, Func<double, TextLine, bool> parts)
    {
        var group = ImmutableArray.CreateBuilder<TextLine>();
        var bottom = double.NegativeInfinity;
        foreach (var line in lines)
        {
            if (parts(bottom, line) && group.Count > 0)
            {
                yield return group.DrainToImmutable();
                bottom = double.NegativeInfinity;
            }
            group.Add(line);
            bottom = Math.Max(bottom, line.Box.Bottom);
        }
        if (group.Count > 0)
            yield return group.DrainToImmutable();
    }
}
