using System.Security.Claims;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People.Provider;

/// <summary>Someone whom an identity provider vouches for signs in, and becomes a person here at the first time.</summary>
/// <remarks>
/// Known again by the issuer and the subject, which never change (OpenID Connect Core 1.0, 5.7), not by the name. The roles are those that the
/// provider's groups give, anew at each sign-in; groups of batches and whether someone is disabled are said here.
/// </remarks>
internal sealed class ComingByProvider(DaxlinDb db, ILookupNormalizer names, SigningIn signingIn, ServiceSettings settings, WriteTurn turn, TimeProvider clock)
{
    /// <returns>Null if the person is signed in, else why not.</returns>
    public async Task<string?> Do(ClaimsPrincipal vouched, HttpContext context, CancellationToken cancel)
    {
        var provider = settings.Provider!;
        using var _ = await turn.Take(cancel);
        var (person, refused) = await Whom(provider, vouched, cancel);
        if (refused is not null)
        {
            await HistoryLog.Record(
                db,
                new Deed(person is null ? HistoryStreams.SignIns : HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.SignInRefused, $"refused a sign-in by {provider.Name} from {SigningIn.AddressOf(context)}: {refused}"),
                cancel);
            await db.SaveChangesAsync(cancel);
            return refused;
        }
        await signingIn.Begin(person!, context, $"signed in by {provider.Name}", cancel);
        return null;
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    private async Task<(Person? Person, string? Refused)> Whom(IdentityProvider provider, ClaimsPrincipal vouched, CancellationToken cancel)
    {
        var (issuer, subject) = (vouched.FindFirstValue("iss") ?? "", vouched.FindFirstValue("sub") ?? "");
        var name = PersonName.Tidied(vouched.FindFirstValue(provider.NameClaim) ?? "");
        if (issuer.Length == 0 || subject.Length == 0)
            return (null, $"{provider.Name} does not say who you are.");
        var person = await db.UserLogins.Where(login => login.LoginProvider == issuer && login.ProviderKey == subject)
            .Join(db.Users, login => login.UserId, one => one.Id, (_, one) => one).SingleOrDefaultAsync(cancel);
        if (person is { IsDisabled: true })
            return (person, $"{person.Name} may not use Daxlin any more. An administrator can change that.");
        var roles = provider.RolesOf(vouched.FindAll(provider.GroupsClaim).Select(claim => claim.Value));
        if (roles.IsEmpty)
            return (person, $"none of the groups of {(name.Length == 0 ? "this name" : name)} at {provider.Name} gives a role in Daxlin; those that do are {string.Join(", ", provider.Roles.Keys)}.");
        if (person is null)
        {
            if (PersonName.FaultOf(name) is { } fault)
                return (null, $"the name that {provider.Name} gives (its claim “{provider.NameClaim}”) cannot be used: {fault}");
            var normalized = names.NormalizeName(name);
            person = await db.Users.SingleOrDefaultAsync(one => one.NormalizedUserName == normalized, cancel);
            if (person is not null && (!provider.TiesNames || await db.UserLogins.AnyAsync(login => login.UserId == person.Id, cancel)))
                return (null, $"there is a person “{person.Name}” in Daxlin already, and whether it is you is not known.");
            if (person is { IsDisabled: true })
                return (person, $"{person.Name} may not use Daxlin any more. An administrator can change that.");
            person ??= await Add(name, normalized, roles, provider, cancel);
            db.UserLogins.Add(new IdentityUserLogin<int> { LoginProvider = issuer, ProviderKey = subject, ProviderDisplayName = provider.Name, UserId = person.Id });
            person.IsByProvider = true;
        }
        var (before, after) = (person.RoleWords, Words(roles));
        if (before != after)
        {
            person.RoleWords = after;
            person.Revision++;
            await HistoryLog.Record(
                db,
                new Deed(HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.PersonChanged, $"changed the rights of {person.Name} by the groups at {provider.Name}") { Before = before, After = after },
                cancel);
        }
        await db.SaveChangesAsync(cancel);
        return (person, null);
    }

    private async Task<Person> Add(string name, string normalized, IEnumerable<Role> roles, IdentityProvider provider, CancellationToken cancel)
    {
        var person = Person.New(name, normalized, Words(roles), Now);
        db.Users.Add(person);
        // The history and the login name the person by its number, which the database gives.
        await db.SaveChangesAsync(cancel);
        await HistoryLog.Record(
            db, new Deed(HistoryStreams.Person(person.Id), Now, Deed.Daxlin, HistoryActs.PersonAdded, $"added {name}, whom {provider.Name} vouches for") { After = person.RoleWords }, cancel);
        return person;
    }

    private static string Words(IEnumerable<Role> roles) => string.Join(',', roles.Select(Roles.Word));
}
