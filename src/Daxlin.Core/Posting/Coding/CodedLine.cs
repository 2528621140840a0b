using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>A line with its codes.</summary>
/// <param name="Line">Its number on the invoice, from 1; 0 is the invoice as a whole, where it has no lines.</param>
/// <param name="Parts">One, or several that come to the line's amount.</param>
public sealed record CodedLine(int Line, ImmutableArray<CodedPart> Parts);

/// <summary>A line's amount, or a share of it, and its codes.</summary>
/// <param name="Part">So many of all parts of the line; 1 where it is not shared.</param>
/// <param name="Codes">By name; one that nothing says is absent.</param>
public sealed record CodedPart(decimal Amount, decimal Part, ImmutableSortedDictionary<string, Code> Codes)
{
    /// <summary>The code of a name, empty for none.</summary>
    public string this[string name] => Codes.TryGetValue(name, out var code) ? code.Value : "";
}

/// <param name="From">Who says it: "by hand", or which rule.</param>
public readonly record struct Code(string Value, string From)
{
    /// <summary>The number of the rule that says it, from 1; 0 for none.</summary>
    public int Rule { get; init; }
}
