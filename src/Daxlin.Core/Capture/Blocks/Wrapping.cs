using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells whether a line can be the continuation of another: text is wrapped only where the next word does not fit.</summary>
/// <remarks>
/// The room is what text of the column was seen to reach, which is no more than there really is. So where the word would
/// have fitted, the lower line is surely no continuation; where it would not, it may be one.
/// </remarks>
internal static class Wrapping
{
    /// <summary>A blank is at least this part of the type's size.</summary>
    private const double Blank = 0.25;

    /// <summary>Lines of one text begin no further apart than this, in points.</summary>
    private const double SameLeft = 6;

    /// <param name="reach">How far to the right text of the column was seen; 0 if only the layout knows.</param>
    public static bool MayGoOn(TextLine upper, TextLine lower, LineCutter cutter, double reach = 0)
    {
        var begin = lower.Cells[0].Box;
        var beside = upper.Cells.Where(cell => Math.Abs(cell.Box.Left - begin.Left) <= SameLeft).Take(1).ToList();
        if (beside is not [var above])
            return true;
        var word = lower.Words[0];
        return above.Box.Right + Blank * word.Size + word.Box.Width > Math.Max(reach, cutter.RightOf(cutter.ColumnOfWrapped(begin)));
    }
}
