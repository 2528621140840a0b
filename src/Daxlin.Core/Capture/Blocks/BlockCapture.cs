using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Captures a line block by its columns, page by page: where it opens, where its headings stand, where it closes.</summary>
internal sealed class BlockCapture
{
    private readonly BlockRule block;
    private readonly InvoicePages pages;
    private readonly List<BlockSegment> segments = [];
    private readonly LayoutFinder layouts;
    private readonly Habits habits;
    private readonly List<Finding> findings = [];
    private HeadingBand? incomplete;
    private bool orderTold;

    /// <summary>The last page on which the headings are repeated; 0 if they are not.</summary>
    private int reopened;

    private BlockCapture(BlockRule block, InvoicePages pages, Habits habits)
    {
        this.block = block;
        this.pages = pages;
        this.habits = habits;
        layouts = new LayoutFinder(block, habits);
    }

    /// <param name="before">What the item amounts of the blocks before this one come to, for sums that are carried on.</param>
    public static BlockResult Capture(BlockRule block, InvoicePages pages, Habits habits, decimal before)
    {
        var capture = new BlockCapture(block, pages, habits);
        capture.FindSegments();
        var (lines, doubts) = RowParting.Decide(LineRoles.Of(block, capture.segments, pages, habits, before), block);
        if (block.Closes.IsEmpty)
            lines = WithoutWhatFollows(lines);
        var result = RowBuilder.Build(block, lines, doubts);
        return result with { Findings = [.. capture.findings, .. result.Findings, .. PlaceDoubts.Of(block, lines)] };
    }

    /// <summary>
    /// The lines without those that stand well below the last row of a block that nothing closes, and can be none of its
    /// rows: the page's foot under a tax table.
    /// </summary>
    private static ImmutableArray<BlockLine> WithoutWhatFollows(ImmutableArray<BlockLine> lines)
    {
        var end = lines.Length;
        while (end > 0 && lines[end - 1].Role is LineRole.Unaccounted or LineRole.Furniture or LineRole.Sum)
            end--;
        var widest = 0.0;
        for (var index = 1; index < lines.Length; index++)
        {
            if (lines[index - 1].Page != lines[index].Page)
                continue;
            var gap = lines[index].Line.Box.Top - lines[index - 1].Line.Box.Bottom;
            if (index < end)
                widest = Math.Max(widest, gap);
            else if (gap > Math.Max(widest, WellBelow * lines[index].Size))
                return lines[..index];
        }
        return lines;
    }

    /// <summary>What stands further below the last row than this many times the type's size, and than any row below another, is no part of a block.</summary>
    private const double WellBelow = 1.5;

    private void FindSegments()
    {
        var byEdges = !block.Columns.Any(column => column.Heading is not null);
        var (opened, open, seen) = (block.Opens is null, false, false);
        ColumnLayout? upper = null;
        ColumnLayout? lower = null;
        LineCutter? cutter = null;
        LineCutter? below = null;
        EdgesOnPages? edges = null;
        foreach (var page in pages.Pages)
        {
            var start = 0;
            if (block.Opens?.PlacesOn(page) is { Count: > 0 } openings)
                (start, opened) = (openings.Min(place => place.Line) + 1, true);
            if (!opened)
                continue;
            var isLaidOut = false;
            var band = byEdges ? null : HeadingFinder.Find(page, start, block.Columns);
            if (band is { IsWhole: true })
            {
                var layers = band.Layers;
                upper = layers.Length == 1 ? layouts.ByHeadings(page, band, ClosingLine(page, band.EndLine)) : LayoutFinder.OfLayer(layers[0]);
                lower = layers.Length == 1 ? null : LayoutFinder.OfLayer(layers[1]);
                isLaidOut = true;
                reopened = seen ? page.Number : 0;
                (start, open, seen) = (band.EndLine, true, true);
                TellOrder(band);
            }
            else if (byEdges && !seen)
            {
                upper = LayoutFinder.ByEdges(block.Columns);
                (open, seen, isLaidOut) = (true, true, true);
            }
            else if (!open)
            {
                if (band is not null && (incomplete is null || band.Headings.Length > incomplete.Headings.Length))
                    incomplete = band;
                continue;
            }
            var edgesHere = block.EdgesOn.FirstOrDefault(some => pages.IsIn(some.Pages, page));
            if (isLaidOut || edgesHere != edges)
            {
                cutter = new LineCutter(LayoutFinder.Moved(upper!, edgesHere), block.Begins, habits);
                below = lower is null ? null : new LineCutter(LayoutFinder.Moved(lower, edgesHere), null, habits);
                edges = edgesHere;
            }
            var closing = ClosingLine(page, start);
            segments.Add(new BlockSegment(page, start, closing, BelowHeadings: band is { IsWhole: true }, cutter!, below));
            open = closing == page.Lines.Length;
        }
        if (open && block.Closes.Length > 0)
        {
            findings.Add(Finding.Hold(
                "block-not-closed",
                $"The end of the block {block.Name} was not found: no line begins with {string.Join(" or ", block.Closes)}."
                + (reopened > 1 ? $" It begins anew under the headings on page {reopened}, and nothing ends it there." : ""),
                block.Name));
        }
        if (!seen && incomplete is not null && incomplete.Headings.Length * 2 > block.Columns.Count(column => column.Heading is not null))
        {
            findings.Add(Finding.Hold(
                "heading-missing",
                $"The block {block.Name} was not captured: its heading {string.Join(", ", incomplete.Missing.Where(column => !column.Optional).Select(column => column.Heading))} is not printed where the others are.",
                block.Name));
        }
    }

    /// <summary>A layout whose columns have changed places is another layout: its values may mean something else by now.</summary>
    private void TellOrder(HeadingBand band)
    {
        if (orderTold || band.OutOfOrder(block.Columns) is not ({ } left, { } right))
            return;
        orderTold = true;
        findings.Add(Finding.Hold(
            "columns-moved",
            $"The columns of the block {block.Name} are not where they were: {left.Heading} is printed left of {right.Heading}, "
            + "which the template has the other way round.",
            block.Name));
    }

    /// <summary>
    /// Index of the first line from <paramref name="start"/> on that closes the block, or the number of lines. A closing
    /// cue counts where a cell begins with it, not in the midst of a description.
    /// </summary>
    private int ClosingLine(Page page, int start)
    {
        var closing = page.Lines.Length;
        foreach (var place in block.Closes.SelectMany(cue => cue.PlacesOn(page)))
        {
            if (place.Line < start || place.Line >= closing || place.FirstChar > 0)
                continue;
            var line = page.Lines[place.Line];
            if (line.Cells.Any(cell => ReferenceEquals(cell.Words[0], line.Words[place.FirstWord])))
                closing = place.Line;
        }
        return closing;
    }
}
