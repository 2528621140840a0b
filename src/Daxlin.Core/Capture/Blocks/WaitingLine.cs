using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A wrapped line that waits for the row it belongs to, above it or below.</summary>
/// <param name="Parts">Its cells, each with the column that it folds into.</param>
/// <param name="IsAround">Says that it may belong to the row above as well as to the one below.</param>
internal sealed record WaitingLine(TextLine Line, List<(ColumnRule Column, Cell Cell)> Parts, bool IsAround)
{
    /// <summary>Gaps that differ by no more than this, in points, are alike.</summary>
    private const double SameGap = 0.8;

    /// <summary>Lines of one text are set no further apart than this part of the type's size; rows have more between them.</summary>
    public const double GapWithinText = 0.42;

    /// <summary>A line of nothing but text of columns that fold, with its parts; null if it is none.</summary>
    public static WaitingLine? Of(TextLine line, LineCutter cutter)
    {
        var parts = new List<(ColumnRule, Cell)>(line.Cells.Length);
        var isAround = false;
        var last = -1;
        foreach (var cell in line.Cells)
        {
            var column = cutter.ColumnOfWrapped(cell.Box);
            if (cutter.RuleOf(column) is not { Fold: not Fold.None } rule || (column != last && !cutter.MayBegin(column, cell.Box)))
                return null;
            last = column;
            isAround |= rule.Fold == Fold.Around;
            parts.Add((rule, cell));
        }
        return new WaitingLine(line, parts, isAround);
    }

    /// <summary>Says that the text stands above its figures, or around them.</summary>
    public bool Waits => IsAround || Parts.Exists(part => part.Column.Fold == Fold.Up);

    /// <summary>How many of the lines between two lines of figures belong to the upper one.</summary>
    /// <remarks>
    /// A gap wider than the others parts the rows. Where all gaps are alike, the figures stand at half the height of
    /// their text, so a row has as many lines below its figures as above: with one line above the upper figures, one
    /// belongs to it and the rest to the lower. At the top of a page only a wide gap tells that the row above goes on there.
    /// </remarks>
    public static int LinesOfRowAbove(List<WaitingLine> waiting, RowDraft above, TextLine begin)
    {
        if (waiting.Any(wait => !wait.IsAround))
            return 0;
        var lines = waiting.Select(wait => wait.Line).Append(begin).ToList();
        if (lines[0].Page != above.End.Page)
            return Enumerable.Range(1, waiting.Count).LastOrDefault(next => !IsClose(lines[next - 1], lines[next]));
        var gaps = new double[lines.Count];
        for (var index = 0; index < lines.Count; index++)
            gaps[index] = lines[index].Page != lines[Math.Max(0, index - 1)].Page ? double.MaxValue : lines[index].Box.Top - (index == 0 ? above.End.Bottom : lines[index - 1].Box.Bottom);
        var widest = Array.IndexOf(gaps, gaps.Max());
        return gaps.Where((gap, index) => index != widest).All(gap => gaps[widest] - gap > SameGap)
            ? widest
            : Math.Min(above.LinesAbove, waiting.Count);
    }

    /// <summary>How many of the lines at the foot of a page belong to the row above them; the others wait for the next page.</summary>
    public static int LinesOfRowAbove(List<WaitingLine> waiting, RowDraft above)
    {
        var bottom = above.End.Bottom;
        var count = 0;
        while (count < waiting.Count && waiting[count].Line.Box.Top - bottom <= GapWithinText * waiting[count].Line.Words[0].Size)
            bottom = waiting[count++].Line.Box.Bottom;
        return count;
    }

    /// <summary>Says that one line follows another as closely as lines of one text do.</summary>
    public static bool IsClose(TextLine upper, TextLine lower) =>
        lower.Box.Top - upper.Box.Bottom <= GapWithinText * lower.Words[0].Size;
}
