using System.Globalization;
using System.Security.Claims;
using System.Security.Cryptography;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>A person signs in with a name, a password, and a code where a second factor is set up; and signs out.</summary>
/// <remarks>
/// Whether a name is known shows neither in what is answered nor in how long it takes: a password is hashed in any case. A wrong name, a
/// wrong password and a locked name get the same sentence.
/// </remarks>
internal sealed class SigningIn(DaxlinDb db, UserManager<Person> people, IPasswordHasher<Person> hasher, WriteTurn turn, TimeProvider clock)
{
    private static readonly Person Nobody = new() { UserName = "nobody" };
    private static readonly string NobodysHash = new PasswordHasher<Person>().HashPassword(Nobody, Secrets.New());

    private static Refused Wrong => new(
        StatusCodes.Status401Unauthorized, "sign-in-refused",
        $"The name and the password do not fit each other, or the name is locked: after {SignInSchemes.MostWrongTries} wrong tries in a row nobody gets in by it for {SignInSchemes.Locked.TotalMinutes:0} minutes.");

    private static readonly Refused CodeNeeded = new(
        StatusCodes.Status401Unauthorized, "code-needed", "This person has a second factor: the code that the authenticator shows is needed, too.");

    private static readonly Refused WrongCode = new(
        StatusCodes.Status401Unauthorized, "code-refused", "The code is not the one that the authenticator shows now, or it was used already. Wait for the next.");

    public async Task<(Person? Person, Refused? Refused)> Do(string name, string password, string? code, HttpContext context, CancellationToken cancel)
    {
        var person = await people.FindByNameAsync(PersonName.Tidied(name));
        var hash = person?.PasswordHash;
        // Hashed in any case, and before the turn is taken: it is slow on purpose.
        var isRight = hasher.VerifyHashedPassword(person ?? Nobody, hash ?? NobodysHash, password) != PasswordVerificationResult.Failed && hash is not null;
        await using var change = await turn.Take(db, cancel);
        if (person is not null)
            await db.Entry(person).ReloadAsync(cancel);
        if (person is null or { IsDisabled: true } || person.PasswordHash != hash || await people.IsLockedOutAsync(person))
        {
            // Written down like a wrong password, so that it takes as long.
            await HistoryLog.Record(
                db,
                new Deed(person is null ? HistoryStreams.SignIns : HistoryStreams.Person(person.Id), clock.GetUtcNow().UtcDateTime, Deed.Daxlin, HistoryActs.SignInRefused, $"refused a sign-in, for {WhyNot(person)}, from {AddressOf(context)}"),
                cancel);
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
            return (null, Wrong);
        }
        if (!isRight)
            return (null, await CountWrong(person, Wrong, "a wrong password", change, cancel));
        if (person.TwoFactorEnabled)
        {
            var shown = string.Concat((code ?? "").Where(char.IsAsciiDigit));
            if (shown.Length == 0)
                return (null, CodeNeeded);
            if (shown == person.LastCode || !await people.VerifyTwoFactorTokenAsync(person, TokenOptions.DefaultAuthenticatorProvider, shown))
                return (null, await CountWrong(person, WrongCode, "a wrong code", change, cancel));
            person.LastCode = shown;
        }
        person.AccessFailedCount = 0;
        await Begin(person, context, "signed in", cancel);
        await change.Commit(cancel);
        return (person, null);
    }

    private static string WhyNot(Person? person) => person is null ? "a name that is not known" : person.IsDisabled ? "a disabled person" : "a locked name";

    /// <summary>Begins a sign-in of its own, whatever cookie the browser showed before. The turn to write is held by who asks.</summary>
    public async Task Begin(Person person, HttpContext context, string what, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var signIn = new SignIn { Id = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16)), PersonId = person.Id, BegunAt = now, Until = now + SignInSchemes.Longest, From = AddressOf(context) };
        db.SignIns.Add(signIn);
        await HistoryLog.Record(db, new Deed(HistoryStreams.Person(person.Id), now, person.Name, HistoryActs.SignedIn, $"{what} from {AddressOf(context)}"), cancel);
        await db.SaveChangesAsync(cancel);
        var user = await PersonClaims.AtBrowser(person, signIn.Id, db, now, cancel);
        await context.SignInAsync(SignInSchemes.Cookie, user);
        context.User = user;
    }

    /// <summary>Ends the sign-in that a browser shows.</summary>
    public async Task End(HttpContext context, CancellationToken cancel)
    {
        var (now, shown) = (clock.GetUtcNow().UtcDateTime, context.User.FindFirstValue(PersonClaims.SignInClaim));
        await using var change = await turn.Take(db, cancel);
        if (await db.SignIns.SingleOrDefaultAsync(row => row.Id == shown && row.EndedAt == null, cancel) is { } signIn)
        {
            signIn.EndedAt = now;
            await HistoryLog.Record(db, new Deed(HistoryStreams.Person(signIn.PersonId), now, context.User.Identity!.Name!, HistoryActs.SignedOut, "signed out"), cancel);
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
        }
        await context.SignOutAsync(SignInSchemes.Cookie);
    }

    /// <summary>The sign-ins of whoever asks that have not ended, newest first. What they are named by says nothing of what their cookies hold.</summary>
    public async Task<List<(string Name, SignIn SignIn)>> Own(ClaimsPrincipal user, CancellationToken cancel)
    {
        var (person, now) = (PersonClaims.IdOf(user), clock.GetUtcNow().UtcDateTime);
        var own = await db.SignIns.Where(row => row.PersonId == person && row.EndedAt == null && row.Until > now).OrderByDescending(row => row.BegunAt).ThenBy(row => row.Id).ToListAsync(cancel);
        return own.ConvertAll(row => (Secrets.HashOf(row.Id)[..LettersOfName], row));
    }

    private const int LettersOfName = 16;

    /// <summary>Ends one of one's own sign-ins.</summary>
    /// <returns>False if there is none of that name, or it has ended.</returns>
    public async Task<bool> End(string name, ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if ((await Own(user, cancel)).Find(one => one.Name == name).SignIn is not { } signIn)
            return false;
        signIn.EndedAt = clock.GetUtcNow().UtcDateTime;
        await HistoryLog.Record(
            db, new Deed(HistoryStreams.Person(signIn.PersonId), signIn.EndedAt.Value, user.Identity!.Name!, HistoryActs.SignedOut, $"ended the sign-in from {signIn.From} at another browser"), cancel);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
        return true;
    }

    /// <summary>Ends all sign-ins of a person but one. Stored with what else of the context is.</summary>
    /// <param name="except">Null for none.</param>
    public static async Task EndAll(DaxlinDb db, int person, string? except, DateTime now, CancellationToken cancel)
    {
        foreach (var signIn in await db.SignIns.Where(row => row.PersonId == person && row.EndedAt == null && row.Id != except).ToListAsync(cancel))
            signIn.EndedAt = now;
    }

    private async Task<Refused> CountWrong(Person person, Refused refused, string what, Change change, CancellationToken cancel)
    {
        await CountWrong(db, person, clock.GetUtcNow(), $"a sign-in, for {what}", cancel);
        await change.Commit(cancel);
        return refused;
    }

    /// <summary>Counts a wrong try, and locks the name after too many in a row. The turn to write is held by who asks.</summary>
    public static async Task CountWrong(DaxlinDb db, Person person, DateTimeOffset now, string what, CancellationToken cancel)
    {
        var isLocked = ++person.AccessFailedCount >= SignInSchemes.MostWrongTries;
        if (isLocked)
            (person.AccessFailedCount, person.LockoutEnd) = (0, now + SignInSchemes.Locked);
        var deed = new Deed(HistoryStreams.Person(person.Id), now.UtcDateTime, Deed.Daxlin, HistoryActs.SignInRefused, $"refused {what}");
        await HistoryLog.Record(
            db,
            isLocked ? [deed, deed with { Act = HistoryActs.Locked, What = string.Create(CultureInfo.InvariantCulture, $"locked the name for {SignInSchemes.Locked.TotalMinutes:0} minutes after {SignInSchemes.MostWrongTries} wrong tries") }] : [deed],
            cancel);
        await db.SaveChangesAsync(cancel);
    }

    internal static string AddressOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "an address that is not known";
}
