using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>A list that stands under each row of a block: delivery points with quantities, serial numbers, periods.</summary>
/// <param name="Name">The list's name.</param>
/// <param name="Line">A line that belongs to the list matches this.</param>
/// <param name="Each">Each match within such a line is one row; its named groups are the columns.</param>
/// <param name="Columns">The columns' kinds and tidy steps.</param>
/// <param name="Required">Says that a row without any of them is a finding.</param>
/// <param name="AddUp">Columns whose numbers add up to the row's own number of the same name: quantities delivered.</param>
/// <param name="Flat">What becomes of the list where a file has one row a line.</param>
public sealed record RowsUnderRule(string Name, Regex Line, Regex Each, ImmutableArray<ColumnRule> Columns, bool Required, ImmutableArray<string> AddUp, FlatForm Flat);

/// <summary>What becomes of rows under a row in a file that has one row a line.</summary>
public enum FlatForm
{
    /// <summary>They become one cell of the row, named after the list: "SN-4, SN-9".</summary>
    Joined,

    /// <summary>The row is repeated, once for each of them.</summary>
    Repeated,
}
