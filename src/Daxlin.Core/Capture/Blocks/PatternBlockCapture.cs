using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Captures a block whose rows are lines of a pattern: "VAT @ 20% on 1,204.50  240.90".</summary>
/// <remarks>
/// Where both ends of the block are known, every line in between is accounted for, as in a block of columns. A tax summary
/// mostly has no ends: its lines are told by their pattern alone, and the rest of the invoice is none of its business.
/// </remarks>
internal sealed class PatternBlockCapture(BlockRule block, Regex row, InvoicePages pages)
{
    private readonly List<RowDraft> rows = [];
    private readonly CarriedText carried = new(block);
    private readonly LineAccount account = new(block);

    public static BlockResult Capture(BlockRule block, Regex row, InvoicePages pages)
    {
        var capture = new PatternBlockCapture(block, row, pages);
        capture.Run();
        return new BlockResult(
            [.. capture.rows], capture.account.LeftOut, [], [.. capture.account.Findings(capture.rows.Count)]);
    }

    private void Run()
    {
        var isOpen = block.Opens is null;
        foreach (var page in pages.Pages)
        {
            var opens = isOpen ? -1 : block.Opens!.PlacesOn(page).Select(place => place.Line).DefaultIfEmpty(int.MaxValue).Min();
            if (opens == int.MaxValue)
                continue;
            isOpen = true;
            carried.TakePageHead(page, opens + 1);
            var closes = block.Closes.SelectMany(cue => cue.PlacesOn(page)).Select(place => place.Line)
                .Where(line => line > opens).DefaultIfEmpty(page.Lines.Length).Min();
            for (var index = opens + 1; index < closes; index++)
                Take(page.Lines[index]);
            if (closes < page.Lines.Length)
                break;
        }
    }

    private void Take(TextLine line)
    {
        if (block.LeaveOut.Any(pattern => pattern.IsMatch(line.Text)))
            account.AddLeftOut(line, LineAccount.ByTemplate);
        else if (row.Match(line.Text) is { Success: true } match)
            AddRow(line, match);
        else if (CarriedText.RuleByPattern(block, line, cutter: null) is { } carry)
            Carry(carry, line);
        else if (rows.Count > 0 && block.RowsUnder.FirstOrDefault(rule => rule.Line.IsMatch(line.Text)) is { } under)
            rows[^1].Under.Add((under, line));
        else if (block.Opens is null || block.Closes.IsEmpty)
            return;
        else if (pages.Furniture.IsHead(line) || pages.Furniture.IsFoot(line))
            account.AddLeftOut(line, LineAccount.Furniture);
        else
            account.AddUnaccounted(line, rows.Count);
    }

    private void Carry(CarryRule rule, TextLine line)
    {
        if (carried.Take(rule, line) is { } lost)
            account.AddUnaccounted(lost, rows.Count);
    }

    private void AddRow(TextLine line, Match match)
    {
        if (block.OnlyRows?.IsMatch(line.Text) == false)
        {
            account.AddLeftOut(line, LineAccount.ByTemplate);
            return;
        }
        var draft = new RowDraft();
        carried.PutOnto(draft);
        foreach (var column in block.Columns)
        {
            if (match.Groups[column.Name] is { Success: true, Length: > 0 } group)
                draft.Add(column.Name, LineSpan.Of(line, group.Index, group.Length));
        }
        rows.Add(draft);
    }
}
