using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells lines that state what the rows above come to: carried forward, brought forward, a section's subtotal.</summary>
/// <remarks>
/// Such a line has words, an amount under the amounts, and no other figure of its own, and its amount is the sum of the
/// rows so far, or of those since the last such line. "Subtotal site 16" has a figure in its words, not beside them. A line
/// of any other amount is left to be a row or a finding: whatever is taken for a sum wrongly would be missing from the
/// subtotal.
/// </remarks>
internal sealed class RunningSums
{
    /// <summary>The words, a currency mark, the amount; rows have more, and need not be read to be told.</summary>
    private const int MostCells = 3;

    private readonly Habits habits;
    private readonly decimal before;
    private readonly List<decimal> marks = [];
    private readonly HashSet<string> words = [];
    private readonly List<Box> labels = [];
    private readonly ColumnRule? amount;
    private readonly bool applies;
    private readonly List<(CutLine Cut, LineCutter Cutter, int Page)> uncounted = [];
    private bool hasRows;
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

    /// <summary>Counts the amount of a row.</summary>
    public void AddRow(CutLine cut, LineCutter cutter, int page)
    {
        hasRows = true;
        // Amounts are read only if a line comes that may be their sum.
        uncounted.Add((cut, cutter, page));
    }

    /// <summary>What a line states that the rows above come to, and what they do come to; null if it states no such thing.</summary>
    /// <remarks>The two differ only where the line has the words of another that was told by its amount.</remarks>
    public RowSum? SumOn(TextLine line, CutLine cut, LineCutter cutter)
    {
        if (!applies || amount is null || line.Cells.Length > MostCells || !line.Words[^1].Text.AsSpan().ContainsAnyInRange('0', '9') || AmountIn(cut, cutter, line.Page) is not { } stated)
            return null;
        for (var column = 0; column < cut.Columns; column++)
        {
            // A figure of a row's own: its price, its quantity. Words are none, whichever column they stand in.
            if (cut.Has(column) && cutter.RuleOf(column) is { Kind: not ValueKind.Text } rule && rule != amount
                && Printed.Of(line.Page, cut[column]).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood && !IsInWords(cut[column], line))
                return null;
        }
        foreach (var (row, by, page) in uncounted)
            sum += AmountIn(row, by, page) ?? 0;
        uncounted.Clear();
        // Nothing is carried but before the first row; an item that is free of charge is no sum.
        var isRight = stated == 0 ? !hasRows && before == 0 : marks.Append(0m).Any(mark => sum - mark == stated);
        if (!isRight && !words.Contains(Words(line)))
            return null;
        var since = isRight ? stated : sum - marks[^1];
        marks.Add(sum);
        words.Add(Words(line));
        labels.Add(LabelOf(line));
        return new RowSum(stated, since);
    }

    /// <summary>
    /// Says that a line is a sum without its figure: it has the words of one that was told by its amount, or stands before
    /// all rows, without any figure, where the words of such a one stand.
    /// </summary>
    public bool IsBlankSum(TextLine line, bool isBeforeRows) => words.Count > 0 && (words.Contains(Words(line))
        || (isBeforeRows && !line.Text.AsSpan().ContainsAnyInRange('0', '9') && labels.Exists(label => IsAligned(label, line.Box))));

    /// <summary>Says that figures stand in one cell with words before them: the 16 of "Subtotal site 16".</summary>
    private static bool IsInWords(ReadOnlySpan<Word> figures, TextLine line)
    {
        foreach (var cell in line.Cells)
        {
            if (ReferenceEquals(cell.Words[^1], figures[^1]))
                return !ReferenceEquals(cell.Words[0], figures[0]) && cell.Text.Any(char.IsLetter);
        }
        return false;
    }

    private decimal? AmountIn(CutLine cut, LineCutter cutter, int page)
    {
        for (var column = 0; column < cut.Columns; column++)
        {
            if (cut.Has(column) && cutter.RuleOf(column) is { } rule && rule == amount)
                return Printed.Of(page, cut[column]).Read(amount.Tidy, amount.Kind, habits).Reading.Number;
        }
        return null;
    }

    private static Box LabelOf(TextLine line) => line.Cells[0].Box;

    private static bool IsAligned(Box label, Box line) =>
        Math.Abs(label.Left - line.Left) <= SameEdge || Math.Abs(label.Right - line.Right) <= SameEdge;

    /// <summary>In points: what is set by one tabulator.</summary>
    private const double SameEdge = 2;

    private static string Words(TextLine line) => string.Concat(line.Text.Where(char.IsLetter));
}
