using Daxlin.Core.Capture;

namespace Daxlin.Core.Rehearsal;

/// <summary>A value that another template captures otherwise.</summary>
/// <param name="Name">Which: <c>total</c>, <c>lines[3].amount</c>; for a whole row <c>lines[3]</c>. Rows have the numbers they had before; new ones their own.</param>
/// <param name="Before">Empty for a value or a row that was not there.</param>
/// <param name="After">Empty for one that is there no more.</param>
public sealed record ValueChange(string Name, string Before, string After)
{
    /// <summary>The column that it is of, whichever the row: <c>lines[].amount</c>. One column lost on three hundred rows is one change to a person.</summary>
    public string Column => ValueNames.ColumnOfValue(Name);
}
