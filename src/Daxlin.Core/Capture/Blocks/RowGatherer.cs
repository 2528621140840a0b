using System.Collections.Immutable;
using System.Globalization;
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
internal sealed class RowGatherer(BlockRule block, InvoicePages pages, Habits habits, decimal before)
{
    /// <summary>A wrapped line follows its row within this part of the type's height.</summary>
    private const double FoldGap = 1.5;

    private readonly List<RowDraft> rows = [];
    private readonly ImmutableArray<LeftOutLine>.Builder leftOut = ImmutableArray.CreateBuilder<LeftOutLine>();
    private readonly Dictionary<string, Printed> carried = [];
    private readonly List<WaitingLine> waiting = [];
    private readonly List<(int AfterRow, TextLine Line)> unaccounted = [];
    private readonly List<Finding> doubts = [];
    private readonly Leading leading = new(block);
    private readonly RunningSums sums = new(block, habits, before);

    public IReadOnlyList<RowDraft> Rows => rows;

    public ImmutableArray<LeftOutLine> LeftOut => leftOut.ToImmutable();

    /// <summary>Takes the lines of the block on one page, from <paramref name="start"/> to before <paramref name="closing"/>.</summary>
    /// <param name="belowHeadings">
    /// Says that headings stand above. A row right below them is a row even where it repeats itself page by page.
    /// </param>
    public void Take(Page page, int start, int closing, bool belowHeadings, LineCutter cutter)
    {
        TakePageHead(page, start);
        if (RowGroups.Of(block.Row, page, start, closing, cutter) is { } groups)
        {
            var isFirst = true;
            foreach (var group in groups)
            {
                TakeGroup([.. group.Where(line => !TakeSpecial(line, cutter, belowHeadings, isGrouped: true))], cutter, isFirst);
                isFirst = false;
            }
            return;
        }
        for (var index = start; index < closing; index++)
        {
            var line = page.Lines[index];
            if (TakeSpecial(line, cutter, belowHeadings, isGrouped: false) || TakeRow(line, cutter) || TakeMore(line, cutter))
                continue;
            var isFurniture = IsFurniture(line, belowHeadings);
            if ((!isFurniture && TakeCarriedByPlace(line, cutter)) || ((!isFurniture || FollowsOnPage(line)) && TakeWrapped(line, cutter)))
                continue;
            if (isFurniture)
                AddLeftOut(line, "page furniture");
            else
                SayUnaccountedFor(line);
        }
        SettleBelow(page);
    }

    /// <summary>The block is over: what still waits for a row below it belongs to none.</summary>
    public void End()
    {
        if (rows.Count > 0 && waiting.All(wait => wait.IsAround && wait.Line.Page == rows[^1].End.Page))
            SettleOnto(waiting.Count);
        foreach (var wait in waiting)
            SayUnaccountedFor(wait.Line);
        waiting.Clear();
    }

    private bool IsFurniture(TextLine line, bool belowHeadings) => pages.IsFoot(line) || (!belowHeadings && pages.IsHead(line));

    /// <summary>Lines that the template speaks of by a pattern, and sums of the rows above.</summary>
    private bool TakeSpecial(TextLine line, LineCutter cutter, bool belowHeadings, bool isGrouped)
    {
        foreach (var pattern in block.LeaveOut)
        {
            if (!pattern.IsMatch(line.Text))
                continue;
            AddLeftOut(line, "left out by the template");
            return true;
        }
        if (TakeCarriedByPattern(line, cutter) || (!isGrouped && TakeUnder(line)))
            return true;
        if (sums.IsSum(line, cutter, rows))
        {
            AddLeftOut(line, "a sum of the rows above");
            return true;
        }
        if (isGrouped && IsFurniture(line, belowHeadings))
        {
            AddLeftOut(line, "page furniture");
            return true;
        }
        return false;
    }

    /// <summary>What stands above the block on its page and is carried onto its rows.</summary>
    private void TakePageHead(Page page, int start)
    {
        foreach (var rule in block.Carry.Where(rule => rule.InPageHead))
        {
            for (var index = 0; index < start; index++)
            {
                if (rule.Pattern!.Match(page.Lines[index].Text) is { Success: true } match)
                    carried[rule.Column] = TextOf(page.Lines[index], match);
            }
        }
    }

    private static Printed TextOf(TextLine line, System.Text.RegularExpressions.Match match)
    {
        var group = match.Groups.Count > 1 ? match.Groups[1] : match;
        return LineSpan.Of(line, group.Index, group.Length);
    }

    private bool TakeCarriedByPattern(TextLine line, LineCutter cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule.InPageHead || rule.Pattern?.IsMatch(line.Text) != true || !BeginsIn(rule, line, cutter))
                continue;
            carried[rule.Column] = TextOf(line, rule.Pattern.Match(line.Text));
            return true;
        }
        return false;
    }

    private bool TakeCarriedByPlace(TextLine line, LineCutter cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule.Pattern is not null || !BeginsIn(rule, line, cutter) || IsWrappedThere(rule, line))
                continue;
            carried[rule.Column] = Printed.Of(line.Page, line.Words.AsSpan());
            return true;
        }
        return false;
    }

    /// <summary>
    /// Says that a line is text of the row right above it, where headings begin in the same column as wrapped text: it
    /// follows the row as closely as lines of one text do.
    /// </summary>
    private bool IsWrappedThere(CarryRule rule, TextLine line)
    {
        if (rows.Count == 0 || block.Columns.FirstOrDefault(column => column.Name == rule.BeginsIn) is not { Fold: Templates.Fold.Down })
            return false;
        if (rows[^1].End.Page == line.Page)
            return line.Box.Top - rows[^1].End.Bottom <= WaitingLine.GapWithinText * line.Words[0].Size;
        doubts.Add(HeadingOrText(line));
        return false;
    }

    private Finding HeadingOrText(TextLine line) => Finding.Hold(
        "heading-or-text",
        $"“{Shortened(line.Text)}” at the top of page {Text(line.Page)} may be a heading or the rest of row {Text(rows.Count)} of the block {block.Name}.",
        block.Name);

    private static bool BeginsIn(CarryRule rule, TextLine line, LineCutter cutter) =>
        rule.BeginsIn is null || cutter.RuleOf(cutter.ColumnOfWrapped(line.Box))?.Name == rule.BeginsIn;

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
            AddLeftOut(line, "left out by the template");
            return true;
        }
        SettleAbove(line);
        AddRow(line, cut, cutter);
        leading.RowBegins(line);
        return true;
    }

    private void AddRow(TextLine line, List<Word>[] cut, LineCutter cutter)
    {
        var row = NewRow(line);
        var above = waiting.Count;
        foreach (var wait in waiting)
            Fold(row, wait);
        waiting.Clear();
        AddCells(row, line, cut, cutter);
        row.LinesAbove = above;
        rows.Add(row);
    }

    private RowDraft NewRow(TextLine line)
    {
        var row = new RowDraft(line.Page, line.Box.Bottom);
        foreach (var (name, text) in carried)
            row.Add(name, text);
        return row;
    }

    private static void AddCells(RowDraft row, TextLine line, List<Word>[] cut, LineCutter cutter)
    {
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count > 0 && cutter.RuleOf(column) is { } rule)
                row.Add(rule.Name, Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column])), rule.JoinsHyphens);
        }
        row.EndsAt(line);
    }

    /// <summary>More of a row that began above: figures beside the last line of its text, in columns that are empty so far.</summary>
    private bool TakeMore(TextLine line, LineCutter cutter)
    {
        if (rows.Count == 0 || waiting.Count > 0 || !IsNear(rows[^1].End, line) || !HasFigures(line))
            return false;
        var cut = cutter.Cut(line);
        if (!IsMore(rows[^1], line, cut, cutter))
            return false;
        AddCells(rows[^1], line, cut, cutter);
        leading.Passes(line);
        return true;
    }

    private static bool HasFigures(TextLine line) => line.Text.AsSpan().ContainsAnyInRange('0', '9');

    private bool IsMore(RowDraft row, TextLine line, List<Word>[] cut, LineCutter cutter)
    {
        var fills = false;
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count == 0 || cutter.RuleOf(column) is not { } rule)
                continue;
            if (rule.Fold is Templates.Fold.Down or Templates.Fold.Around)
                continue;
            var text = Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column]));
            if (row.Cells.ContainsKey(rule.Name) || !text.Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
                return false;
            fills |= rule is { Required: true, Kind: not ValueKind.Text };
        }
        return fills;
    }

    /// <summary>A line that holds nothing but wrapped text of columns that fold.</summary>
    private bool TakeWrapped(TextLine line, LineCutter cutter)
    {
        if (WrappedParts(line, cutter) is not { } parts)
            return false;
        var folds = parts.Select(part => part.Column.Fold).ToList();
        if (folds.Any(fold => fold is Templates.Fold.Up or Templates.Fold.Around))
        {
            waiting.Add(new WaitingLine(line, parts, folds.Contains(Templates.Fold.Around)));
            return true;
        }
        if (rows.Count == 0 || !IsNear(rows[^1].End, line))
            return false;
        Fold(rows[^1], new WaitingLine(line, parts, false));
        leading.Folds(rows.Count, line);
        return true;
    }

    private static List<(ColumnRule Column, Cell Cell)>? WrappedParts(TextLine line, LineCutter cutter)
    {
        var parts = line.Cells.Select(cell => (Column: cutter.ColumnOfWrapped(cell.Box), Cell: cell)).ToList();
        return parts.All(part => cutter.RuleOf(part.Column) is { Fold: not Templates.Fold.None })
            && parts.DistinctBy(part => part.Column).All(part => cutter.MayBegin(part.Column, part.Cell.Box))
                ? parts.ConvertAll(part => (cutter.RuleOf(part.Column)!, part.Cell)) : null;
    }

    private static void Fold(RowDraft row, WaitingLine wait)
    {
        foreach (var (column, cell) in wait.Parts)
            row.Add(column.Name, Printed.Of(wait.Line.Page, cell.Words), column.JoinsHyphens);
        row.EndsAt(wait.Line);
    }

    /// <summary>A row begins: parts the lines that wait between those of the row above and those of this one.</summary>
    private void SettleAbove(TextLine begin)
    {
        if (waiting.Count == 0)
            return;
        var toRowAbove = rows.Count == 0 ? 0 : WaitingLine.LinesOfRowAbove(waiting, rows[^1], begin);
        SettleOnto(toRowAbove);
        // What does not stand close above this row is no part of it.
        for (var index = waiting.Count - 1; index >= 0; index--)
        {
            var below = index + 1 < waiting.Count ? waiting[index + 1].Line : begin;
            if (below.Page == waiting[index].Line.Page && below.Box.Top - waiting[index].Line.Box.Bottom > FoldGap * below.Words[0].Size)
            {
                foreach (var far in waiting[..(index + 1)])
                    SayUnaccountedFor(far.Line);
                waiting.RemoveRange(0, index + 1);
                break;
            }
        }
    }

    /// <summary>
    /// The page is over: text around figures that still waits belongs to the row above, if it follows it closely. What
    /// stands apart from it is the beginning of a row whose figures come on the next page.
    /// </summary>
    private void SettleBelow(Page page)
    {
        if (rows.Count == 0 || rows[^1].End.Page != page.Number || waiting.Any(wait => !wait.IsAround))
            return;
        SettleOnto(WaitingLine.LinesOfRowAbove(waiting, rows[^1]));
    }

    private void SettleOnto(int count)
    {
        for (var index = 0; index < count; index++)
        {
            if (!IsNear(rows[^1].End, waiting[index].Line))
            {
                count = index;
                break;
            }
            Fold(rows[^1], waiting[index]);
        }
        waiting.RemoveRange(0, count);
    }

    /// <summary>Lines that stand together between two gaps or rulings: one row, wherever its figures stand.</summary>
    private void TakeGroup(ImmutableArray<TextLine> lines, LineCutter cutter, bool isFirstOnPage)
    {
        if (lines.IsEmpty)
            return;
        var draft = NewRow(lines[0]);
        var fromCarry = draft.Cells.Count;
        foreach (var line in lines.Select(line => WithoutUnder(line, draft)).OfType<TextLine>())
        {
            if (WrappedParts(line, cutter) is { } parts && !HasRequiredFigure(line, cutter))
                Fold(draft, new WaitingLine(line, parts, false));
            else
                AddCells(draft, line, cutter.Cut(line), cutter);
        }
        if (isFirstOnPage && rows.Count > 0 && rows[^1].End.Page != lines[0].Page && (!HasFigure(draft) || !HasFigure(rows[^1]))
            && !IsHeadingOnTop(lines, cutter))
        {
            // The row above was split by the page break: what stands here is the rest of it.
            foreach (var (name, text) in draft.Cells.Where(cell => !carried.ContainsKey(cell.Key)))
                rows[^1].Add(name, text, block.Columns.First(column => column.Name == name).JoinsHyphens);
            rows[^1].EndsAt(lines[^1]);
        }
        else if (draft.Cells.Count > fromCarry && (HasFigure(draft) || !NeedsFigure()))
        {
            if (block.OnlyRows is { } only && !only.IsMatch(lines[0].Text))
            {
                foreach (var line in lines)
                    AddLeftOut(line, "left out by the template");
            }
            else
            {
                rows.Add(draft);
            }
        }
        else
        {
            foreach (var line in lines.Where(line => !TakeCarriedByPlace(line, cutter)))
                SayUnaccountedFor(line);
        }
    }

    /// <summary>
    /// A line at the top of a page, below the repeated headings, that is carried: a heading, and no rest of the row above.
    /// Where headings begin in the same column as wrapped text, nothing tells the two apart, and a person must look.
    /// </summary>
    private bool IsHeadingOnTop(ImmutableArray<TextLine> lines, LineCutter cutter)
    {
        if (lines.Length != 1 || lines[0].Cells.Length > 1
            || block.Carry.FirstOrDefault(rule => rule is { Pattern: null, InPageHead: false } && BeginsIn(rule, lines[0], cutter)) is not { } carry)
            return false;
        if (rows[^1].Cells.ContainsKey(carry.BeginsIn!) && block.Columns.First(column => column.Name == carry.BeginsIn) is { Kind: ValueKind.Text, Kept: true })
        {
            doubts.Add(HeadingOrText(lines[0]));
        }
        return true;
    }

    /// <summary>
    /// Takes what belongs to a list under the row out of one of its lines, where figures may stand on the same height;
    /// null if nothing else stands there.
    /// </summary>
    private TextLine? WithoutUnder(TextLine line, RowDraft draft)
    {
        foreach (var rule in block.RowsUnder)
        {
            if (rule.Line.IsMatch(line.Text))
            {
                draft.Under.Add((rule, line));
                return null;
            }
            if (line.Cells.Where(cell => rule.Line.IsMatch(cell.Text)).Take(1).ToList() is not [var own])
                continue;
            draft.Under.Add((rule, new TextLine(line.Page, [.. own.Words])));
            return new TextLine(line.Page, [.. line.Words.Except([.. own.Words])]);
        }
        return line;
    }

    private static bool HasRequiredFigure(TextLine line, LineCutter cutter)
    {
        var cut = cutter.Cut(line);
        return Enumerable.Range(0, cut.Length).Any(column => cut[column].Count > 0 && cutter.RuleOf(column) is { Required: true, Kind: not ValueKind.Text });
    }

    private bool NeedsFigure() => block.Columns.Any(column => column is { Required: true, IsPlaced: true, Kind: not ValueKind.Text });

    private bool HasFigure(RowDraft row) => block.Columns.Any(column => column is { Required: true, IsPlaced: true, Kind: not ValueKind.Text }
        && row.Cells.ContainsKey(column.Name));

    private bool FollowsOnPage(TextLine line) => rows.Count > 0 && rows[^1].End.Page == line.Page && IsNear(rows[^1].End, line);

    private static bool IsNear((int Page, double Bottom) end, TextLine line) =>
        end.Page != line.Page || line.Box.Top - end.Bottom <= FoldGap * line.Words[0].Size;

    private void SayUnaccountedFor(TextLine line)
    {
        unaccounted.Add((rows.Count, line));
        AddLeftOut(line, "not accounted for");
    }

    private void AddLeftOut(TextLine line, string why) =>
        leftOut.Add(new LeftOutLine(block.Name, new PlaceOnPage(line.Page, line.Box), line.Text, why));

    public IEnumerable<Finding> Findings()
    {
        foreach (var doubt in doubts.Concat(leading.Findings()))
            yield return doubt;
        // A sum brought forward before there is any stands there without its figure, in the same words.
        foreach (var group in unaccounted.Where(entry => !sums.HasWordsOf(entry.Line)).GroupBy(entry => entry.AfterRow))
        {
            var lines = group.Select(entry => entry.Line).ToList();
            var where = group.Key == 0 ? "before the first row"
                : group.Key == rows.Count ? $"after row {Text(group.Key)}"
                : $"between rows {Text(group.Key)} and {Text(group.Key + 1)}";
            var count = lines.Count == 1 ? "1 printed line is" : $"{Text(lines.Count)} printed lines are";
            yield return Finding.Hold(
                "text-unaccounted",
                $"{count} not accounted for {where} of the block {block.Name}: “{Shortened(lines[0].Text)}”.",
                block.Name);
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Shortened(string text) => text.Length <= 80 ? text : text[..79] + "…";
}
