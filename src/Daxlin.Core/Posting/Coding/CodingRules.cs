using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Which codes the lines of invoices get.</summary>
/// <param name="Needs">Codes that every line must have; one without is held.</param>
/// <param name="Rules">Each code of a line is said by the first rule that is of the line and says one.</param>
/// <param name="Journal">Null where no journal is written.</param>
public sealed record CodingRules(ImmutableArray<string> Needs, ImmutableArray<CodingRule> Rules, JournalAccounts? Journal)
{
    /// <summary>What is told of invoices and their lines beside the codes.</summary>
    public ImmutableArray<CodingFlag> Flags { get; init; } = [];

    public static CodingRules None { get; } = new([], [], null);

    /// <summary>The translation lists that it looks words up in, each once.</summary>
    public IEnumerable<string> Lists => Rules.SelectMany(rule => rule.Expressions).Concat(Flags.Select(flag => flag.When)).Concat(Journal?.Expressions ?? []).SelectMany(expression => expression.Lists).Distinct();
}
