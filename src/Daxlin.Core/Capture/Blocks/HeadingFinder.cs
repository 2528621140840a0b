using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds the printed headings of a block's columns.</summary>
internal static class HeadingFinder
{
    /// <summary>Headings are printed over at most this many lines.</summary>
    private const int MostLines = 3;

    /// <summary>Lines of one band are no further apart than this part of the type's height.</summary>
    private const double LineGap = 1.1;

    /// <summary>
    /// The first band at or below a line that holds all headings; else the one with the most, to say what is missing;
    /// null if none of the headings is there.
    /// </summary>
    public static HeadingBand? Find(Page page, int fromLine, ImmutableArray<ColumnRule> columns)
    {
        HeadingBand? best = null;
        var wanted = columns.Where(column => column.Heading is not null).ToImmutableArray();
        for (var line = fromLine; line < page.Lines.Length; line++)
        {
            if (!wanted.Any(column => StartsBand(column, page.Lines, line)))
                continue;
            var band = BandAt(page.Lines, line, wanted);
            if (band.IsWhole)
                return band;
            if (best is null || band.Headings.Length > best.Headings.Length)
                best = band;
        }
        return best;
    }

    private static bool StartsBand(ColumnRule column, ImmutableArray<TextLine> lines, int line) =>
        column.Heading!.IsOn(lines[line]) || Stacked(column.Heading, lines, line, line + 2).Any();

    private static HeadingBand BandAt(ImmutableArray<TextLine> lines, int start, ImmutableArray<ColumnRule> wanted)
    {
        HeadingBand? best = null;
        for (var end = start + 1; end <= Math.Min(lines.Length, start + MostLines); end++)
        {
            if (end > start + 1 && lines[end - 1].Box.Top - lines[end - 2].Box.Bottom > LineGap * lines[end - 1].Box.Height)
                break;
            var band = BandOf(lines, start, end, wanted);
            if (best is null || band.Headings.Length > best.Headings.Length)
                best = band;
            if (band.Missing.IsEmpty)
                break;
        }
        return best!;
    }

    private static HeadingBand BandOf(ImmutableArray<TextLine> lines, int start, int end, ImmutableArray<ColumnRule> wanted)
    {
        var found = new List<(ColumnRule Rule, Box Box)>();
        var missing = ImmutableArray.CreateBuilder<ColumnRule>();
        foreach (var column in wanted)
        {
            var places = Enumerable.Range(start, end - start)
                .SelectMany(line => column.Heading!.PlacesOn(lines[line]).Select(place => place.Box))
                .Concat(Stacked(column.Heading!, lines, start, end))
                .Where(box => !found.Any(other => other.Box.SharedWidth(box) > 0.5 * Math.Min(box.Width, other.Box.Width)
                    && other.Box.SharedHeight(box) > 0))
                .OrderBy(box => box.Left)
                .ToList();
            // Where one heading's words stand twice ("Price", "Price incl."), the order of the columns decides.
            var place = places.Where(box => found.Count == 0 || box.Left > found[^1].Box.Left).Concat(places).Cast<Box?>().FirstOrDefault();
            if (place is { } box)
                found.Add((column, box));
            else
                missing.Add(column);
        }
        var around = Box.Around(found.Select(heading => heading.Box));
        var strangers = Enumerable.Range(start, end - start)
            .SelectMany(line => lines[line].Cells)
            .SelectMany(cell => cell.Words)
            .Where(word => word.Box.CenterY >= around.Top && word.Box.CenterY <= around.Bottom)
            .Where(word => !found.Any(heading => heading.Box.SharedWidth(word.Box) > 0.3 * word.Box.Width))
            .Select(word => word.Box)
            .Aggregate(ImmutableArray<Box>.Empty, JoinNear);
        return new HeadingBand([.. found.OrderBy(heading => heading.Box.Left)], strangers, missing.ToImmutable(), around, end);
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

    /// <summary>Headings of several words set over one another: "Unit" above "price".</summary>
    private static IEnumerable<Box> Stacked(Cue cue, ImmutableArray<TextLine> lines, int start, int end)
    {
        foreach (var spelling in cue.Spellings)
        {
            for (var blank = spelling.IndexOf(' ', StringComparison.Ordinal); blank > 0; blank = spelling.IndexOf(' ', blank + 1))
            {
                var (over, under) = (new Cue([spelling[..blank]], cue.ExactCase), new Cue([spelling[(blank + 1)..]], cue.ExactCase));
                for (var line = start; line + 1 < Math.Min(end, lines.Length); line++)
                {
                    foreach (var top in over.PlacesOn(lines[line]))
                    {
                        foreach (var bottom in under.PlacesOn(lines[line + 1]).Where(place => place.Box.SharedWidth(top.Box) > 0))
                            yield return top.Box.Union(bottom.Box);
                    }
                }
            }
        }
    }
}
