using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells the line on which a row begins.</summary>
internal static class RowBeginning
{
    /// <param name="cut">The line's words by the index of their column.</param>
    public static bool Is(RowRule rule, TextLine line, List<Word>[] cut, LineCutter cutter, Habits habits) => rule switch
    {
        BeginsMatching matching => matching.Line.IsMatch(line.Text),
        BeginsFilled filled => cutter.Begins >= 0 && cut[cutter.Begins].Count > 0
            && IsFilled(filled, Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[cutter.Begins])), cutter.RuleOf(cutter.Begins)!, habits),
        _ => false,
    };

    private static bool IsFilled(BeginsFilled rule, Printed text, ColumnRule column, Habits habits) =>
        (!Printed.IsDash(text.Text) || column.DashIsZero)
        && (rule.Form is null || rule.Form.IsMatch(text.Text))
        && (Printed.IsDash(text.Text) || text.Read(column.Tidy, column.Kind, habits).Reading.IsGood);
}
