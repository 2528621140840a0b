using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>One row of a posting run: a line item with the header values of its invoice.</summary>
/// <param name="Cells">By column name; a column that the row has no value for is absent.</param>
public sealed record PostingRecord(ImmutableDictionary<string, string> Cells)
{
    /// <summary>The cell of a column, empty if there is none.</summary>
    public string this[string column] => Cells.GetValueOrDefault(column, "");
}
