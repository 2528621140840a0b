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

    /// <summary>How many of the lines between two lines of figures belong to the upper one.</summary>
    /// <remarks>
    /// A gap wider than the others parts the rows. Where all gaps are alike, the figures stand at half the height of
    /// their text, so a row has as many lines below its figures as above: with one line above the upper figures, one
    /// belongs to it and the rest to the lower.
    /// </remarks>
    public static int LinesOfRowAbove(List<WaitingLine> waiting, RowDraft above, TextLine begin)
    {
        var around = waiting.Count(wait => wait.IsAround);
        if (around < waiting.Count)
            return 0;
        if (waiting[0].Line.Page != above.End.Page)
            return 0;
        var gaps = new double[waiting.Count + 1];
        for (var index = 0; index <= waiting.Count; index++)
        {
            var top = index < waiting.Count ? waiting[index].Line : begin;
            var bottom = index == 0 ? above.End.Bottom : waiting[index - 1].Line.Box.Bottom;
            gaps[index] = top.Box.Top - bottom;
        }
        var widest = Array.IndexOf(gaps, gaps.Max());
        // Where figures stand between two lines of text, gaps next to them are narrower; so the widest is looked at alone.
        return gaps.Where((gap, index) => index != widest).All(gap => gaps[widest] - gap > SameGap)
            ? widest
            : Math.Min(above.LinesAbove, waiting.Count);
    }
}
