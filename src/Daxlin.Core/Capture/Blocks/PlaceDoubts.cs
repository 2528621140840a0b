using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Words of rows that stand where another column's words stand, and words cut in two at a column's edge.</summary>
/// <remarks>
/// 5 × 4.31 is 4.31 × 5, so no sum sees that a quantity is printed behind its price in one row; its place does. What counts
/// are the other rows on the page, and where there are none, the headings.
/// </remarks>
internal sealed class PlaceDoubts
{
    private readonly List<Figure> figures = [];
    private readonly Dictionary<(int Page, string Column), List<Box>> places = [];
    private readonly List<Finding> findings = [];
    private readonly BlockRule block;

    private PlaceDoubts(BlockRule block) => this.block = block;

    /// <param name="lines">All with their roles; none open.</param>
    public static ImmutableArray<Finding> Of(BlockRule block, ImmutableArray<BlockLine> lines)
    {
        var doubts = new PlaceDoubts(block);
        var row = 0;
        foreach (var line in lines)
        {
            if (line.Role == LineRole.Row)
                row++;
            if (line.Role is LineRole.Row or LineRole.More)
                doubts.Take(line, row);
        }
        doubts.FindStrays();
        doubts.findings.AddRange(RunningText.Doubts(block, lines));
        return [.. doubts.findings];
    }

    private void Take(BlockLine line, int row)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (!line.Cut.Has(column))
                continue;
            var words = line.Cut[column];
            if (column > 0 && line.Cut.Has(column - 1) && IsCutWithin(line.Cut[column - 1][^1], words[0]))
                AddCut(line, row, line.Cut[column - 1][^1], words[0]);
            if (WordBetween(line.Cut, column) is { } between)
                AddBetween(line, row, column, between);
            if (line.Cutter.RuleOf(column) is not { } rule || !rule.Kind.IsFigure())
                continue;
            foreach (var word in words)
            {
                // A currency's sign may stand apart from its figure, at the edge of the column.
                if (!word.Text.AsSpan().ContainsAnyInRange('0', '9'))
                    continue;
                figures.Add(new(line, row, rule.Name, word));
                if (!places.TryGetValue((line.Page, rule.Name), out var boxes))
                    places.Add((line.Page, rule.Name), boxes = []);
                boxes.Add(word.Box);
                break;
            }
        }
    }

    private void FindStrays()
    {
        foreach (var figure in figures)
        {
            if (StandsAt(figure) is not { } other)
                continue;
            findings.Add(Finding.Hold(
                "figure-elsewhere",
                $"“{figure.Word.Text}” {Where(figure.Line, figure.Row)} was taken for the {TradeNames.Spoken(figure.Column)}, and stands where "
                + $"{(places[(figure.Line.Page, figure.Column)].Count > 1 ? "other rows have" : "the headings have")} the {TradeNames.Spoken(other)}.",
                block.Name));
        }
    }

    /// <summary>The column that a figure stands in instead of its own; null if it stands in its own.</summary>
    private string? StandsAt(Figure figure)
    {
        var (line, _, column, word) = figure;
        if (places[(line.Page, column)].Count > 1)
        {
            return StandsWithOthers(line.Page, column, word.Box) ? null
                : block.Columns.FirstOrDefault(other => other.Name != column && StandsWithOthers(line.Page, other.Name, word.Box))?.Name;
        }
        return line.Cutter.HeadingOf(column) is not { } heading || heading.SharedWidth(word.Box) > 0 ? null
            : block.Columns.FirstOrDefault(other => other.Name != column && line.Cutter.HeadingOf(other.Name)?.SharedWidth(word.Box) > 0
                && places.ContainsKey((line.Page, other.Name)))?.Name;
    }

    /// <summary>Says that a box stands where the column's figures stand in another row.</summary>
    private bool StandsWithOthers(int page, string column, Box box) =>
        places.TryGetValue((page, column), out var boxes) && boxes.Exists(other => other.SharedWidth(box) > 0 && other.SharedHeight(box) == 0);

    /// <summary>Says that a cut parts what anybody would read as one: figures from figures, or a word before one of its small letters.</summary>
    private static bool IsCutWithin(Word left, Word right) => right.IsGluedTo(left)
        && (char.IsAsciiDigit(left.Text[^1]) && char.IsAsciiDigit(right.Text[0]) || char.IsLetter(left.Text[^1]) && char.IsLower(right.Text[0]));

    private void AddCut(BlockLine line, int row, Word left, Word right) => findings.Add(Finding.Hold(
        "word-cut",
        $"“{left.Text}{right.Text}” {Where(line, row)} stands across the edge of two columns and was cut into “{left.Text}” and “{right.Text}”.",
        block.Name));

    /// <summary>A word of another column that stands between the words of one: what was taken for the one column is the text of two.</summary>
    /// <example>In <c>3 sac   12,20   1O</c> the rate 1O is no number, and its column's neighbours are; it is none of "3 sac".</example>
    private static Word? WordBetween(CutLine cut, int column)
    {
        var words = cut[column];
        if (words.Length < 2)
            return null;
        var (left, right) = (words[0].Box.Right, words[^1].Box.Left);
        for (var other = 0; other < cut.Columns; other++)
        {
            if (other == column)
                continue;
            foreach (var word in cut[other])
            {
                if (word.Box.CenterX > left && word.Box.CenterX < right)
                    return word;
            }
        }
        return null;
    }

    private void AddBetween(BlockLine line, int row, int column, Word between) => findings.Add(Finding.Hold(
        "words-apart",
        $"“{TextLine.TextOf(line.Cut[column])}” {Where(line, row)} was taken for the {TradeNames.Spoken(line.Cutter.RuleOf(column)?.Name ?? "text between columns")}, but “{between.Text}” of another column stands in its midst.",
        block.Name));

    private string Where(BlockLine line, int row) =>
        string.Create(CultureInfo.InvariantCulture, $"on page {line.Page}, row {row} of the block {block.Name},");

    private sealed record Figure(BlockLine Line, int Row, string Column, Word Word);
}
