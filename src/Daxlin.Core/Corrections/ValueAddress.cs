namespace Daxlin.Core.Corrections;

/// <summary>Which value a correction is about.</summary>
/// <param name="Row">Null for a value of the header.</param>
/// <param name="Name">The field's or the column's name.</param>
public sealed record ValueAddress(RowAddress? Row, string Name);
