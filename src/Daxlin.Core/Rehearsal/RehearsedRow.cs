using System.Collections.Immutable;

namespace Daxlin.Core.Rehearsal;

/// <summary>A row that was captured, as texts.</summary>
/// <param name="List">The list that it stands in: lines, taxes, or one of the template's own.</param>
/// <param name="Number">From 1 within its list.</param>
/// <param name="Cells">Values by column; those of lists under the row as <c>points[2].place</c>.</param>
public sealed record RehearsedRow(string List, int Number, ImmutableSortedDictionary<string, string> Cells)
{
    /// <summary>The row on one line, for a row that has no other to be compared with.</summary>
    public string Text => string.Join(" · ", Cells.Values);
}
