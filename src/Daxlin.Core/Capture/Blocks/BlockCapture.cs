using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Captures a line block by its columns, page by page: finds its headings, parts its lines into rows, folds and carries.</summary>
/// <remarks>
/// Every line between headings and closing cue becomes part of a row, is carried, is furniture, is left out by the
/// template, or is said to be unaccounted for. None is dropped in silence, since a dropped line may be an amount.
/// </remarks>
internal sealed class BlockCapture
{
    /// <summary>A wrapped line follows its row within this part of the type's height.</summary>
    private const double FoldGap = 1.5;

    private readonly BlockRule block;
    private readonly InvoicePages pages;
    private readonly Habits habits;
    private readonly List<RowDraft> rows = [];
    private readonly ImmutableArray<LeftOutLine>.Builder leftOut = ImmutableArray.CreateBuilder<LeftOutLine>();
    private readonly ImmutableArray<Finding>.Builder findings = ImmutableArray.CreateBuilder<Finding>();
    private readonly Dictionary<string, Printed> carried = [];
    private readonly List<(int Column, Printed Text, TextLine Line)> pending = [];
    private readonly List<(int AfterRow, TextLine Line)> unaccounted = [];

    private BlockCapture(BlockRule block, InvoicePages pages, Habits habits)
    {
        this.block = block;
        this.pages = pages;
        this.habits = habits;
    }

    public static BlockResult Capture(BlockRule block, InvoicePages pages, Habits habits)
    {
        var capture = new BlockCapture(block, pages, habits);
        capture.Run();
        return new BlockResult(
            [.. capture.rows.Select(row => row.Cells)], capture.leftOut.ToImmutable(), capture.findings.ToImmutable());
    }

    private void Run()
    {
        var byEdges = block.Columns.Any(column => column.Edges is not null);
        var (opened, open, seen, missing) = (block.Opens is null, false, false, (HeadingBand?)null);
        LineCutter? cutter = null;
        var layouts = new LayoutFinder(block, habits);
        foreach (var page in pages.Pages)
        {
            var start = 0;
            if (!opened)
            {
                if (block.Opens!.PlacesOn(page) is not { Count: > 0 } openings)
                    continue;
                (start, opened) = (openings.Min(place => place.Line) + 1, true);
            }
            var band = byEdges ? null : HeadingFinder.Find(page, start, block.Columns);
            if (band is { IsWhole: true })
            {
                cutter = new LineCutter(layouts.ByHeadings(page, band, ClosingLine(page, band.EndLine)), block.Begins, habits);
                (start, open, seen) = (band.EndLine, true, true);
            }
            else if (byEdges && !seen)
            {
                cutter = new LineCutter(LayoutFinder.ByEdges(block.Columns), block.Begins, habits);
                (open, seen) = (true, true);
            }
            else if (!open)
            {
                if (band is not null && (missing is null || band.Headings.Length > missing.Headings.Length))
                    missing = band;
                continue;
            }
            open = !TakeLines(page, start, belowHeadings: band is { IsWhole: true }, cutter!);
        }
        Flush();
        if (open && block.Closes.Length > 0)
        {
            findings.Add(Finding.Hold(
                "block-not-closed",
                $"The end of the block {block.Name} was not found: no line begins with {string.Join(" or ", block.Closes)}.",
                block.Name));
        }
        if (!seen && missing is not null && missing.Headings.Length * 2 > block.Columns.Count(column => column.Heading is not null))
        {
            findings.Add(Finding.Hold(
                "heading-missing",
                $"The block {block.Name} was not captured: its heading {string.Join(", ", missing.Missing.Where(column => !column.Optional).Select(column => column.Heading))} is not printed where the others are.",
                block.Name));
        }
        SayUnaccounted();
    }

    /// <summary>Takes the block's lines on one page; true if the block closes there.</summary>
    /// <remarks>A row is a row even where it repeats itself page by page, and so is text wrapped right below it.</remarks>
    private bool TakeLines(Page page, int start, bool belowHeadings, LineCutter cutter)
    {
        var closing = ClosingLine(page, start);
        for (var index = start; index < closing; index++)
        {
            var line = page.Lines[index];
            var isFurniture = pages.IsFoot(line) || (!belowHeadings && pages.IsHead(line));
            if (block.LeaveOut.Any(pattern => pattern.IsMatch(line.Text)))
                leftOut.Add(LeftOut(line, "left out by the template"));
            else if (TakeRow(line, cutter)
                || (!isFurniture && TakeCarried(line, cutter))
                || ((!isFurniture || FollowsOnPage(line)) && TakeWrapped(line, cutter)))
                continue;
            else if (isFurniture)
                leftOut.Add(LeftOut(line, "page furniture"));
            else
                SayUnaccountedFor(line);
        }
        return closing < page.Lines.Length;
    }

    private void SayUnaccountedFor(TextLine line)
    {
        unaccounted.Add((rows.Count, line));
        leftOut.Add(LeftOut(line, "not accounted for"));
    }

    private LeftOutLine LeftOut(TextLine line, string why) => new(block.Name, new PlaceOnPage(line.Page, line.Box), line.Text, why);

    /// <summary>
    /// Index of the first line from <paramref name="start"/> on that closes the block, or the number of lines. A closing
    /// cue counts where a cell begins with it, not in the midst of a description.
    /// </summary>
    private int ClosingLine(Page page, int start)
    {
        var closing = page.Lines.Length;
        foreach (var place in block.Closes.SelectMany(cue => cue.PlacesOn(page)))
        {
            if (place.Line < start || place.Line >= closing || place.FirstChar > 0)
                continue;
            var line = page.Lines[place.Line];
            if (line.Cells.Any(cell => ReferenceEquals(cell.Words[0], line.Words[place.FirstWord])))
                closing = place.Line;
        }
        return closing;
    }

    /// <summary>A line on which the column is filled that begins a row.</summary>
    private bool TakeRow(TextLine line, LineCutter cutter)
    {
        var begins = cutter.Begins;
        if (begins < 0)
            return false;
        var cut = cutter.Cut(line);
        if (cut[begins].Count == 0)
            return false;
        var rule = cutter.RuleOf(begins)!;
        var begin = Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[begins]));
        if (Printed.IsDash(begin.Text) || !begin.Read(rule.Tidy, rule.Kind, habits).Reading.IsGood)
            return false;

        var row = new RowDraft(line.Page, line.Box.Bottom);
        foreach (var (name, text) in carried)
            row.Add(name, text);
        foreach (var (column, text, _) in pending)
            row.Add(cutter.RuleOf(column)!.Name, text);
        pending.Clear();
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count > 0 && cutter.RuleOf(column) is { } of)
                row.Add(of.Name, Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column])));
        }
        rows.Add(row);
        return true;
    }

    private bool TakeCarried(TextLine line, LineCutter cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule.BeginsIn is not null && cutter.RuleOf(cutter.ColumnOfWrapped(line.Box))?.Name != rule.BeginsIn)
                continue;
            if (rule.Pattern is null)
            {
                carried[rule.Column] = Printed.Of(line.Page, line.Words.AsSpan());
                return true;
            }
            if (rule.Pattern.Match(line.Text) is { Success: true } match)
            {
                var group = match.Groups.Count > 1 ? match.Groups[1] : match;
                carried[rule.Column] = LineSpan.Of(line, group.Index, group.Length);
                return true;
            }
        }
        return false;
    }

    /// <summary>A line that holds nothing but wrapped text of columns that fold.</summary>
    private bool TakeWrapped(TextLine line, LineCutter cutter)
    {
        var parts = line.Cells.Select(cell => (Column: cutter.ColumnOfWrapped(cell.Box), Cell: cell)).ToList();
        if (parts.Any(part => cutter.RuleOf(part.Column) is not { Fold: not Fold.None })
            || parts.DistinctBy(part => part.Column).Any(part => !cutter.MayBegin(part.Column, part.Cell.Box)))
            return false;
        var follows = rows.Count > 0 && IsNear(rows[^1].End, line);
        if (parts.Any(part => cutter.RuleOf(part.Column)!.Fold == Fold.Down && !follows))
            return false;
        foreach (var (column, cell) in parts)
        {
            var text = Printed.Of(line.Page, cell.Words);
            if (cutter.RuleOf(column)!.Fold == Fold.Up)
            {
                pending.Add((column, text, line));
            }
            else
            {
                rows[^1].Add(cutter.RuleOf(column)!.Name, text);
                rows[^1].EndsAt(line);
            }
        }
        return true;
    }

    private bool FollowsOnPage(TextLine line) => rows.Count > 0 && rows[^1].End.Page == line.Page && IsNear(rows[^1].End, line);

    private static bool IsNear((int Page, double Bottom) end, TextLine line) =>
        end.Page != line.Page || line.Box.Top - end.Bottom <= FoldGap * line.Words[0].Size;

    private void Flush()
    {
        foreach (var (_, _, line) in pending)
            unaccounted.Add((rows.Count, line));
        pending.Clear();
    }

    private void SayUnaccounted()
    {
        foreach (var group in unaccounted.GroupBy(entry => entry.AfterRow))
        {
            var lines = group.Select(entry => entry.Line).ToList();
            var where = group.Key == 0 ? "before the first row"
                : group.Key == rows.Count ? $"after row {Text(group.Key)}"
                : $"between rows {Text(group.Key)} and {Text(group.Key + 1)}";
            var count = lines.Count == 1 ? "1 printed line is" : $"{Text(lines.Count)} printed lines are";
            findings.Add(Finding.Hold(
                "text-unaccounted",
                $"{count} not accounted for {where} of the block {block.Name}: “{Shortened(lines[0].Text)}”.",
                block.Name));
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Shortened(string text) => text.Length <= 80 ? text : text[..79] + "…";
}
