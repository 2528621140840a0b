using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Captures a block whose rows are lines of a pattern: "VAT @ 20% on 1,204.50  240.90".</summary>
internal static class PatternBlockCapture
{
    public static BlockResult Capture(BlockRule block, InvoicePages pages)
    {
        var rows = ImmutableArray.CreateBuilder<IReadOnlyDictionary<string, Printed>>();
        var isOpen = block.Opens is null;
        foreach (var page in pages.Pages)
        {
            var opens = isOpen ? -1 : block.Opens!.PlacesOn(page).Select(place => place.Line).DefaultIfEmpty(int.MaxValue).Min();
            var closes = block.Closes.SelectMany(cue => cue.PlacesOn(page)).Select(place => place.Line)
                .Where(line => line > opens).DefaultIfEmpty(int.MaxValue).Min();
            for (var index = opens == int.MaxValue ? page.Lines.Length : opens + 1; index < Math.Min(page.Lines.Length, closes); index++)
            {
                var line = page.Lines[index];
                if (!block.LeaveOut.Any(pattern => pattern.IsMatch(line.Text)) && block.Row!.Match(line.Text) is { Success: true } match)
                    rows.Add(RowOf(block, line, match));
            }
            isOpen = isOpen || opens < int.MaxValue;
            if (closes < int.MaxValue)
                break;
        }
        return new BlockResult(rows.ToImmutable(), [], []);
    }

    private static Dictionary<string, Printed> RowOf(BlockRule block, TextLine line, Match match)
    {
        var cells = new Dictionary<string, Printed>();
        foreach (var column in block.Columns)
        {
            if (match.Groups[column.Name] is { Success: true, Length: > 0 } group)
                cells[column.Name] = LineSpan.Of(line, group.Index, group.Length);
        }
        return cells;
    }
}
