using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What lines of a kind are coded as.</summary>
/// <param name="Of">What the lines are, in words, to be shown beside the codes: "rope and chandlery".</param>
/// <param name="When">Which lines it is of; null for all.</param>
/// <param name="Codes">By the code's name. One that comes to nothing leaves it to the next rule.</param>
/// <param name="Shares">Among which a line's amount is parted; empty for none.</param>
public sealed record CodingRule(string Of, Expression? When, ImmutableSortedDictionary<string, Expression> Codes, ImmutableArray<CodingShare> Shares)
{
    internal IEnumerable<Expression> Expressions => Codes.Values.Concat(Shares.SelectMany(share => share.Codes.Values)).Concat(When is null ? [] : [When]);
}
