using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Coding;

/// <summary>One share of a line.</summary>
/// <param name="Part">So many parts of all parts of the line: of 60 and 40 the first is three fifths, and so it is of 3 and 2.</param>
/// <param name="Codes">By the code's name; others are those of the line.</param>
public sealed record CodingShare(decimal Part, ImmutableSortedDictionary<string, Expression> Codes);
