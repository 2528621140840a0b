using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.People;
using Microsoft.AspNetCore.Identity;

namespace Daxlin.Service.Storage;

/// <summary>Someone who may sign in. Nobody is ever deleted: the history tells of what they did.</summary>
/// <remarks>The name to sign in with is the name in the history. One of whom no password is known yet has followed no link so far.</remarks>
public sealed class Person : IdentityUser<int>, IRevised
{
    /// <summary>The words of the roles, with commas between.</summary>
    public string RoleWords { get; set; } = "";

    /// <summary>The groups of batches and vendors that are the person's, a JSON list; of all, if it is empty.</summary>
    public string GroupNames { get; set; } = "[]";

    public bool IsDisabled { get; set; }

    /// <summary>Says that an identity provider vouches for the person, and that its groups give the roles.</summary>
    public bool IsByProvider { get; set; }

    public DateTime AddedAt { get; set; }

    /// <summary>The SHA-256 of the secret in the one-time link that the person was given last; empty if it was followed or there was none.</summary>
    public string LinkSha256 { get; set; } = "";

    /// <summary>When that link ends to work.</summary>
    public DateTime? LinkUntil { get; set; }

    /// <summary>The code of the second factor that was used last: none is taken twice.</summary>
    public string LastCode { get; set; } = "";

    /// <summary>Counts its changes from 1.</summary>
    public int Revision { get; set; } = 1;

    /// <summary>Someone new, with no way to sign in yet.</summary>
    /// <param name="normalized">The name as it is looked up.</param>
    public static Person New(string name, string? normalized, IEnumerable<Role> roles, DateTime addedAt) => new()
    {
        UserName = name,
        NormalizedUserName = normalized,
        RoleWords = WordsOf(roles),
        AddedAt = addedAt,
        LockoutEnabled = true,
        SecurityStamp = People.Secrets.New(),
    };

    public ImmutableArray<Role> Roles => [.. RoleWords.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(Core.People.Roles.Find).OfType<Role>()];

    /// <summary>Gives roles in the place of those that the person had.</summary>
    public void Give(IEnumerable<Role> roles) => RoleWords = WordsOf(roles);

    private static string WordsOf(IEnumerable<Role> roles) => string.Join(',', roles.Order().Select(Core.People.Roles.Word));

    public ImmutableSortedSet<Right> Rights => Core.People.Roles.RightsOf(Roles);

    /// <summary>Has set a password or comes by an identity provider, and is not disabled.</summary>
    public bool MaySignIn => !IsDisabled && (PasswordHash is not null || IsByProvider);

    public ImmutableArray<string> Groups => JsonSerializer.Deserialize<ImmutableArray<string>>(GroupNames);

    public string Name => UserName ?? "";
}
