using System.Security.Claims;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Identity;

namespace Daxlin.Service.People;

/// <summary>What people do with their own password and second factor. A program with a key does none of it.</summary>
internal sealed class OwnAccess(DaxlinDb db, UserManager<Person> people, IPasswordHasher<Person> hasher, WriteTurn turn, TimeProvider clock)
{
    private static readonly Refused NotByKey = Refused.Conflict("browser-needed", "Only a person who signed in with name and password can do this, not a program with a key.");

    private static readonly Refused NoPassword = Refused.Conflict(
        "no-password", "You have no password here: you come by the identity provider, and a second factor is its matter, too. An administrator's one-time link lets you set one.");

    private static readonly Refused WrongPassword = Refused.Faulty("password-wrong", "The password is not right. Too many wrong ones lock the name.");

    public async Task<Refused?> ChangePassword(PasswordToChange said, ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (person, refused) = await Known(user);
        if (person is null)
            return refused;
        if (await Wrong(person, said.Old ?? "", change, cancel) is { } wrong)
            return wrong;
        if (PasswordRules.FaultOf(said.New ?? "", person.Name) is { } fault)
            return Refused.Faulty("password-faulty", fault);
        person.PasswordHash = hasher.HashPassword(person, said.New!);
        await SigningIn.EndAll(db, person.Id, user.FindFirstValue(PersonClaims.SignInClaim), Now, cancel);
        return await Store(person, HistoryActs.PasswordSet, "changed the password", change, cancel);
    }

    /// <summary>What holds already goes on to hold until a code of the new authenticator was shown.</summary>
    public async Task<(SecondFactorRecord? Begun, Refused? Refused)> BeginSecondFactor(ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (person, refused) = await Known(user);
        if (person is null)
            return (null, refused);
        if (person.TwoFactorEnabled)
            return (null, Refused.Conflict("second-factor-there", "A second factor is set up already. End it first; that asks for the password."));
        await people.ResetAuthenticatorKeyAsync(person);
        var secret = (await people.GetAuthenticatorKeyAsync(person))!;
        await change.Commit(cancel);
        return (new SecondFactorRecord(secret, $"otpauth://totp/Daxlin:{Uri.EscapeDataString(person.Name)}?secret={secret}&issuer=Daxlin&digits=6&period=30"), null);
    }

    public async Task<Refused?> ConfirmSecondFactor(string code, ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (person, refused) = await Known(user);
        if (person is null)
            return refused;
        var shown = string.Concat(code.Where(char.IsAsciiDigit));
        if (!await people.VerifyTwoFactorTokenAsync(person, TokenOptions.DefaultAuthenticatorProvider, shown))
            return Refused.Faulty("code-refused", "The code is not the one that the authenticator shows now. Is its clock right?");
        (person.TwoFactorEnabled, person.LastCode) = (true, shown);
        return await Store(person, HistoryActs.SecondFactorSet, "set up a second factor", change, cancel);
    }

    public async Task<Refused?> DropSecondFactor(string password, ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (person, refused) = await Known(user);
        if (person is null)
            return refused;
        if (await Wrong(person, password, change, cancel) is { } wrong)
            return wrong;
        person.TwoFactorEnabled = false;
        return await Store(person, HistoryActs.SecondFactorDropped, "does without a second factor", change, cancel);
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>Who has a password to change or to add a second factor to: no program, nobody at a desk without sign-in, nobody who comes by a provider alone.</summary>
    private async Task<(Person? Person, Refused? Refused)> Known(ClaimsPrincipal user)
    {
        var person = user.Identity?.AuthenticationType == SignInSchemes.Cookie && PersonClaims.IdOf(user) is { } id ? await db.Users.FindAsync(id) : null;
        return person is null ? (null, NotByKey) : person.PasswordHash is null ? (null, NoPassword) : (person, null);
    }

    /// <summary>Counted like a wrong one at the sign-in, so that a browser left open guesses no more often than a stranger.</summary>
    private async Task<Refused?> Wrong(Person person, string password, Change change, CancellationToken cancel)
    {
        if (await people.IsLockedOutAsync(person))
            return WrongPassword;
        if (await people.CheckPasswordAsync(person, password))
            return null;
        await SigningIn.CountWrong(db, person, clock.GetUtcNow(), "an act, for a wrong password", cancel);
        await change.Commit(cancel);
        return WrongPassword;
    }

    private async Task<Refused?> Store(Person person, string act, string what, Change change, CancellationToken cancel)
    {
        person.AccessFailedCount = 0;
        person.Revision++;
        await HistoryLog.Record(db, new Deed(HistoryStreams.Person(person.Id), Now, person.Name, act, what), cancel);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
        return null;
    }
}
