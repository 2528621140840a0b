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

    public static ColumnLayout ByEdges(ImmutableArray<ColumnRule> columns) => new(
        [.. columns.Where(column => column.Edges is not null)
            .Select(column => new ColumnSpan(
                column, new Box(column.Edges!.Value.Left, 0, column.Edges.Value.Right, 0), column.Edges.Value.Left, column.Edges.Value.Right))
            .OrderBy(span => span.Left)],
        HardEdges: true);

    /// <param name="closing">Index of the line that the block ends before on this page.</param>
    public ColumnLayout ByHeadings(Page page, HeadingBand band, int closing)
    {
        if (before is not null && IsInPlace(before, band))
            return before;
        return before = ByRulings(page, band) ?? ByValues(page, band, closing);
    }

    private static bool IsInPlace(ColumnLayout layout, HeadingBand band)
    {
        var headings = All(band).OrderBy(heading => heading.Box.Left).ToList();
        return headings.Count == layout.Columns.Length && headings.Zip(layout.Columns).All(pair =>
            pair.First.Rule == pair.Second.Rule
            && Math.Abs(pair.First.Box.Left - pair.Second.Heading.Left) < SamePlace
            && Math.Abs(pair.First.Box.Right - pair.Second.Heading.Right) < SamePlace);
    }

    /// <summary>The layout by upright rulings that part every heading from the next, if there are such.</summary>
    private static ColumnLayout? ByRulings(Page page, HeadingBand band)
    {
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

    private ColumnLayout ByValues(Page page, HeadingBand band, int closing)
    {
        var columns = All(band)
            .Select(heading => new ColumnSpan(heading.Rule, heading.Box, heading.Box.Left, heading.Box.Right))
            .OrderBy(column => column.Left)
            .ToArray();
        var spans = columns.ToArray();
        var begins = Array.FindIndex(columns, column => column.Rule?.Name == block.Begins);
        var seen = 0;
        for (var index = band.EndLine; index < closing && seen < Sample && begins >= 0; index++)
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
        return new ColumnLayout([.. spans], HardEdges: false);
    }

    /// <summary>The line's cells or words, each with its column, if the line is a row.</summary>
    /// <remarks>Whole cells come first, since there are few; words serve where a cell reaches over two headings.</remarks>
    private (ImmutableArray<Word> Units, int[] Assigned)? RowOf(TextLine line, ColumnSpan[] columns, int begins)
    {
        if (!line.Cells.Any(cell => ReachesOver(cell.Box, columns)))
        {
            var cells = line.Cells.Select(cell => cell.Words[0] with { Text = cell.Text, Box = cell.Box, Stops = [] }).ToImmutableArray();
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
        for (var (column, start) = (0, 0); column < columns.Length; column++)
        {
            // Columns hold their words in order, so each has a run of them.
            var end = start;
            while (end < units.Length && assigned[end] == column)
                end++;
            var text = Printed.TextOf(units.AsSpan()[start..end]);
            start = end;
            if (columns[column].Rule is not { } rule)
                continue;
            if ((column == begins && (text.Length == 0 || Printed.IsDash(text))) || (needsAll && rule.Required && text.Length == 0))
                return false;
            if (rule.Kind != ValueKind.Text && text.Length > 0 && !Printed.IsDash(text)
                && !new Printed(text, []).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
                return false;
        }
        return true;
    }
}
