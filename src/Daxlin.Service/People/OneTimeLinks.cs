using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>Links by which a person who has no password yet, or has lost it, sets one: each works once, and for a day.</summary>
/// <remarks>The secret stands behind the link's “#”, which no browser sends to a server, so that no log has it.</remarks>
internal sealed class OneTimeLinks(DaxlinDb db, IPasswordHasher<Person> hasher, ILookupNormalizer names, SigningIn signingIn, WriteTurn turn, TimeProvider clock)
{
    private static readonly TimeSpan Lasts = TimeSpan.FromDays(1);

    /// <summary>The name of the first administrator until the link is followed, which asks for the true one.</summary>
    private const string FirstName = "First administrator";

    internal static readonly Refused Spent = new(
        StatusCodes.Status401Unauthorized, "link-spent", "The link was used already, or is older than a day, or a newer one was made. An administrator can make another.");

    /// <summary>Gives a person a new link, in the place of any older one. Stored with what else of the context is.</summary>
    /// <returns>The address within the console.</returns>
    public string Give(Person person)
    {
        var secret = Secrets.New();
        person.LinkSha256 = Secrets.HashOf(secret);
        person.LinkUntil = clock.GetUtcNow().UtcDateTime + Lasts;
        return $"/welcome#{person.Id}-{secret}";
    }

    /// <summary>As long as nobody has followed a link, each start gives the first administrator one.</summary>
    /// <returns>The address within the console; null if there are people already.</returns>
    public async Task<string?> ForFirst(CancellationToken cancel)
    {
        if (await db.Users.AnyAsync(one => one.PasswordHash != null, cancel))
            return null;
        var now = clock.GetUtcNow().UtcDateTime;
        var person = await db.Users.OrderBy(one => one.Id).FirstOrDefaultAsync(cancel);
        if (person is null)
        {
            person = Person.New(FirstName, names.NormalizeName(FirstName), [Role.Administrator, Role.Approver], now);
            db.Users.Add(person);
            await db.SaveChangesAsync(cancel);
            await HistoryLog.Record(db, new Deed(HistoryStreams.Person(person.Id), now, Deed.Daxlin, HistoryActs.PersonAdded, "made the first administrator, who approves, too") { After = person.RoleWords }, cancel);
        }
        var link = Give(person);
        await db.SaveChangesAsync(cancel);
        return link;
    }

    /// <summary>Follows a link: the person's password is set, all sign-ins end, and a new one begins.</summary>
    public async Task<(Person? Person, Refused? Refused)> Follow(WelcomeToFollow said, HttpContext context, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var now = clock.GetUtcNow().UtcDateTime;
        var person = await Led(said.Link, now).SingleOrDefaultAsync(cancel);
        if (person is null)
            return (null, Spent);
        var name = ChoosesName(person) ? PersonName.Tidied(said.Name ?? "") : person.Name;
        if (PersonName.FaultOf(name) is { } nameFault)
            return (null, Refused.Faulty("name-faulty", nameFault));
        if (PasswordRules.FaultOf(said.Password ?? "", name) is { } fault)
            return (null, Refused.Faulty("password-faulty", fault));
        var before = person.PasswordHash is null ? "" : "had a password";
        person.UserName = name;
        person.NormalizedUserName = names.NormalizeName(name);
        person.PasswordHash = hasher.HashPassword(person, said.Password!);
        (person.LinkSha256, person.LinkUntil, person.LockoutEnd, person.AccessFailedCount) = ("", null, null, 0);
        person.Revision++;
        await SigningIn.EndAll(db, person.Id, null, now, cancel);
        await HistoryLog.Record(db, new Deed(HistoryStreams.Person(person.Id), now, name, HistoryActs.PasswordSet, "set a password by a one-time link") { Before = before }, cancel);
        await signingIn.Begin(person, context, "signed in", cancel);
        await change.Commit(cancel);
        return (person, null);
    }

    /// <summary>Whom a link is for, so that the page that it leads to can say so; null for a link that does not work any more.</summary>
    public Task<Person?> Whose(string link, CancellationToken cancel) => Led(link, clock.GetUtcNow().UtcDateTime).AsNoTracking().SingleOrDefaultAsync(cancel);

    /// <summary>Whom a link leads in, if it works still.</summary>
    private IQueryable<Person> Led(string? link, DateTime now)
    {
        var parts = (link ?? "").Split('-', 2);
        var id = parts.Length == 2 && int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 0;
        var hash = Secrets.HashOf(parts[^1]);
        return db.Users.Where(one => one.Id == id && one.LinkSha256 == hash && one.LinkUntil > now && !one.IsDisabled);
    }

    /// <summary>Says that a person is to choose a name, too.</summary>
    public static bool ChoosesName(Person person) => person.Name == FirstName && person.PasswordHash is null;
}
