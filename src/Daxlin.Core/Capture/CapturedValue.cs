using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>One captured value with where it came from.</summary>
/// <param name="Name">The field's or column's name.</param>
/// <param name="Value">The settled form: "1204.50", "2026-03-14", or the text.</param>
/// <param name="Number">The same as a number, where it is one.</param>
public sealed record CapturedValue(string Name, ValueKind Kind, string Value, decimal? Number, Trace Trace);
