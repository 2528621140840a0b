using System.Security.Claims;
using Daxlin.Core.People;
using Daxlin.Service.People.Provider;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>How a request shows who makes it: a browser by the cookie of its sign-in, a program by an access key; at a desk without sign-in, nobody has to.</summary>
internal static class SignInSchemes
{
    public const string Cookie = "cookie";
    public const string Key = "key";
    public const string Desk = "desk";
    private const string Chosen = "chosen";

    /// <summary>Wrong tries in a row after which a name is locked.</summary>
    public const int MostWrongTries = 5;

    public static readonly TimeSpan Locked = TimeSpan.FromMinutes(10);

    /// <summary>A sign-in that is not used for so long ends.</summary>
    public static readonly TimeSpan Idle = TimeSpan.FromHours(1);

    /// <summary>A working day, after which everyone signs in anew.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromHours(12);

    public static void Add(IServiceCollection services, ServiceSettings settings, DataFolder folder)
    {
        services.AddDataProtection().SetApplicationName("daxlin").PersistKeysToFileSystem(Directory.CreateDirectory(folder.ProtectionKeys));
        services.AddIdentityCore<Person>(identity =>
            {
                identity.User.AllowedUserNameCharacters = null!;
                identity.Password.RequiredLength = PasswordRules.Fewest;
                identity.Password.RequireDigit = identity.Password.RequireLowercase = identity.Password.RequireUppercase = identity.Password.RequireNonAlphanumeric = false;
                identity.Lockout.MaxFailedAccessAttempts = MostWrongTries;
                identity.Lockout.DefaultLockoutTimeSpan = Locked;
            })
            .AddEntityFrameworkStores<DaxlinDb>()
            .AddTokenProvider<AuthenticatorTokenProvider<Person>>(TokenOptions.DefaultAuthenticatorProvider);
        var authentication = services.AddAuthentication(Chosen)
            .AddPolicyScheme(Chosen, null, chosen => chosen.ForwardDefaultSelector = context =>
                settings.IsWithoutSignIn ? Desk : context.Request.Headers.Authorization.Count > 0 ? Key : Cookie)
            .AddScheme<AuthenticationSchemeOptions, DeskAuthentication>(Desk, null)
            .AddScheme<AuthenticationSchemeOptions, KeyAuthentication>(Key, null)
            .AddCookie(Cookie, cookie =>
            {
                cookie.Cookie.Name = "daxlin-sign-in";
                cookie.Cookie.HttpOnly = true;
                cookie.Cookie.SameSite = SameSiteMode.Strict;
                cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                cookie.SlidingExpiration = true;
                cookie.ExpireTimeSpan = Idle;
                cookie.Events = new CookieAuthenticationEvents { OnValidatePrincipal = Validate };
            });
        if (settings.Provider is { } provider)
        {
            ProviderSignIn.Add(authentication, provider);
            services.AddScoped<ComingByProvider>();
        }
        services.AddAntiforgery(form =>
        {
            form.HeaderName = FormGuard.Header;
            form.Cookie.Name = "daxlin-form";
            form.Cookie.SameSite = SameSiteMode.Strict;
            form.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        });
        services.AddAuthorization(NeededRights.AddPolicies);
        services.AddSingleton<Microsoft.AspNetCore.Authorization.IAuthorizationMiddlewareResultHandler, RightRefusals>();
        services.AddScoped<SigningIn>();
        services.AddScoped<OneTimeLinks>();
        services.AddScoped<OwnAccess>();
        services.AddScoped<PersonKeeping>();
        services.AddScoped<LastAdministrator>();
        services.AddScoped<KeyKeeping>();
        services.AddScoped<GivingGroup>();
        services.AddScoped<StandingIn>();
    }

    /// <summary>A cookie is worth what its sign-in and its person are worth at this moment.</summary>
    private static async Task Validate(CookieValidatePrincipalContext context)
    {
        // The database that the request works on is made once it is known whose it is.
        await using var db = await context.HttpContext.RequestServices.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContextAsync();
        var now = context.HttpContext.RequestServices.GetRequiredService<TimeProvider>().GetUtcNow().UtcDateTime;
        var signIn = context.Principal?.FindFirstValue(PersonClaims.SignInClaim) ?? "";
        var person = await db.SignIns.Where(row => row.Id == signIn && row.EndedAt == null && row.Until > now)
            .Join(db.Users, row => row.PersonId, row => row.Id, (_, row) => row).AsNoTracking().SingleOrDefaultAsync();
        if (person is null or { IsDisabled: true })
            context.RejectPrincipal();
        else
            context.ReplacePrincipal(await PersonClaims.AtBrowser(person, signIn, db, now, context.HttpContext.RequestAborted));
    }
}
