using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Daxlin.Core.People;
using Daxlin.Service.Storage;

namespace Daxlin.Service.People;

/// <summary>What is known of who makes a request, as claims. They are made anew for each request, so that what an administrator changes holds at once.</summary>
internal static class PersonClaims
{
    private const string RightClaim = "daxlin:right";
    private const string GroupClaim = "daxlin:group";

    /// <summary>The sign-in that a cookie stands for.</summary>
    public const string SignInClaim = "daxlin:sign-in";

    /// <summary>The name of the approver for whom one stands in.</summary>
    public const string ForClaim = "daxlin:for";

    /// <summary>The name of the key that a program shows.</summary>
    public const string KeyClaim = "daxlin:key";

    public static ClaimsPrincipal Of(Person person, string scheme, IEnumerable<Right> rights, params ReadOnlySpan<Claim> more) =>
        new(new ClaimsIdentity(
            [
                new Claim(ClaimTypes.NameIdentifier, person.Id.ToString(CultureInfo.InvariantCulture)),
                new Claim(ClaimTypes.Name, person.Name),
                .. rights.Select(right => new Claim(RightClaim, Roles.Word(right))),
                .. person.Groups.Select(group => new Claim(GroupClaim, group)),
                .. more,
            ],
            scheme));

    /// <summary>A person at a browser, with the right to approve for another who is away, if there is one.</summary>
    public static async Task<ClaimsPrincipal> AtBrowser(Person person, string signIn, DaxlinDb db, DateTime now, CancellationToken cancel)
    {
        var absent = await StandingIn.ForWhom(db, person, now, cancel);
        var rights = person.Rights;
        var own = new Claim(SignInClaim, signIn);
        return absent.Length == 0 ? Of(person, SignInSchemes.Cookie, rights, own) : Of(person, SignInSchemes.Cookie, rights.Add(Right.Approve), own, new Claim(ForClaim, absent));
    }

    /// <summary>Someone at a desk that has no sign-in, who may do everything.</summary>
    public static ClaimsPrincipal AtDesk(string name, string scheme) =>
        new(new ClaimsIdentity([new Claim(ClaimTypes.Name, name), .. Enum.GetValues<Right>().Select(right => new Claim(RightClaim, Roles.Word(right)))], scheme));

    public static ImmutableSortedSet<Right> RightsOf(ClaimsPrincipal user) => [.. user.FindAll(RightClaim).Select(claim => Roles.FindRight(claim.Value)).OfType<Right>()];

    public static ImmutableArray<string> GroupsOf(ClaimsPrincipal user) => [.. user.FindAll(GroupClaim).Select(claim => claim.Value)];

    /// <summary>Null at a desk without sign-in.</summary>
    public static int? IdOf(ClaimsPrincipal user) => int.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), CultureInfo.InvariantCulture, out var id) ? id : null;
}
