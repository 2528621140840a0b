using System.Collections.Immutable;
using System.Security.Claims;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People.Provider;

/// <summary>Someone whom an identity provider vouches for signs in, and becomes a person here at the first time.</summary>
/// <remarks>
/// Known again by the issuer and the subject, which never change (OpenID Connect Core 1.0, 5.7), not by the name. The roles are those that the
/// provider's groups give, anew at each sign-in; groups of batches and whether someone is disabled are said here.
/// </remarks>
internal sealed class ComingByProvider(DaxlinDb db, ILookupNormalizer names, SigningIn signingIn, LastAdministrator last, ServiceSettings settings, WriteTurn turn, TimeProvider clock)
{
    /// <returns>Null if the person is signed in, else why not.</returns>
    public async Task<string?> Do(ClaimsPrincipal vouched, HttpContext context, CancellationToken cancel)
    {
        var provider = settings.Provider!;
        var (issuer, subject) = (vouched.FindFirstValue("iss")!, vouched.FindFirstValue("sub")!);
        var name = PersonName.Tidied(vouched.FindFirstValue(provider.NameClaim) ?? "");
        var roles = provider.ByGroup.Of(vouched.FindAll(provider.GroupsClaim).Select(claim => claim.Value));
        await using var change = await turn.Take(db, cancel);
        var known = await db.UserLogins.Where(login => login.LoginProvider == issuer && login.ProviderKey == subject)
            .Join(db.Users, login => login.UserId, one => one.Id, (_, one) => one).SingleOrDefaultAsync(cancel);
        var (person, refused) = known is not null ? (known, null) : await Meet(provider, issuer, subject, name, roles, cancel);
        refused ??= await RefusalOf(provider, person!, roles, cancel);
        if (refused is not null)
        {
            await HistoryLog.Record(
                db,
                new Deed(person is null ? HistoryStreams.SignIns : HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.SignInRefused, $"refused a sign-in by {provider.Name} from {SigningIn.AddressOf(context)}: {refused}"),
                cancel);
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
            return refused;
        }
        await signingIn.Begin(person!, context, $"signed in by {provider.Name}", cancel);
        await change.Commit(cancel);
        return null;
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>Ties someone who comes for the first time to a person: a new one, or the one of that name where the provider's file says so.</summary>
    private async Task<(Person? Person, string? Refused)> Meet(
        IdentityProvider provider, string issuer, string subject, string name, ImmutableArray<Role> roles, CancellationToken cancel)
    {
        if (roles.IsEmpty)
            return (null, NoRole(provider, name.Length == 0 ? "this name" : name));
        if (PersonName.FaultOf(name) is { } fault)
            return (null, $"the name that {provider.Name} gives (its claim “{provider.NameClaim}”) cannot be used: {fault}");
        var normalized = names.NormalizeName(name);
        var person = await db.Users.SingleOrDefaultAsync(one => one.NormalizedUserName == normalized, cancel);
        if (person is not null && (!provider.TiesNames || person.IsByProvider))
            return (null, $"there is a person “{person.Name}” in Daxlin already, and whether it is you is not known.");
        if (person is null)
        {
            person = Person.New(name, normalized, roles, Now);
            db.Users.Add(person);
            // The history and the login name the person by its number, which the database gives.
            await db.SaveChangesAsync(cancel);
            await HistoryLog.Record(
                db, new Deed(HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.PersonAdded, $"added {name}, whom {provider.Name} vouches for") { After = Told(person) }, cancel);
        }
        db.UserLogins.Add(new IdentityUserLogin<int> { LoginProvider = issuer, ProviderKey = subject, ProviderDisplayName = provider.Name, UserId = person.Id });
        person.IsByProvider = true;
        await db.SaveChangesAsync(cancel);
        return (person, null);
    }

    /// <summary>Gives a person the roles that the provider's groups give now, and says why it does not get in all the same.</summary>
    private async Task<string?> RefusalOf(IdentityProvider provider, Person person, ImmutableArray<Role> roles, CancellationToken cancel)
    {
        if (person.IsDisabled)
            return $"{person.Name} may not use Daxlin any more. An administrator can change that.";
        if (await last.WouldGo(person, roles, isDisabled: false, cancel))
            return $"the groups at {provider.Name} would take the administrator's role from {person.Name}, the only administrator who can sign in. Another has to become one first.";
        var before = Told(person);
        person.Give(roles);
        if (before != Told(person))
        {
            person.Revision++;
            await HistoryLog.Record(
                db,
                new Deed(HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.PersonChanged, $"changed the rights of {person.Name} by the groups at {provider.Name}") { Before = before, After = Told(person) },
                cancel);
        }
        if (!roles.IsEmpty)
            return null;
        // Keys have no rights any more, since their owner has none; other browsers are out, too.
        await SigningIn.EndAll(db, person.Id, null, Now, cancel);
        return NoRole(provider, person.Name);
    }

    private static string NoRole(IdentityProvider provider, string name) =>
        $"none of the groups of {name} at {provider.Name} gives a role in Daxlin; those that do are {string.Join(", ", provider.ByGroup.Groups)}.";

    private static string Told(Person person) => string.Join(", ", person.Roles.Select(Roles.Word));
}
