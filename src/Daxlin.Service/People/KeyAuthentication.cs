using System.Security.Claims;
using System.Text.Encodings.Web;
using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Daxlin.Service.People;

/// <summary>A program shows an access key as <c>Authorization: Bearer …</c> (RFC 6750, 2.1), and acts with the key's rights in its owner's name.</summary>
internal sealed class KeyAuthentication(
    IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder, IDbContextFactory<DaxlinDb> databases, WriteTurn turn, TimeProvider clock)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    private const string Bearer = "Bearer ";

    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var header = Request.Headers.Authorization.ToString();
        if (!header.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase))
            return AuthenticateResult.Fail("The Authorization header is not “Bearer” with an access key behind it.");
        // The database that the request works on is made once it is known whose it is.
        await using var db = await databases.CreateDbContextAsync(Context.RequestAborted);
        var hash = Secrets.HashOf(header[Bearer.Length..].Trim());
        var key = await db.AccessKeys.AsNoTracking().SingleOrDefaultAsync(row => row.Sha256 == hash, Context.RequestAborted);
        if (key is null)
            return AuthenticateResult.Fail("The access key is not known.");
        if (key.RevokedAt is not null || key.ExpiresAt <= clock.GetUtcNow().UtcDateTime)
            return AuthenticateResult.Fail(key.RevokedAt is null ? "The access key has expired." : "The access key was revoked.");
        var person = await db.Users.AsNoTracking().SingleAsync(row => row.Id == key.PersonId, Context.RequestAborted);
        if (person.IsDisabled)
            return AuthenticateResult.Fail("The access key's owner may not use Daxlin any more.");
        await KeyKeeping.NoteUse(db, turn, clock.GetUtcNow().UtcDateTime, key, person.Name, Context.Connection.RemoteIpAddress?.ToString() ?? "", Context.RequestAborted);
        var rights = person.Rights.Intersect(KeyKeeping.RightsOf(key));
        return AuthenticateResult.Success(new AuthenticationTicket(PersonClaims.Of(person, Scheme.Name, rights, new Claim(PersonClaims.KeyClaim, key.Name)), Scheme.Name));
    }
}
