using System.Collections.Immutable;

namespace Daxlin.Core.People;

/// <summary>Which roles the groups give that an identity provider says someone is in.</summary>
/// <example>With "AP clerks" → clerk and "AP approvers" → approver, someone in both and in "Choir" is clerk and approver.</example>
public sealed record RolesByGroup
{
    private readonly ImmutableSortedDictionary<string, ImmutableArray<string>> words;

    /// <param name="words">The words of the roles that each group gives. Groups are told apart by their capitals, too.</param>
    public RolesByGroup(ImmutableSortedDictionary<string, ImmutableArray<string>> words) => this.words = words;

    /// <summary>The groups that give a role, by the alphabet.</summary>
    public IEnumerable<string> Groups => words.Keys;

    /// <summary>Null where each group gives a role that there is.</summary>
    public string? Fault()
    {
        if (words.IsEmpty)
            return "no group gives a role, so nobody could sign in.";
        foreach (var (group, given) in words)
        {
            if (given.IsDefaultOrEmpty || given.Any(word => Roles.Find(word) is null))
                return $"the group “{group}” gives “{string.Join(", ", given.IsDefault ? [] : given)}”; there are the roles clerk, approver, administrator and auditor.";
        }
        return null;
    }

    /// <summary>The roles that groups give together, each once and in their order; none where none of them gives any.</summary>
    public ImmutableArray<Role> Of(IEnumerable<string> groups)
    {
        var given = groups.SelectMany(group => words.GetValueOrDefault(group, [])).Select(Roles.Find).ToHashSet();
        return [.. Enum.GetValues<Role>().Where(role => given.Contains(role))];
    }
}
