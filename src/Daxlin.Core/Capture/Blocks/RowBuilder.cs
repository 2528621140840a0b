using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Makes the rows of a block of its lines, once it is decided what each line is.</summary>
/// <remarks>
/// Every word becomes part of a row, is carried, is furniture, is a sum of the rows above, is left out by the template,
/// stands under a heading that the template does not speak of, or is said to be unaccounted for. None is dropped in
/// silence, since a dropped one may be an amount.
/// </remarks>
internal sealed class RowBuilder(BlockRule block)
{
    private readonly List<RowDraft> rows = [];
    private readonly List<CapturedSum> sums = [];
    private readonly List<BlockLine> waiting = [];
    private readonly CarriedText carried = new(block);
    private readonly LineAccount account = new(block);
    private BlockSegment? segment;
    private bool isLeftOut;

    /// <param name="lines">All with their roles; none open.</param>
    public static BlockResult Build(BlockRule block, ImmutableArray<BlockLine> lines, ImmutableArray<PartingDoubt> doubts)
    {
        var builder = new RowBuilder(block);
        foreach (var line in lines)
            builder.Take(line);
        foreach (var line in builder.carried.Unused)
            builder.account.AddUnaccounted(line, builder.rows.Count);
        foreach (var doubt in doubts)
            builder.account.AddDoubt(lines[doubt.Line].Line, doubt);
        return new BlockResult(
            [.. builder.rows], builder.account.LeftOut, [.. builder.sums], [.. builder.account.Findings(builder.rows.Count)]);
    }

    private void Take(BlockLine line)
    {
        if (segment != line.Segment)
        {
            segment = line.Segment;
            carried.TakePageHead(segment.Page, segment.Start);
        }
        switch (line.Role)
        {
            case LineRole.Row or LineRole.RowLeftOut:
                Begin(line);
                break;
            case LineRole.TextOfBelow:
                waiting.Add(line);
                break;
            case LineRole.TextOfAbove or LineRole.More or LineRole.Under when isLeftOut:
                account.AddLeftOut(line.Line, LineAccount.ByTemplate);
                break;
            case LineRole.TextOfAbove:
                rows[^1].Fold(line);
                break;
            case LineRole.More:
                Add(line);
                break;
            case LineRole.Under:
                rows[^1].Under.Add((line.Under!, line.Line));
                break;
            case LineRole.Carried when carried.Take(line.Heading!, line.Line) is { } lost:
                account.AddUnaccounted(lost, rows.Count);
                break;
            case LineRole.Furniture:
                account.AddLeftOut(line.Line, LineAccount.Furniture);
                break;
            case LineRole.LeftOut:
                account.AddLeftOut(line.Line, LineAccount.ByTemplate);
                break;
            case LineRole.Sum:
                account.AddLeftOut(line.Line, LineAccount.SumOfRows);
                if (line.Sum is { } sum)
                    sums.Add(new CapturedSum(block.Name, line.Line.Text, new PlaceOnPage(line.Page, line.Line.Box), sum.Stated, sum.Counted));
                break;
            case LineRole.Unaccounted:
                account.AddUnaccounted(line.Line, rows.Count);
                break;
        }
    }

    private void Begin(BlockLine line)
    {
        isLeftOut = line.Role == LineRole.RowLeftOut;
        if (isLeftOut)
        {
            foreach (var text in waiting)
                account.AddLeftOut(text.Line, LineAccount.ByTemplate);
            account.AddLeftOut(line.Line, LineAccount.ByTemplate);
        }
        else
        {
            var row = new RowDraft();
            rows.Add(row);
            carried.PutOnto(row);
            foreach (var text in waiting)
                row.Fold(text);
            Add(line);
        }
        waiting.Clear();
    }

    private void Add(BlockLine line)
    {
        rows[^1].Add(line, block.RowsUnder);
        var strange = new List<Word>();
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cutter.RuleOf(column) is null)
                strange.AddRange(line.Cut[column]);
        }
        if (strange.Count > 0)
            account.AddLeftOut(new TextLine(line.Page, [.. strange]), LineAccount.Stranger);
    }
}
