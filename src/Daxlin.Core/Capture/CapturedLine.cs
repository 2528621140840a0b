using System.Collections.Immutable;

namespace Daxlin.Core.Capture;

/// <summary>One row of a line block.</summary>
/// <param name="Block">The block's name.</param>
/// <param name="Number">From 1 over all rows of the invoice's item blocks; tax rows and other lists count for themselves.</param>
public sealed record CapturedLine(string Block, int Number, ImmutableArray<CapturedValue> Cells)
{
    /// <summary>Lists that stand under the row: delivery points, serial numbers.</summary>
    public ImmutableArray<RowsUnder> Under { get; init; } = [];

    /// <summary>What is printed in columns that the template keeps out of the row, by column: a position, a storage bin.</summary>
    public ImmutableArray<KeyValuePair<string, string>> PassedOver { get; init; } = [];

    public CapturedValue? Find(string column)
    {
        foreach (var cell in Cells)
        {
            if (cell.Name == column)
                return cell;
        }
        return null;
    }

    /// <summary>The number in a column, or null if the row has none.</summary>
    public decimal? NumberIn(string column) => Find(column)?.Number;
}
