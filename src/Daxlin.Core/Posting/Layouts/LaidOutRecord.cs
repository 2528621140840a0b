using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>One record as a layout writes it.</summary>
/// <param name="Values">By column: a decimal, a text, a date, yes or no, or null for an empty cell.</param>
public sealed record LaidOutRecord(LayoutTable Table, ImmutableArray<object?> Values);
