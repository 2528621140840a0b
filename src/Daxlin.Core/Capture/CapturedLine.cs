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

    /// <param name="column">Its name, or the path to a value in a list under the row: <c>deliveries[1].quantity</c>.</param>
    public CapturedValue? Find(string column)
    {
        foreach (var cell in Cells)
        {
            if (cell.Name == column)
                return cell;
        }
        return ValueNames.ParseUnder(column) is var (list, row, own) ? RowUnder(list, row)?.Find(own) : null;
    }

    /// <summary>A row of a list that stands under this one; null if there is none.</summary>
    public CapturedLine? RowUnder(string list, int row) => Under.FirstOrDefault(under => under.Name == list)?.Rows.FirstOrDefault(line => line.Number == row);

    /// <summary>The row with another value in the place of its own, or behind the others.</summary>
    /// <param name="column">As for <see cref="Find"/>; a row under it must be there.</param>
    /// <param name="value">Null takes the value away.</param>
    public CapturedLine With(string column, CapturedValue? value)
    {
        if (ValueNames.ParseUnder(column) is not var (list, row, own))
            return this with { Cells = Cells.With(column, value) };
        var under = Under.First(one => one.Name == list);
        var line = under.Rows.First(one => one.Number == row);
        return this with { Under = Under.Replace(under, under with { Rows = under.Rows.Replace(line, line.With(own, value is null ? null : value with { Name = own })) }) };
    }

    /// <summary>The number in a column, or null if the row has none.</summary>
    public decimal? NumberIn(string column) => Find(column)?.Number;
}
