using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells lines that state what the rows above come to: carried forward, brought forward, a section's subtotal.</summary>
/// <remarks>
/// Such a line has an amount and none of the other figures of a row, and its amount is the sum of the rows so far, or of
/// those since the last such line. A line of any other amount is left to be a row or a finding: whatever is taken for a
/// sum wrongly would be missing from the subtotal.
/// </remarks>
internal sealed class RunningSums
{
    /// <summary>The words, a currency mark, the amount; rows have more, and need not be cut to be told.</summary>
    private const int MostCells = 3;

    private readonly Habits habits;
    private readonly decimal before;
    private readonly List<decimal> marks = [];
    private readonly HashSet<string> words = [];
    private readonly ColumnRule? amount;
    private readonly bool applies;
    private int counted;
    private decimal sum;

    /// <param name="before">What the item amounts of the blocks before come to.</param>
    public RunningSums(BlockRule block, Habits habits, decimal before)
    {
        (this.habits, this.before, sum) = (habits, before, before);
        marks.Add(before);
        amount = block.Columns.FirstOrDefault(column => column.Name == TradeNames.Amount && column.IsPlaced);
        applies = block.HoldsItems && block.Columns.Any(
            column => column is { IsPlaced: true, Required: true, Kind: not ValueKind.Text } && column.Name != TradeNames.Amount);
    }

    public bool IsSum(TextLine line, LineCutter cutter, List<RowDraft> rows)
    {
        if (!applies || amount is null || line.Cells.Length > MostCells || !line.Words[^1].Text.AsSpan().ContainsAnyInRange('0', '9'))
            return false;
        var cut = cutter.Cut(line);
        Printed? stated = null;
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count == 0 || cutter.RuleOf(column) is not { } rule)
                continue;
            if (rule.Name == TradeNames.Amount)
                stated = Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column]));
            else if (rule.Kind != ValueKind.Text)
                return false;
        }
        if (stated?.Read(amount.Tidy, amount.Kind, habits).Reading.Number is not { } number)
            return false;
        Count(rows);
        // Nothing is carried but before the first row; an item that is free of charge is no sum.
        if (number == 0 ? rows.Count > 0 || before != 0 : !marks.Append(0m).Any(mark => sum - mark == number))
            return false;
        marks.Add(sum);
        words.Add(Words(line));
        return true;
    }

    /// <summary>Says that a line has the words of a sum that was told by its amount.</summary>
    public bool HasWordsOf(TextLine line) => words.Count > 0 && words.Contains(Words(line));

    private void Count(List<RowDraft> rows)
    {
        for (; counted < rows.Count; counted++)
            sum += rows[counted].Cells.GetValueOrDefault(TradeNames.Amount)?.Read(amount!.Tidy, amount.Kind, habits).Reading.Number ?? 0;
    }

    private static string Words(TextLine line) => string.Concat(line.Text.Where(char.IsLetter));
}
