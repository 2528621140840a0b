using System.Collections.Immutable;

namespace Daxlin.Service.People;

/// <summary>Who one is to the service.</summary>
/// <param name="IsSignedIn">False for a browser that nobody signed in with.</param>
/// <param name="HasSignIn">False at a desk without sign-in, where everyone may do everything and only says a name.</param>
/// <param name="Rights">see, work, approve, post, administer.</param>
/// <param name="Groups">The groups of batches and vendors that one is held to; of all, if it is empty.</param>
/// <param name="Key">The name of the access key that was shown; empty for a person.</param>
/// <param name="HasPassword">False for one who comes by an identity provider alone, whose matter a second factor is as well.</param>
/// <param name="Provider">The identity provider by which one can sign in as well; empty if there is none.</param>
/// <param name="StandsInFor">For whom one approves at the moment, who is away; empty for nobody.</param>
/// <param name="FormToken">What changes anything sends it in the header Daxlin-Form; empty where no cookie is used.</param>
public sealed record SessionRecord(
    bool IsSignedIn, bool HasSignIn, string Name, ImmutableArray<string> Roles, ImmutableArray<string> Rights, ImmutableArray<string> Groups, string Key, bool HasPassword, bool HasSecondFactor, string FormToken, string StandsInFor, string Provider);

/// <param name="Code">The authenticator's, where a second factor is set up.</param>
public sealed record SignInToDo(string? Name, string? Password, string? Code);

/// <param name="Link">What stands behind the “#” of a one-time link.</param>
/// <param name="Name">Only for the first administrator, who has none yet.</param>
public sealed record WelcomeToFollow(string? Link, string? Password, string? Name);

/// <param name="Link">What stands behind the “#” of a one-time link.</param>
public sealed record WelcomeToLookAt(string? Link);

/// <summary>Whom a one-time link is for.</summary>
/// <param name="ChoosesName">Says that the name is still to be said.</param>
public sealed record WelcomeRecord(string Name, bool ChoosesName);

/// <param name="Name">By which it can be ended.</param>
/// <param name="Until">When it ends at the latest.</param>
/// <param name="From">The address that it came from; empty if that is not known.</param>
/// <param name="IsThis">Says that the request was made with it.</param>
public sealed record SignInRecord(string Name, DateTime BegunAt, DateTime Until, string From, bool IsThis);

public sealed record PasswordToChange(string? Old, string? New);

/// <summary>What an authenticator is set up with; nothing holds until a code of it was shown.</summary>
/// <param name="Secret">In base 32 (RFC 4648), to be typed.</param>
/// <param name="Uri">The same with the name, to be opened or shown as a picture.</param>
public sealed record SecondFactorRecord(string Secret, string Uri);

public sealed record SecondFactorToConfirm(string? Code);

public sealed record SecondFactorToDrop(string? Password);

/// <param name="Roles">clerk, approver, administrator, auditor; one at least.</param>
/// <param name="Groups">The groups of batches and vendors that the person is held to; left out or empty for all.</param>
public sealed record PersonToAdd(string? Name, ImmutableArray<string>? Roles, ImmutableArray<string>? Groups);

public sealed record PersonToKeep(ImmutableArray<string>? Roles, ImmutableArray<string>? Groups, bool IsDisabled);

/// <param name="DropsSecondFactor">For one who has lost the authenticator.</param>
public sealed record LinkToGive(bool DropsSecondFactor);

/// <param name="Link">The address within the console; shown now and never again.</param>
public sealed record LinkRecord(string Link);

/// <param name="Rights">What the roles give.</param>
/// <param name="HasPassword">False until the one-time link was followed.</param>
/// <param name="IsByProvider">Says that an identity provider vouches for the person, and that its groups give the roles.</param>
/// <param name="SignedInAt">When the person signed in last; null for never.</param>
public sealed record PersonRecord(
    int Id, string Name, ImmutableArray<string> Roles, ImmutableArray<string> Rights, ImmutableArray<string> Groups, bool IsDisabled, bool HasPassword, bool IsByProvider, bool HasSecondFactor, bool IsLocked, DateTime AddedAt,
    DateTime? SignedInAt, int Revision);

/// <param name="Link">By which the person sets a password; shown now and never again.</param>
public sealed record AddedPerson(PersonRecord Person, string Link);

/// <param name="Name">What it is for.</param>
/// <param name="Rights">Left out for all that one has oneself; to see comes with any.</param>
/// <param name="Days">How long it lasts: 90 if left out, at most 366.</param>
public sealed record KeyToMake(string? Name, ImmutableArray<string>? Rights, int? Days);

/// <param name="Owner">The name of the person whose key it is.</param>
/// <param name="Beginning">Its first letters, by which one knows it again.</param>
/// <param name="LastUsedAt">To the hour; null for never.</param>
public sealed record KeyRecord(
    int Id, string Owner, string Name, string Beginning, ImmutableArray<string> Rights, DateTime MadeAt, DateTime ExpiresAt, DateTime? LastUsedAt, string LastUsedFrom, DateTime? RevokedAt, int Revision);

/// <param name="Key">The key itself; shown now and never again.</param>
public sealed record MadeKey(KeyRecord Record, string Key);

/// <param name="Absent">Who is away: an approver; oneself if it is left out.</param>
/// <param name="StandIn">Who approves meanwhile.</param>
/// <param name="Until">The last day.</param>
public sealed record StandInToName(string? StandIn, DateOnly? Until, string? Absent = null);

/// <param name="Until">The last day.</param>
/// <param name="Holds">False once the time is over, or it was ended.</param>
public sealed record StandInRecord(int Id, string Absent, string StandIn, DateTime From, DateOnly Until, bool Holds, int Revision);

/// <summary>Nothing needs to be said.</summary>
public sealed record NothingSaid;
