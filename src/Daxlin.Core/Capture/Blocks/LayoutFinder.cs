using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds where the columns of a block run: by rulings, by the template's edges, or by what stands under the headings.</summary>
/// <remarks>Where headings are repeated in the same places on the next page, what was learnt on the page before still holds.</remarks>
internal sealed class LayoutFinder(BlockRule block, Habits habits)
{
    /// <summary>Rows looked at to learn how far values reach under their headings.</summary>
    private const int Sample = 8;

    /// <summary>Headings this close to their places on the page before are in the same places, in points.</summary>
    private const double SamePlace = 0.5;

    private ColumnLayout? before;

    public static ColumnLayout ByEdges(ImmutableArray<ColumnRule> columns) =>
        new([.. Edged(columns).OrderBy(span => span.Left)], HardEdges: true);

    /// <summary>The columns whose bounds the template sets.</summary>
    private static IEnumerable<ColumnSpan> Edged(ImmutableArray<ColumnRule> columns) =>
        from column in columns
        let edges = column.Source as BetweenEdges
        where edges is not null
        select new ColumnSpan(column, new Box(edges.Left, 0, edges.Right, 0), edges.Left, edges.Right);

    /// <summary>A layout with some columns where they stand on some pages.</summary>
    public static ColumnLayout Moved(ColumnLayout layout, EdgesOnPages? edges)
    {
        if (edges is null)
            return layout;
        bool IsMoved(ColumnSpan span) => span.Rule is { } rule && edges.Columns.ContainsKey(rule.Name);
        return new ColumnLayout(
            [
                .. layout.Columns.Select(span => IsMoved(span) && edges.Columns[span.Rule!.Name] is var (left, right) ? span with { Left = left, Right = right } : span)
                    .OrderBy(span => span.Left),
            ],
            layout.HardEdges || layout.Columns.All(IsMoved));
    }

    /// <param name="closing">Index of the line that the block ends before on this page.</param>
    public ColumnLayout ByHeadings(Page page, HeadingBand band, int closing)
    {
        if (before is not null && IsInPlace(before, band))
            return before;
        return before = ByPins(band) ?? ByRulings(page, band) ?? ByValues(page, band, closing);
    }

    private static bool IsInPlace(ColumnLayout layout, HeadingBand band)
    {
        var headings = All(band).OrderBy(heading => heading.Box.Left).ToList();
        var headed = layout.Columns.Where(column => column.Rule is null or { Source: UnderHeading }).OrderBy(column => column.Heading.Left).ToList();
        return headings.Count == headed.Count && headings.Zip(headed).All(pair =>
            pair.First.Rule == pair.Second.Rule
            && Math.Abs(pair.First.Box.Left - pair.Second.Heading.Left) < SamePlace
            && Math.Abs(pair.First.Box.Right - pair.Second.Heading.Right) < SamePlace);
    }

    /// <summary>The layout by the template's own bounds, if it sets them for every column that stands on the page.</summary>
    private static ColumnLayout? ByPins(HeadingBand band)
    {
        if (band.Headings.IsEmpty || band.Headings.Any(heading => PinOf(heading.Rule) is null))
            return null;
        return new ColumnLayout(
            [.. band.Headings.Select(heading => new ColumnSpan(heading.Rule, heading.Box, PinOf(heading.Rule)!.Left, PinOf(heading.Rule)!.Right)).OrderBy(column => column.Left)],
            HardEdges: true);
    }

    /// <summary>
    /// The columns of one line of a record that has two. Its values stand under their headings; the lines of both kinds
    /// together would say nothing of where columns run.
    /// </summary>
    public static ColumnLayout OfLayer(HeadingBand layer) => ByPins(layer) ?? new ColumnLayout(
        [.. All(layer).Select(heading => new ColumnSpan(heading.Rule, heading.Box, heading.Box.Left, heading.Box.Right)).OrderBy(column => column.Left)],
        HardEdges: false);

    private static BetweenEdges? PinOf(ColumnRule? rule) => (rule?.Source as UnderHeading)?.Pinned;

    /// <summary>The layout by upright rulings that part every heading from the next, if there are such.</summary>
    private ColumnLayout? ByRulings(Page page, HeadingBand band)
    {
        if (Edged(block.Columns).Any())
            return null;
        var rulings = page.Strokes
            .Where(stroke => stroke.IsUpright && stroke.Box.SharedHeight(band.Box) > 0.5 * band.Box.Height)
            .Select(stroke => stroke.Box.CenterX)
            .Order()
            .ToList();
        if (rulings.Count < band.Headings.Length - 1)
            return null;
        var columns = ImmutableArray.CreateBuilder<ColumnSpan>();
        foreach (var (rule, box) in All(band))
        {
            var left = rulings.LastOrDefault(x => x <= box.CenterX, 0);
            var right = rulings.FirstOrDefault(x => x > box.CenterX, page.Width);
            if (rulings.Any(x => x > box.Left + 1 && x < box.Right - 1))
                return null;
            columns.Add(new ColumnSpan(rule, box, left, right));
        }
        var sorted = columns.OrderBy(column => column.Left).ToImmutableArray();
        sorted = [.. sorted.Concat(Unheaded(sorted, page.Width)).OrderBy(column => column.Left)];
        for (var column = 1; column < sorted.Length; column++)
        {
            if (sorted[column].Left < sorted[column - 1].Right - 0.5)
                return null;
        }
        return new ColumnLayout(sorted, HardEdges: true);
    }

    private static IEnumerable<(ColumnRule? Rule, Box Box)> All(HeadingBand band) =>
        band.Headings.Select(heading => ((ColumnRule?)heading.Rule, heading.Box))
            .Concat(band.Strangers.Select(box => ((ColumnRule?)null, box)));

    /// <summary>The columns without headings: each reaches from the neighbour named before it to the one named after it.</summary>
    private IEnumerable<ColumnSpan> Unheaded(ImmutableArray<ColumnSpan> placed, double width)
    {
        for (var index = 0; index < block.Columns.Length; index++)
        {
            if (block.Columns[index].Source is not BetweenNeighbours)
                continue;
            var before = block.Columns.Take(index).Select(SpanOf).LastOrDefault(span => span is not null);
            var after = block.Columns.Skip(index + 1).Select(SpanOf).FirstOrDefault(span => span is not null);
            var (left, right) = (before?.Right ?? 0, after?.Left ?? width);
            if (right - left > NarrowestColumn)
                yield return new ColumnSpan(block.Columns[index], new Box((left + right) / 2, 0, (left + right) / 2, 0), left, right);
        }

        ColumnSpan? SpanOf(ColumnRule rule) => placed.FirstOrDefault(span => span.Rule == rule);
    }

    private const double NarrowestColumn = 2;

    private ColumnLayout ByValues(Page page, HeadingBand band, int closing)
    {
        var headed = All(band)
            .Select(heading => new ColumnSpan(heading.Rule, heading.Box, heading.Box.Left, heading.Box.Right))
            .Concat(Edged(block.Columns))
            .ToImmutableArray();
        // Rows that are parted by gaps or rulings have their figures anywhere beside their text.
        var isGrouped = block.Row is BeginsAfterGap or BeginsBelowRuling;
        var columns = headed.Concat(Unheaded(headed, page.Width)).OrderBy(column => column.Left)
            .Select(column => isGrouped && column.Rule?.Kind == ValueKind.Text ? column with { IsFilled = false } : column)
            .ToArray();
        PartAtGutters(columns, page.Lines[band.EndLine..Math.Max(band.EndLine, closing)]);
        // What is seen in a column without a heading tells where it runs, and nothing else does.
        var spans = columns.Select(column => column.Rule?.Source is BetweenNeighbours ? column with { Left = double.MaxValue, Right = double.MinValue } : column).ToArray();
        var begins = Array.FindIndex(columns, column => column.Rule?.Name == block.Begins);
        var seen = 0;
        for (var index = band.EndLine; index < closing && seen < Sample; index++)
        {
            var line = page.Lines[index];
            // A wrapped line or a section heading has one cell or two; a row has figures in it.
            if (line.Cells.Length < 2 || !line.Text.AsSpan().ContainsAnyInRange('0', '9'))
                continue;
            if (RowOf(line, columns, begins) is not var (units, assigned))
                continue;
            seen++;
            for (var unit = 0; unit < units.Length; unit++)
            {
                var span = spans[assigned[unit]];
                spans[assigned[unit]] = span with
                {
                    Left = Math.Min(span.Left, units[unit].Box.Left),
                    Right = Math.Max(span.Right, units[unit].Box.Right),
                };
            }
        }
        PartAtGutters(spans, page.Lines[band.EndLine..Math.Max(band.EndLine, closing)]);
        return new ColumnLayout(
            [.. spans.Select((span, index) => Pinned(span.Left > span.Right ? columns[index] : span))], HardEdges: false);

        static ColumnSpan Pinned(ColumnSpan span) => PinOf(span.Rule) is { } pin ? span with { Left = pin.Left, Right = pin.Right } : span;
    }

    /// <summary>Ends a column of text where the gutter to the next one begins, and begins that one where it ends.</summary>
    private static void PartAtGutters(ColumnSpan[] columns, ImmutableArray<TextLine> lines)
    {
        for (var column = 0; column + 1 < columns.Length; column++)
        {
            var (left, right) = (columns[column], columns[column + 1]);
            if (left.Rule?.Kind != ValueKind.Text || right.Rule?.Kind != ValueKind.Text || BeginsAtHeading(right, lines)
                || Gutter.Widest(lines, left.Heading.Right, right.Heading.Left) is not ({ } end, { } begin))
                continue;
            columns[column] = left with { Right = end };
            columns[column + 1] = right with { Left = begin };
        }
    }

    /// <summary>Says that most lines have a word right below where the heading begins: it stands over its text, not in its midst.</summary>
    private static bool BeginsAtHeading(ColumnSpan column, ImmutableArray<TextLine> lines)
    {
        var at = 0;
        foreach (var line in lines)
        {
            foreach (var word in line.Words)
            {
                if (Math.Abs(word.Box.Left - column.Heading.Left) > SameLeft)
                    continue;
                at++;
                break;
            }
        }
        return at * 2 > lines.Length;
    }

    private const double SameLeft = 1;

    /// <summary>The line's cells or words, each with its column, if the line is a row.</summary>
    /// <remarks>Whole cells come first, since there are few; words serve where a cell reaches over two headings.</remarks>
    private (ImmutableArray<Word> Units, int[] Assigned)? RowOf(TextLine line, ColumnSpan[] columns, int begins)
    {
        if (!line.Cells.Any(cell => ReachesOver(cell.Box, columns)))
        {
            var cells = line.Cells.Select(cell => cell.Words[0] with { Text = cell.Text, Box = cell.Box, Stops = default }).ToImmutableArray();
            var assigned = WordAssignment.Assign(cells.AsSpan(), columns, habits, filled: _ => false);
            if (IsRow(cells, assigned, columns, begins, needsAll: true))
                return (cells, assigned);
        }
        var words = GluedWords.Part(line.Words.AsSpan(), habits).ToImmutableArray();
        var byWord = WordAssignment.Assign(words.AsSpan(), columns, habits, filled: _ => false);
        return IsRow(words, byWord, columns, begins, needsAll: false) ? (words, byWord) : null;
    }

    private static bool ReachesOver(Box cell, ColumnSpan[] columns)
    {
        var under = 0;
        foreach (var column in columns)
            under += column.Shared(cell.Left, cell.Right) > 0 ? 1 : 0;
        return under > 1;
    }

    private bool IsRow(ImmutableArray<Word> units, int[] assigned, ColumnSpan[] columns, int begins, bool needsAll)
    {
        var hasFigure = false;
        for (var (column, start) = (0, 0); column < columns.Length; column++)
        {
            // Columns hold their words in order, so each has a run of them.
            var end = start;
            while (end < units.Length && assigned[end] == column)
                end++;
            var text = TextLine.TextOf(units.AsSpan()[start..end]);
            start = end;
            if (columns[column].Rule is not { } rule)
                continue;
            if ((column == begins && (text.Length == 0 || Printed.IsDash(text))) || (needsAll && columns[column].IsFilled && text.Length == 0))
                return false;
            if (rule.Kind != ValueKind.Text && text.Length > 0 && !Printed.IsDash(text)
                && !new Printed(text, []).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
                return false;
            hasFigure |= rule.Kind != ValueKind.Text && text.Length > 0;
        }
        // Where no column tells a row, figures do: a line of text alone says nothing of where columns run.
        return begins >= 0 || hasFigure;
    }
}
