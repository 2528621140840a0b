using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds the printed headings of a block's columns.</summary>
internal static class HeadingFinder
{
    /// <summary>
    /// Headings are printed over at most three lines; where those of two are centred beside those of three, their words
    /// stand on five different heights.
    /// </summary>
    private const int MostLines = 5;
    private const int UsualLines = 3;

    /// <summary>Lines of one band are no further apart than this part of the type's height.</summary>
    private const double LineGap = 1.1;

    /// <summary>
    /// The first band at or below a line that holds all headings; else the one with the most, to say what is missing;
    /// null if none of the headings is there.
    /// </summary>
    public static HeadingBand? Find(Page page, int fromLine, ImmutableArray<ColumnRule> columns)
    {
        var printed = columns.Where(column => column.Heading is not null)
            .Select(column => (Rule: column, Places: PlacesOf(column.Heading!, page)))
            .ToList();
        HeadingBand? best = null;
        foreach (var line in printed.SelectMany(column => column.Places).Select(place => place.Line)
            .Where(line => line >= fromLine).Distinct().Order())
        {
            var band = BandAt(page.Lines, line, printed);
            if (band.IsWhole)
                return band;
            if (best is null || band.Headings.Length > best.Headings.Length)
                best = band;
        }
        return best;
    }

    /// <summary>Where a heading stands: on one line, or its words on two lines, one over the other.</summary>
    private static List<(int Line, Box Box)> PlacesOf(Cue heading, Page page)
    {
        var places = heading.PlacesOn(page).ConvertAll(place => (place.Line, place.Box));
        places.AddRange(heading.StackedOn(page).Select(stacked => (stacked.First.Line, stacked.Box)));
        return places;
    }

    private static HeadingBand BandAt(
        ImmutableArray<TextLine> lines, int start, List<(ColumnRule Rule, List<(int Line, Box Box)> Places)> printed)
    {
        HeadingBand? best = null;
        for (var end = start + 1; end <= Math.Min(lines.Length, start + MostLines); end++)
        {
            if (end > start + 1 && lines[end - 1].Box.Top - lines[end - 2].Box.Bottom > LineGap * lines[end - 1].Box.Height)
                break;
            // Beyond three lines they must be interleaved, or a row would be taken for a heading.
            if (end > start + UsualLines && lines[end - 1].Box.SharedHeight(lines[end - 2].Box) == 0)
                break;
            var band = BandOf(lines, start, end, printed);
            if (best is null || band.Headings.Length > best.Headings.Length)
                best = band;
            if (band.Missing.IsEmpty)
                break;
        }
        return best!;
    }

    private static HeadingBand BandOf(
        ImmutableArray<TextLine> lines, int start, int end, List<(ColumnRule Rule, List<(int Line, Box Box)> Places)> printed)
    {
        var found = new List<(ColumnRule Rule, Box Box)>();
        var missing = ImmutableArray.CreateBuilder<ColumnRule>();
        var last = end;
        foreach (var (rule, all) in printed)
        {
            var places = all
                .Where(place => place.Line >= start && place.Line < end)
                .Select(place => place.Box)
                .Where(box => !found.Any(other => other.Box.SharedWidth(box) > 0.5 * Math.Min(box.Width, other.Box.Width)
                    && other.Box.SharedHeight(box) > 0))
                .OrderBy(box => box.Left)
                .ToList();
            // Where one heading's words stand twice ("Price", "Price incl."), the order of the columns decides.
            var place = places.Where(box => found.Count == 0 || box.Left > found[^1].Box.Left).Concat(places).Cast<Box?>().FirstOrDefault();
            if (place is { } box)
                found.Add((rule, box));
            else
                missing.Add(rule);
        }
        var around = Box.Around(found.Select(heading => heading.Box));
        // A heading stacked over two lines may reach below the band's last line.
        while (last < lines.Length && lines[last].Box.CenterY < around.Bottom)
            last++;
        var strangers = Enumerable.Range(start, last - start)
            .SelectMany(line => lines[line].Words)
            .Where(word => word.Box.CenterY >= around.Top && word.Box.CenterY <= around.Bottom)
            .Where(word => !found.Any(heading => heading.Box.SharedWidth(word.Box) > 0.3 * word.Box.Width))
            .Select(word => word.Box)
            .Aggregate(ImmutableArray<Box>.Empty, JoinNear);
        return new HeadingBand([.. found.OrderBy(heading => heading.Box.Left)], strangers, missing.ToImmutable(), around, last);
    }

    private static ImmutableArray<Box> JoinNear(ImmutableArray<Box> boxes, Box next)
    {
        for (var index = 0; index < boxes.Length; index++)
        {
            var gap = Math.Max(next.Left - boxes[index].Right, boxes[index].Left - next.Right);
            if (gap < 0.6 * next.Height)
                return boxes.SetItem(index, boxes[index].Union(next));
        }
        return boxes.Add(next);
    }
}
