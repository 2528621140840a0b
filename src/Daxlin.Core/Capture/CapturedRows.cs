using System.Collections.Immutable;
using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>The rows of all blocks so far, in the lists that they join.</summary>
internal sealed class CapturedRows
{
    public List<CapturedLine> Lines { get; } = [];
    public List<CapturedLine> Taxes { get; } = [];
    public List<CapturedLine> Others { get; } = [];

    public IEnumerable<CapturedLine> All => Lines.Concat(Taxes).Concat(Others);

    /// <summary>What the items come to so far.</summary>
    public decimal ItemSum => Lines.Sum(line => line.NumberIn(TradeNames.Amount) ?? 0);

    /// <summary>Reads a row and adds it to its block's list; what is in doubt comes back.</summary>
    public ImmutableArray<Finding> Add(BlockRule block, RowDraft draft, Habits habits)
    {
        var rows = block.HoldsItems ? Lines : block.IsTaxSummary ? Taxes : Others;
        var number = (block.HoldsItems || block.IsTaxSummary ? rows.Count : rows.Count(row => row.Block == block.Name)) + 1;
        var (line, findings) = RowReader.Read(block, number, draft, habits);
        rows.Add(line);
        return findings;
    }
}
