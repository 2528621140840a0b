using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What a person says of a line's codes, in the place of what rules say.</summary>
/// <param name="Shares">One for the whole line, or several among which its amount is parted.</param>
public sealed record SaidCoding(ImmutableArray<SaidShare> Shares);

/// <param name="Part">So many of all parts; above 0.</param>
/// <param name="Codes">By name; one that is absent is left to the rules.</param>
public sealed record SaidShare(decimal Part, ImmutableSortedDictionary<string, string> Codes);
