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
        var open = block.Opens is null;
        foreach (var line in pages.Lines)
        {
            if (!open)
            {
                open = block.Opens!.IsOn(line);
                continue;
            }
            if (block.Closes.Any(cue => cue.IsOn(line)))
                break;
            if (block.LeaveOut.Any(pattern => pattern.IsMatch(line.Text)))
                continue;
            if (block.Row!.Match(line.Text) is { Success: true } match)
                rows.Add(RowOf(block, line, match));
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
