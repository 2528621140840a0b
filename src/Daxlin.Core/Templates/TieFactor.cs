namespace Daxlin.Core.Templates;

/// <summary>A number in a template's own equation: a constant, a field, a column of a row, or the sum of a column.</summary>
/// <param name="Number">The constant; null for what is captured.</param>
/// <param name="List">The list of a column: <c>lines</c>, <c>taxes</c> or a block's own; empty for a field.</param>
/// <param name="Name">The field's or the column's name.</param>
/// <param name="IsSum">Says that the column is added up over all rows.</param>
public sealed record TieFactor(decimal? Number, string List, string Name, bool IsSum)
{
    /// <summary>Says that it is the value of one row.</summary>
    public bool IsOfRow => List.Length > 0 && !IsSum;
}
