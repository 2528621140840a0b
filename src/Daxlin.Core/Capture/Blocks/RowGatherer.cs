using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Makes rows of the lines of a block: tells where each begins, folds wrapped text to it, carries headings onto it.</summary>
/// <remarks>
/// Every line becomes part of a row, is carried, is furniture, is a sum of the rows above, is left out by the template,
/// or is said to be unaccounted for. None is dropped in silence, since a dropped line may be an amount.
/// </remarks>
internal sealed class RowGatherer
{
    private readonly BlockRule block;
    private readonly InvoicePages pages;
    private readonly Habits habits;
    private readonly List<RowDraft> rows = [];
    private readonly List<WaitingLine> waiting = [];
    private readonly CarriedText carried;
    private readonly LineAccount account;
    private readonly Leading leading;
    private readonly RunningSums sums;
    private readonly GroupGatherer? groups;

    /// <param name="before">What the items of the blocks before come to.</param>
    public RowGatherer(BlockRule block, InvoicePages pages, Habits habits, decimal before)
    {
        (this.block, this.pages, this.habits) = (block, pages, habits);
        (carried, account, leading, sums) = (new CarriedText(block), new LineAccount(block), new Leading(block), new RunningSums(block, habits, before));
        groups = block.Row is BeginsAfterGap or BeginsBelowRuling ? new GroupGatherer(block, rows, carried, account) : null;
    }

    public IReadOnlyList<RowDraft> Rows => rows;

    public ImmutableArray<LeftOutLine> LeftOut => account.LeftOut(sums.HasWordsOf);

    public IEnumerable<Finding> Findings() => leading.Findings().Concat(account.Findings(rows.Count, sums.HasWordsOf));

    /// <summary>Takes the lines of the block on one page, from <paramref name="start"/> to before <paramref name="closing"/>.</summary>
    /// <param name="belowHeadings">
    /// Says that headings stand above. A row right below them is a row even where it repeats itself page by page.
    /// </param>
    public void Take(Page page, int start, int closing, bool belowHeadings, LineCutter cutter)
    {
        carried.TakePageHead(page, start);
        if (groups is not null)
        {
            var parted = RowGroups.Of(block.Row, page, start, closing, cutter)!
                .Select(group => group.RemoveAll(line => TakeSpecial(line, cutter) || TakeFurniture(line, belowHeadings)))
                .Where(group => !group.IsEmpty);
            groups.Take([.. parted], goesOn: closing == page.Lines.Length, cutter);
            return;
        }
        for (var index = start; index < closing; index++)
        {
            var line = page.Lines[index];
            var next = index + 1 < closing ? page.Lines[index + 1] : null;
            if (TakeSpecial(line, cutter) || TakeUnder(line) || TakeRow(line, cutter) || TakeMore(line, cutter))
                continue;
            var isFurniture = IsFurniture(line, belowHeadings);
            if (isFurniture ? FollowsOnPage(line) && TakeWrapped(line, cutter) : TakeCarried(line, next, cutter) || TakeWrapped(line, cutter))
                continue;
            if (isFurniture)
                account.AddLeftOut(line, "page furniture");
            else
                account.AddUnaccounted(line, rows.Count);
        }
        SettleBelow(page);
    }

    /// <summary>The block is over: what still waits for a row below it belongs to none.</summary>
    public void End()
    {
        groups?.End();
        if (rows.Count > 0 && waiting.All(wait => wait.IsAround && wait.Line.Page == rows[^1].End.Page))
            SettleOnto(waiting.Count);
        foreach (var wait in waiting)
            account.AddUnaccounted(wait.Line, rows.Count);
        waiting.Clear();
    }

    private bool IsFurniture(TextLine line, bool belowHeadings) => pages.IsFoot(line) || (!belowHeadings && pages.IsHead(line));

    private bool TakeFurniture(TextLine line, bool belowHeadings)
    {
        if (!IsFurniture(line, belowHeadings))
            return false;
        account.AddLeftOut(line, "page furniture");
        return true;
    }

    /// <summary>Lines that the template speaks of by a pattern, and sums of the rows above.</summary>
    private bool TakeSpecial(TextLine line, LineCutter cutter)
    {
        foreach (var pattern in block.LeaveOut)
        {
            if (!pattern.IsMatch(line.Text))
                continue;
            account.AddLeftOut(line, "left out by the template");
            return true;
        }
        if (carried.TakeByPattern(line, cutter))
            return true;
        if (!sums.IsSum(line, cutter, rows))
            return false;
        account.AddLeftOut(line, LineAccount.SumOfRows);
        return true;
    }

    private bool TakeUnder(TextLine line)
    {
        if (rows.Count == 0)
            return false;
        foreach (var rule in block.RowsUnder)
        {
            if (!rule.Line.IsMatch(line.Text))
                continue;
            rows[^1].Under.Add((rule, line));
            rows[^1].EndsAt(line);
            leading.Passes(line);
            return true;
        }
        return false;
    }

    /// <summary>A line that begins a row.</summary>
    private bool TakeRow(TextLine line, LineCutter cutter)
    {
        var cut = cutter.Cut(line);
        if (!RowBeginning.Is(block.Row, line, cut, cutter, habits))
            return false;
        if (block.OnlyRows is { } only && !only.IsMatch(line.Text))
        {
            account.AddLeftOut(line, "left out by the template");
            return true;
        }
        SettleAbove(line);
        var row = new RowDraft(line.Page, line.Box.Bottom) { LinesAbove = waiting.Count };
        carried.PutOnto(row);
        for (var index = 0; index < waiting.Count; index++)
        {
            var below = index + 1 < waiting.Count ? waiting[index + 1].Line : line;
            if (below.Page == waiting[index].Line.Page)
                leading.Joins(rows.Count + 1, waiting[index].Line, below.Box.Top - waiting[index].Line.Box.Bottom);
            row.Fold(waiting[index]);
        }
        waiting.Clear();
        row.Add(line, cut, cutter);
        rows.Add(row);
        leading.RowBegins(line);
        return true;
    }

    /// <summary>More of a row that began above: figures beside the last line of its text, in columns that are empty so far.</summary>
    private bool TakeMore(TextLine line, LineCutter cutter)
    {
        if (rows.Count == 0 || waiting.Count > 0 || !rows[^1].IsFollowedBy(line) || !line.Text.AsSpan().ContainsAnyInRange('0', '9'))
            return false;
        var cut = cutter.Cut(line);
        if (!IsMore(rows[^1], line, cut, cutter))
            return false;
        rows[^1].Add(line, cut, cutter);
        leading.Passes(line);
        return true;
    }

    private bool IsMore(RowDraft row, TextLine line, List<Word>[] cut, LineCutter cutter)
    {
        var fills = false;
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count == 0 || cutter.RuleOf(column) is not { } rule || rule.Fold is Fold.Down or Fold.Around)
                continue;
            var text = Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column]));
            if (row.Cells.ContainsKey(rule.Name) || !text.Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
                return false;
            fills |= rule is { Required: true, Kind: not ValueKind.Text };
        }
        return fills;
    }

    private bool TakeCarried(TextLine line, TextLine? next, LineCutter cutter)
    {
        if (carried.RuleByPlace(line, cutter) is not { } rule || IsTextThere(rule, line, next, cutter))
            return false;
        carried.Take(rule, line);
        return true;
    }

    /// <summary>
    /// Says that a line is text of a row where headings begin in the same column: it stands as close to the row above, or
    /// to the line below, as lines of one text do.
    /// </summary>
    private bool IsTextThere(CarryRule rule, TextLine line, TextLine? next, LineCutter cutter)
    {
        var fold = block.Columns.FirstOrDefault(column => column.Name == rule.BeginsIn)?.Fold ?? Fold.None;
        if (fold == Fold.None)
            return false;
        if (fold is Fold.Up or Fold.Around && next is not null && WaitingLine.IsClose(line, next))
            return true;
        if (rows.Count == 0)
            return false;
        var last = waiting.Count > 0 ? (waiting[^1].Line.Page, waiting[^1].Line.Box.Bottom) : rows[^1].End;
        if (last.Page == line.Page)
            return fold is Fold.Down or Fold.Around && line.Box.Top - last.Item2 <= WaitingLine.GapWithinText * line.Words[0].Size;
        if (rows[^1].LastLine is { } above && Wrapping.MayGoOn(above, line, cutter))
            account.AddHeadingOrText(line, "at the top", rows.Count);
        return false;
    }

    /// <summary>A line that holds nothing but wrapped text of columns that fold.</summary>
    private bool TakeWrapped(TextLine line, LineCutter cutter)
    {
        if (WaitingLine.Of(line, cutter) is not { } wrapped)
            return false;
        if (wrapped.Waits)
        {
            waiting.Add(wrapped);
            return true;
        }
        if (rows.Count == 0 || !rows[^1].IsFollowedBy(line))
            return false;
        rows[^1].Fold(wrapped);
        leading.Folds(rows.Count, line);
        return true;
    }

    private bool FollowsOnPage(TextLine line) => rows.Count > 0 && rows[^1].End.Page == line.Page && rows[^1].IsFollowedBy(line);

    /// <summary>A row begins: parts the lines that wait between those of the row above and those of this one.</summary>
    private void SettleAbove(TextLine begin)
    {
        if (waiting.Count == 0)
            return;
        SettleOnto(rows.Count == 0 ? 0 : WaitingLine.LinesOfRowAbove(waiting, rows[^1], begin));
        // What does not stand close above this row is no part of it.
        for (var index = waiting.Count - 1; index >= 0; index--)
        {
            var below = index + 1 < waiting.Count ? waiting[index + 1].Line : begin;
            var beside = new RowDraft(waiting[index].Line.Page, waiting[index].Line.Box.Bottom);
            if (beside.IsFollowedBy(below))
                continue;
            foreach (var far in waiting[..(index + 1)])
                account.AddUnaccounted(far.Line, rows.Count);
            waiting.RemoveRange(0, index + 1);
            break;
        }
    }

    /// <summary>
    /// The page is over: text around figures that still waits belongs to the row above, if it follows it closely. What
    /// stands apart from it is the beginning of a row whose figures come on the next page.
    /// </summary>
    private void SettleBelow(Page page)
    {
        if (rows.Count > 0 && rows[^1].End.Page == page.Number && waiting.All(wait => wait.IsAround))
            SettleOnto(WaitingLine.LinesOfRowAbove(waiting, rows[^1]));
    }

    private void SettleOnto(int count)
    {
        var taken = 0;
        while (taken < count && rows[^1].IsFollowedBy(waiting[taken].Line))
        {
            var wait = waiting[taken++];
            if (wait.Line.Page == rows[^1].End.Page)
                leading.Joins(rows.Count, wait.Line, wait.Line.Box.Top - rows[^1].End.Bottom);
            rows[^1].Fold(wait);
        }
        waiting.RemoveRange(0, taken);
    }
}
