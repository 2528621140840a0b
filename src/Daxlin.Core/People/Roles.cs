using System.Collections.Immutable;

namespace Daxlin.Core.People;

/// <summary>What each role may do, and how roles and rights are spoken of.</summary>
public static class Roles
{
    /// <summary>The rights of one who has some roles: all that any of them has.</summary>
    public static ImmutableSortedSet<Right> RightsOf(IEnumerable<Role> roles) => [.. roles.SelectMany(RightsOf)];

    /// <summary>The roles that have a right, each by itself.</summary>
    public static ImmutableArray<Role> With(Right right) => [.. Enum.GetValues<Role>().Where(role => RightsOf(role).Contains(right))];

    /// <summary>Who can use a right, as a refusal says it: "approvers", "clerks and approvers".</summary>
    public static string WhoCan(Right right) => string.Join(" and ", With(right).Select(role => $"{Word(role)}s"));

    /// <summary>What a right is for, behind "may not": "approve invoices".</summary>
    public static string Does(Right right) => right switch
    {
        Right.See => "look at anything here",
        Right.Work => "take in, correct or prepare anything",
        Right.Approve => "approve",
        Right.Post => "post",
        _ => "look after people and settings",
    };

    /// <summary>The word for a role in the interface and in sentences.</summary>
    public static string Word(Role role) => role switch
    {
        Role.Clerk => "clerk",
        Role.Approver => "approver",
        Role.Administrator => "administrator",
        _ => "auditor",
    };

    /// <summary>The word for a right in the interface.</summary>
    public static string Word(Right right) => right switch
    {
        Right.See => "see",
        Right.Work => "work",
        Right.Approve => "approve",
        Right.Post => "post",
        _ => "administer",
    };

    /// <summary>Null for a word that names no role.</summary>
    public static Role? Find(string word) => Enum.GetValues<Role>().Where(role => Word(role) == word).Cast<Role?>().FirstOrDefault();

    /// <summary>Null for a word that names no right.</summary>
    public static Right? FindRight(string word) => Enum.GetValues<Right>().Where(right => Word(right) == word).Cast<Right?>().FirstOrDefault();

    private static Right[] RightsOf(Role role) => role switch
    {
        Role.Clerk => [Right.See, Right.Work, Right.Post],
        Role.Approver => [Right.See, Right.Work, Right.Approve, Right.Post],
        Role.Administrator => [Right.See, Right.Administer],
        _ => [Right.See],
    };
}
