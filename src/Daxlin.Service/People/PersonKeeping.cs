using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>Administrators add people, change their roles and groups, disable them, and give them one-time links.</summary>
/// <remarks>There is always one administrator left who can sign in: a change that would leave none is refused. The turn to write is held by who asks.</remarks>
internal sealed class PersonKeeping(DaxlinDb db, ILookupNormalizer names, OneTimeLinks links, LastAdministrator last, ServiceSettings settings, TimeProvider clock)
{
    private const int MostGroups = 50;
    private const int LongestGroup = 100;

    public async Task<(Person? Person, string Link, Refused? Refused)> Add(PersonToAdd wanted, Actor actor, CancellationToken cancel)
    {
        var name = PersonName.Tidied(wanted.Name ?? "");
        if (PersonName.FaultOf(name) is { } nameFault)
            return (null, "", Refused.Faulty("name-faulty", nameFault));
        var (said, refused) = Read(wanted.Roles ?? [], wanted.Groups ?? []);
        if (said is null)
            return (null, "", refused);
        var normalized = names.NormalizeName(name);
        if (await db.Users.AnyAsync(one => one.NormalizedUserName == normalized, cancel))
            return (null, "", Refused.Conflict("name-taken", $"There is a person “{name}” already. Two of one name could not be told apart in the history."));
        var person = Person.New(name, normalized, said.Roles, clock.GetUtcNow().UtcDateTime);
        person.GroupNames = said.Groups;
        db.Users.Add(person);
        await db.SaveChangesAsync(cancel);
        // The link names the person by its number, which the database gives.
        var link = links.Give(person);
        await Record(person, actor, HistoryActs.PersonAdded, "added", "", ToldOf(person), cancel);
        await db.SaveChangesAsync(cancel);
        return (person, link, null);
    }

    public async Task<Refused?> Change(Person person, PersonToKeep wanted, Actor actor, CancellationToken cancel)
    {
        // One whose groups give no role any more has none, and can be disabled all the same.
        var (said, refused) = Read(wanted.Roles ?? [], wanted.Groups ?? [], mayHaveNoRole: person is { IsByProvider: true, Roles.IsEmpty: true });
        if (said is null)
            return refused;
        if (person.IsByProvider && settings.Provider is { } provider && !said.Roles.ToHashSet().SetEquals(person.Roles))
            return Refused.Conflict("roles-by-provider", $"The roles of {person.Name} follow from the groups at {provider.Name}, anew at each sign-in. They are changed there.");
        var before = ToldOf(person);
        if (await last.WouldGo(person, said.Roles, wanted.IsDisabled, cancel))
            return Refused.Conflict("last-administrator", $"{person.Name} is the only administrator who can sign in. Make another first; else nobody could look after people any more.");
        person.Give(said.Roles);
        (person.GroupNames, person.IsDisabled) = (said.Groups, wanted.IsDisabled);
        if (ToldOf(person) == before)
            return null;
        person.Revision++;
        if (person.IsDisabled)
        {
            (person.LinkSha256, person.LinkUntil) = ("", null);
            await SigningIn.EndAll(db, person.Id, null, clock.GetUtcNow().UtcDateTime, cancel);
        }
        await Record(person, actor, HistoryActs.PersonChanged, "changed the rights of", before, ToldOf(person), cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Gives a link by which the person sets a new password; who has lost the second factor gets rid of it, too.</summary>
    public async Task<(string Link, Refused? Refused)> GiveLink(Person person, LinkToGive wanted, Actor actor, CancellationToken cancel)
    {
        if (person.IsDisabled)
            return ("", Refused.Conflict("person-disabled", $"{person.Name} is disabled, and could not sign in by a link either."));
        var link = links.Give(person);
        person.Revision++;
        if (wanted.DropsSecondFactor)
            person.TwoFactorEnabled = false;
        await Record(person, actor, HistoryActs.LinkGiven, wanted.DropsSecondFactor ? "dropped the second factor, and gave a one-time link to" : "gave a one-time link to", "", "", cancel);
        await db.SaveChangesAsync(cancel);
        return (link, null);
    }

    /// <summary>What a person may do, as the history says it.</summary>
    private static string ToldOf(Person person) =>
        $"{(person.IsDisabled ? "disabled, " : "")}{string.Join(", ", person.Roles.Select(Roles.Word))}{(person.Groups.IsEmpty ? "" : $"; only {string.Join(", ", person.Groups)}")}";

    private static (Said? Said, Refused? Refused) Read(ImmutableArray<string> roles, ImmutableArray<string> groups, bool mayHaveNoRole = false)
    {
        if (roles.IsDefault || (roles.IsEmpty && !mayHaveNoRole))
            return (null, Refused.Faulty("role-missing", "A person has a role at least: clerk, approver, administrator or auditor."));
        if (roles.FirstOrDefault(word => Roles.Find(word) is null) is { } unknown)
            return (null, Refused.Faulty("role-unknown", $"“{unknown}” is no role; there are clerk, approver, administrator and auditor."));
        var named = (groups.IsDefault ? [] : groups).Select(group => PersonName.Tidied(group ?? "")).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal).ToImmutableArray();
        if (named.Length > MostGroups || named.Any(group => group.Length is 0 or > LongestGroup))
            return (null, Refused.Faulty("groups-faulty", $"A person is held to {MostGroups} groups at most, each with a name of 1 to {LongestGroup} characters."));
        return (new Said([.. roles.Select(Roles.Find).OfType<Role>().Distinct()], JsonSerializer.Serialize(named)), null);
    }

    private Task Record(Person person, Actor actor, string act, string what, string before, string after, CancellationToken cancel) =>
        HistoryLog.Record(db, new Deed(HistoryStreams.Person(person.Id), clock.GetUtcNow().UtcDateTime, actor.Name, act, $"{what} {person.Name}") { Before = before, After = after }, cancel);

    private sealed record Said(ImmutableArray<Role> Roles, string Groups);
}
