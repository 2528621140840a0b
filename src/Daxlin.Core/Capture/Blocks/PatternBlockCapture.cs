using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Captures a block whose rows are lines of a pattern: "VAT @ 20% on 1,204.50  240.90".</summary>
internal static class PatternBlockCapture
{
    public static BlockResult Capture(BlockRule block, Regex row, InvoicePages pages)
    {
        var rows = new List<RowDraft>();
        var carried = new Dictionary<string, Printed>();
        var isOpen = block.Opens is null;
        foreach (var page in pages.Pages)
        {
            var opens = isOpen ? -1 : block.Opens!.PlacesOn(page).Select(place => place.Line).DefaultIfEmpty(int.MaxValue).Min();
            var closes = block.Closes.SelectMany(cue => cue.PlacesOn(page)).Select(place => place.Line)
                .Where(line => line > opens).DefaultIfEmpty(int.MaxValue).Min();
            for (var index = opens == int.MaxValue ? page.Lines.Length : opens + 1; index < Math.Min(page.Lines.Length, closes); index++)
                TakeLine(page.Lines[index], block, row, rows, carried);
            isOpen = isOpen || opens < int.MaxValue;
            if (closes < int.MaxValue)
                break;
        }
        return new BlockResult([.. rows], [], []);
    }

    private static void TakeLine(TextLine line, BlockRule block, Regex row, List<RowDraft> rows, Dictionary<string, Printed> carried)
    {
        if (block.LeaveOut.Any(pattern => pattern.IsMatch(line.Text)))
            return;
        if (row.Match(line.Text) is { Success: true } match && block.OnlyRows?.IsMatch(line.Text) != false)
        {
            rows.Add(RowOf(block, line, match, carried));
            return;
        }
        foreach (var carry in block.Carry)
        {
            if (carry.Pattern?.Match(line.Text) is { Success: true } found)
            {
                var group = found.Groups.Count > 1 ? found.Groups[1] : found;
                carried[carry.Column] = LineSpan.Of(line, group.Index, group.Length);
            }
        }
        if (rows.Count > 0 && block.RowsUnder.FirstOrDefault(rule => rule.Line.IsMatch(line.Text)) is { } under)
            rows[^1].Under.Add((under, line));
    }

    private static RowDraft RowOf(BlockRule block, TextLine line, Match match, Dictionary<string, Printed> carried)
    {
        var draft = new RowDraft(line.Page, line.Box.Bottom);
        foreach (var (name, text) in carried)
            draft.Add(name, text);
        foreach (var column in block.Columns)
        {
            if (match.Groups[column.Name] is { Success: true, Length: > 0 } group)
                draft.Add(column.Name, LineSpan.Of(line, group.Index, group.Length));
        }
        return draft;
    }
}
