using Daxlin.Core.Values;

namespace Daxlin.Core.Electronic;

/// <summary>One value that an electronic invoice states.</summary>
/// <param name="Name">The settled name of the field or column that it is.</param>
/// <param name="Value">The settled form: "1204.50", "2026-03-14", or the text.</param>
/// <param name="Number">The same as a number, where it is one.</param>
/// <param name="Path">Where it stands below the root: LegalMonetaryTotal/PayableAmount.</param>
/// <param name="Element">Which element says it, from 0; -1 where it was worked out of several.</param>
public sealed record StatedValue(string Name, ValueKind Kind, string Value, decimal? Number, string Path, int Element);
