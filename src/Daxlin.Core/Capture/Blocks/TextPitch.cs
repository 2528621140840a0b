using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>How far apart a block sets the lines of one text, and how far its rows, as its own lines show.</summary>
/// <remarks>
/// Wrapped lines stand closer than anything else in their column, so the least distance seen there is theirs. Where none is
/// wrapped, the least distance is that of rows or headings; so a distance counts only if rows are seen further apart, or
/// if it is one that type is usually set with. Distances are between baselines, in points.
/// </remarks>
internal sealed class TextPitch
{
    /// <summary>Type is usually set with up to this many times its size from line to line; a browser's normal is about 1.2.</summary>
    private const double Usual = 1.42;

    /// <summary>Lines closer than this part of the type's size stand side by side.</summary>
    private const double SideBySide = 0.6;

    /// <summary>Distances that differ by less than this are the same.</summary>
    public const double Same = 0.5;

    /// <summary>A blank is at least this part of the type's size.</summary>
    private const double Blank = 0.25;

    /// <summary>Lines of one text begin no further apart than this.</summary>
    private const double SameLeft = 6;

    private readonly ImmutableArray<BlockLine> lines;
    private readonly Dictionary<ColumnRule, double> ofText = [];
    private readonly Dictionary<ColumnRule, (double Right, int Characters)> reach = [];
    private readonly double ofRows = double.PositiveInfinity;

    /// <summary>How far below its figures the text of a row begins, where most rows with text below show the same; else null.</summary>
    private readonly double? belowFigures;
    private readonly bool hasHeadings;

    public TextPitch(ImmutableArray<BlockLine> lines, BlockRule block)
    {
        this.lines = lines;
        hasHeadings = block.Carry.Any(rule => rule is { InPageHead: false, Pattern: null });
        for (var index = 0; index < lines.Length; index++)
        {
            TakeDownReach(lines[index]);
            if (lines[index].Role == LineRole.Open)
                LearnAround(index);
            if (index > 0 && IsRow(index) && IsRow(index - 1) && lines[index].Page == lines[index - 1].Page)
                ofRows = Math.Min(ofRows, lines[index].Baseline - lines[index - 1].Baseline);
        }
        belowFigures = LearnBelowFigures();
    }

    /// <summary>The pitch that text of a line's columns is set with.</summary>
    public double Of(BlockLine line)
    {
        var usual = Usual * line.Size;
        if (line.Text.IsEmpty || !ofText.TryGetValue(line.Text[0].Column, out var seen))
            return usual;
        return seen <= usual || (!hasHeadings && double.IsFinite(ofRows) && seen < ofRows - Same) ? seen : usual;
    }

    /// <summary>
    /// Says that a line stands as far below figures as the text of most rows begins: a description under its figures has a
    /// distance of its own to them, whatever its lines have.
    /// </summary>
    public bool BeginsBelowFigures(BlockLine figures, BlockLine text) => belowFigures is { } usual
        && figures.Role is LineRole.Row or LineRole.RowLeftOut or LineRole.More && Math.Abs(text.Baseline - figures.FigureBaseline - usual) <= Same;

    private double? LearnBelowFigures()
    {
        var distances = new List<double>();
        for (var index = 1; index < lines.Length; index++)
        {
            if (lines[index] is { Role: LineRole.Open, MayFoldUp: true, IsAround: false } && IsFigures(index - 1) && lines[index].Page == lines[index - 1].Page)
                distances.Add(lines[index].Baseline - lines[index - 1].FigureBaseline);
        }
        if (distances.Count < FewestAlike)
            return null;
        distances.Sort();
        var middle = distances[distances.Count / 2];
        return distances.Count(distance => Math.Abs(distance - middle) <= Same) * 2 > distances.Count ? middle : null;
    }

    /// <summary>Two rows could be alike by chance.</summary>
    private const int FewestAlike = 3;

    /// <summary>Says that rows are seen further apart than lines of one text.</summary>
    public bool RowsStandApart(double usual) => double.IsFinite(ofRows) && ofRows > usual + Same;

    /// <summary>Says that a distance is wider than text's own, and such as rows are set with, or rows show none.</summary>
    public bool IsAsFarAsRows(double distance, double usual) =>
        distance > usual + Same && (double.IsInfinity(ofRows) || distance >= ofRows - Same);

    /// <summary>Index of the line above that text of a line follows: the next one that is not beside it, nor figures without text of their own.</summary>
    public int? NextAbove(int index) => Next(index, -1);

    /// <summary>Index of the line below that follows a line of text.</summary>
    public int? NextBelow(int index) => Next(index, 1);

    private int? Next(int index, int step)
    {
        var line = lines[index];
        for (var other = index + step; other >= 0 && other < lines.Length; other += step)
        {
            if (lines[other].Role == LineRole.Furniture
                || (line.IsAround && IsFigures(other) && !HasTextOf(lines[other], line))
                || (lines[other].Page == line.Page && Math.Abs(lines[other].Baseline - line.Baseline) < SideBySide * line.Size))
                continue;
            return other;
        }
        return null;
    }

    /// <summary>
    /// Says that the first word of a line would have fitted on the line above, as far as text of the column is seen to reach:
    /// text is wrapped only where the next word does not fit. Some programs wrap by points, some by characters, so it must
    /// fit by both. A dash goes with the word after it.
    /// </summary>
    public bool HasRoomFor(BlockLine lower, BlockLine upper)
    {
        var words = lower.Line.Cells[0].Words;
        if (lower.Cutter.RuleOf(lower.Cutter.ColumnOfWrapped(lower.Line.Cells[0].Box)) is not { } column
            || !reach.TryGetValue(column, out var seen))
            return false;
        var first = 0;
        while (first < words.Length - 1 && !words[first].Text.Any(char.IsLetterOrDigit))
            first++;
        foreach (var cell in upper.Line.Cells)
        {
            if (Math.Abs(cell.Box.Left - words[0].Box.Left) > SameLeft)
                continue;
            return cell.Box.Right + Blank * lower.Size + words[first].Box.Right - words[0].Box.Left <= seen.Right
                && cell.Text.Length + 1 + TextLine.TextOf(words[..(first + 1)]).Length <= seen.Characters;
        }
        return false;
    }

    private bool IsRow(int index) => lines[index].Role is LineRole.Row or LineRole.RowLeftOut;

    private bool IsFigures(int index) => IsRow(index) || lines[index].Role == LineRole.More;

    private void LearnAround(int index)
    {
        foreach (var other in new[] { Next(index, -1), Next(index, 1) })
        {
            if (other is not { } at || lines[at].Page != lines[index].Page || !HasTextOf(lines[at], lines[index]))
                continue;
            var distance = Math.Abs(lines[at].Baseline - lines[index].Baseline);
            foreach (var (column, _) in lines[index].Text)
                ofText[column] = Math.Min(ofText.GetValueOrDefault(column, double.PositiveInfinity), distance);
        }
    }

    /// <summary>Says that a line has text in a column that the text of another folds into.</summary>
    public bool HasTextOf(int line, int text) => HasTextOf(lines[line], lines[text]);

    /// <summary>Says that a line has text in a column that another's text folds into.</summary>
    private static bool HasTextOf(BlockLine line, BlockLine text)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && line.Cutter.RuleOf(column) is { } rule && text.Text.Any(part => part.Column == rule))
                return true;
        }
        return false;
    }

    private void TakeDownReach(BlockLine line)
    {
        if (line.Role is not (LineRole.Row or LineRole.Open or LineRole.TextOfAbove or LineRole.TextOfBelow))
            return;
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && line.Cutter.RuleOf(column) is { Kind: ValueKind.Text } rule)
            {
                var words = line.Cut[column];
                var seen = reach.GetValueOrDefault(rule);
                reach[rule] = (Math.Max(seen.Right, words[^1].Box.Right), Math.Max(seen.Characters, TextLine.TextOf(words).Length));
            }
        }
    }
}
