using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Makes rows of groups of lines that stand together between two gaps or rulings, wherever their figures stand.</summary>
/// <remarks>
/// A page break may part a row. Its beginning is a group without figures at the foot of a page, its rest one at the top of
/// the next; a heading looks the same where it begins in the same column, and then a person must look.
/// </remarks>
internal sealed class GroupGatherer(BlockRule block, List<RowDraft> rows, CarriedText carried, LineAccount account)
{
    /// <summary>A row that began at the foot of a page and has no figures so far.</summary>
    private (RowDraft Row, ImmutableArray<TextLine> Lines)? brokenOff;

    /// <summary>How far to the right text was seen, by column.</summary>
    private readonly Dictionary<string, double> reach = [];

    /// <summary>A heading at the foot of a page, which may be the first line of a row that goes on overleaf.</summary>
    private TextLine? headingAtFoot;

    private readonly ImmutableArray<string> figures =
        [.. block.Columns.Where(column => column is { Required: true, IsPlaced: true, Kind: not ValueKind.Text }).Select(column => column.Name)];

    /// <param name="groups">The groups of a page, from the top.</param>
    /// <param name="goesOn">Says that the block goes on on the next page.</param>
    public void Take(ImmutableArray<ImmutableArray<TextLine>> groups, bool goesOn, LineCutter cutter)
    {
        for (var index = 0; index < groups.Length; index++)
            Take(groups[index], isFirst: index == 0, isLast: goesOn && index == groups.Length - 1, cutter);
    }

    public void End()
    {
        if (brokenOff is var (_, lines))
            AddUnaccounted(lines);
        brokenOff = null;
    }

    private void Take(ImmutableArray<TextLine> lines, bool isFirst, bool isLast, LineCutter cutter)
    {
        var draft = RowOf(lines, cutter);
        if (isFirst && headingAtFoot is { } heading)
        {
            if (Wrapping.MayGoOn(heading, lines[0], cutter, ReachOf(lines[0], cutter)))
                account.AddHeadingOrText(heading, "at the foot", rows.Count + 1);
            headingAtFoot = null;
        }
        var isBroken = brokenOff is not null;
        if (brokenOff is var (begun, begunLines) && isFirst)
        {
            brokenOff = null;
            if (HasFigure(draft))
            {
                Join(begun, draft, lines);
                AddRow(begun, begunLines);
                return;
            }
            AddUnaccounted(begunLines);
        }
        if (HasFigure(draft) || (figures.IsEmpty && draft.Cells.Count > 0))
        {
            if (isFirst && !isBroken && IsOverPageBreak(lines) && !figures.IsEmpty && !HasFigure(rows[^1]))
                Join(rows[^1], draft, lines);
            else
                AddRow(draft, lines);
        }
        else if (HeadingRule(lines, cutter) is { } rule)
        {
            if (MayBeText(rule) && isFirst && IsOverPageBreak(lines) && rows[^1].LastLine is { } last && Wrapping.MayGoOn(last, lines[0], cutter, reach.GetValueOrDefault(rule.BeginsIn!)))
                account.AddHeadingOrText(lines[0], "at the top", rows.Count);
            headingAtFoot = MayBeText(rule) && isLast ? lines[0] : null;
            carried.Take(rule, lines[0]);
        }
        else if (isFirst && IsOverPageBreak(lines))
        {
            Join(rows[^1], draft, lines);
        }
        else if (isLast)
        {
            brokenOff = (draft, lines);
        }
        else
        {
            AddUnaccounted(lines);
        }
    }

    private bool IsOverPageBreak(ImmutableArray<TextLine> lines) => rows.Count > 0 && rows[^1].End.Page != lines[0].Page;

    /// <summary>What the lines of a group hold by column, without what is carried onto rows.</summary>
    private RowDraft RowOf(ImmutableArray<TextLine> lines, LineCutter cutter)
    {
        var draft = new RowDraft(lines[0].Page, lines[0].Box.Bottom);
        foreach (var line in lines.Select(line => WithoutUnder(line, draft)).OfType<TextLine>())
        {
            if (!HasFigure(line, cutter) && WaitingLine.Of(line, cutter) is { } wrapped)
                draft.Fold(wrapped);
            else
                draft.Add(line, Reaching(cutter.Cut(line), cutter), cutter);
        }
        return draft;
    }

    /// <summary>Takes down how far the words of a line reach in their columns.</summary>
    private List<Word>[] Reaching(List<Word>[] cut, LineCutter cutter)
    {
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count > 0 && cutter.RuleOf(column) is { Kind: ValueKind.Text } rule)
                reach[rule.Name] = Math.Max(reach.GetValueOrDefault(rule.Name), cut[column][^1].Box.Right);
        }
        return cut;
    }

    private double ReachOf(TextLine line, LineCutter cutter) =>
        cutter.RuleOf(cutter.ColumnOfWrapped(line.Box)) is { } rule ? reach.GetValueOrDefault(rule.Name) : 0;

    private void AddRow(RowDraft row, ImmutableArray<TextLine> lines)
    {
        if (block.OnlyRows is { } only && !only.IsMatch(lines[0].Text))
        {
            foreach (var line in lines)
                account.AddLeftOut(line, "left out by the template");
            return;
        }
        carried.PutOnto(row);
        rows.Add(row);
    }

    private void Join(RowDraft row, RowDraft rest, ImmutableArray<TextLine> lines)
    {
        foreach (var (name, text) in rest.Cells)
            row.Add(name, text, block.Columns.First(column => column.Name == name).JoinsHyphens);
        row.Under.AddRange(rest.Under);
        row.EndsAt(lines[^1]);
    }

    /// <summary>By which rule a group is a heading that is carried, or null; headings have one line.</summary>
    private CarryRule? HeadingRule(ImmutableArray<TextLine> lines, LineCutter cutter) =>
        lines is [var line] ? carried.RuleByPlace(line, cutter) : null;

    /// <summary>Says that headings begin in a column that holds text of rows, too.</summary>
    private bool MayBeText(CarryRule rule) =>
        block.Columns.FirstOrDefault(column => column.Name == rule.BeginsIn) is { Kind: ValueKind.Text, Kept: true };

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

    private bool HasFigure(TextLine line, LineCutter cutter)
    {
        var cut = cutter.Cut(line);
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count > 0 && cutter.RuleOf(column) is { } rule && figures.Contains(rule.Name))
                return true;
        }
        return false;
    }

    private bool HasFigure(RowDraft row) => figures.Any(row.Cells.ContainsKey);

    private void AddUnaccounted(ImmutableArray<TextLine> lines)
    {
        foreach (var line in lines)
            account.AddUnaccounted(line, rows.Count);
    }
}
