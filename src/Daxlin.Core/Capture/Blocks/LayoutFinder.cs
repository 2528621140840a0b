using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds where the columns of a block run on a page: by rulings, by the template's edges, or by what stands under the headings.</summary>
internal static class LayoutFinder
{
    /// <summary>Rows looked at to learn how far values reach under their headings.</summary>
    private const int Sample = 10;

    public static ColumnLayout ByEdges(ImmutableArray<ColumnRule> columns) => new(
        [.. columns.Where(column => column.Edges is not null)
            .Select(column => new ColumnSpan(
                column, new Box(column.Edges!.Value.Left, 0, column.Edges.Value.Right, 0), column.Edges.Value.Left, column.Edges.Value.Right))
            .OrderBy(span => span.Left)],
        HardEdges: true);

    public static ColumnLayout ByHeadings(Page page, HeadingBand band, BlockRule block, Habits habits) =>
        ByRulings(page, band) ?? ByValues(page, band, block, habits);

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

    private static ColumnLayout ByValues(Page page, HeadingBand band, BlockRule block, Habits habits)
    {
        var columns = All(band)
            .Select(heading => new ColumnSpan(heading.Rule, heading.Box, heading.Box.Left, heading.Box.Right))
            .OrderBy(column => column.Left)
            .ToArray();
        var spans = columns.ToArray();
        var begins = Array.FindIndex(columns, column => column.Rule?.Name == block.Begins);
        var seen = 0;
        for (var index = band.EndLine; index < page.Lines.Length && seen < Sample && begins >= 0; index++)
        {
            var line = page.Lines[index];
            if (block.Closes.Any(cue => cue.IsOn(line)))
                break;
            // A wrapped line or a section heading has one cell or two; a row has figures in it.
            if (line.Cells.Length < 2 || !line.Text.Any(char.IsAsciiDigit))
                continue;
            var words = GluedWords.Part(line.Words, habits);
            var assigned = WordAssignment.Assign(words, columns, habits, filled: _ => false);
            if (!IsRow(words, assigned, columns, begins, habits))
                continue;
            seen++;
            for (var word = 0; word < words.Length; word++)
            {
                var span = spans[assigned[word]];
                spans[assigned[word]] = span with
                {
                    Left = Math.Min(span.Left, words[word].Box.Left),
                    Right = Math.Max(span.Right, words[word].Box.Right),
                };
            }
        }
        return new ColumnLayout([.. spans], HardEdges: false);
    }

    private static bool IsRow(ImmutableArray<Word> words, int[] assigned, ColumnSpan[] columns, int begins, Habits habits)
    {
        for (var column = 0; column < columns.Length; column++)
        {
            if (columns[column].Rule is not { } rule)
                continue;
            var text = string.Join(' ', words.Where((_, word) => assigned[word] == column).Select(word => word.Text));
            if (column == begins && (text.Length == 0 || Printed.IsDash(text)))
                return false;
            if (rule.Kind != ValueKind.Text && text.Length > 0 && !Printed.IsDash(text)
                && !new Printed(text, []).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
                return false;
        }
        return true;
    }
}
