using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells the line on which a row begins.</summary>
internal static class RowBeginning
{
    public static bool Is(RowRule rule, TextLine line, CutLine cut, LineCutter cutter, Habits habits) => rule switch
    {
        BeginsMatching matching => matching.Line.IsMatch(line.Text),
        BeginsFilled filled => cutter.Begins >= 0 && cut.Has(cutter.Begins)
            && IsFilled(filled, Printed.Of(line.Page, cut[cutter.Begins]), cutter.RuleOf(cutter.Begins)!, habits),
        _ => false,
    };

    private static bool IsFilled(BeginsFilled rule, Printed text, ColumnRule column, Habits habits) =>
        (!Printed.IsDash(text.Text) || column.DashIsZero)
        && (rule.Form is null || rule.Form.IsMatch(text.Text))
        && (Printed.IsDash(text.Text) || text.Read(column.Tidy, column.Kind, habits).Reading.IsGood);
}
