using System.Text.Encodings.Web;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;

namespace Daxlin.Service.People.Provider;

/// <summary>The way to an identity provider and back, by the framework's own handler: authorisation code with PKCE, answered in the address.</summary>
internal static class ProviderSignIn
{
    public const string Scheme = "provider";

    /// <summary>Where a browser begins; <c>?to=/batches/3</c> says where it goes on.</summary>
    public const string Path = "/sign-in/provider";

    /// <summary>Where the provider sends it back to; the provider has to know this address.</summary>
    public const string PathBack = "/sign-in/provider/back";

    /// <summary>How long someone may take at the provider.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(15);

    public static void Add(AuthenticationBuilder authentication, IdentityProvider provider) => authentication.AddOpenIdConnect(Scheme, provider.Name, options =>
    {
        options.Authority = provider.Authority.OriginalString;
        options.ClientId = provider.ClientId;
        options.ClientSecret = provider.ClientSecret.Length > 0 ? provider.ClientSecret : null;
        options.RequireHttpsMetadata = !provider.Authority.IsLoopback;
        options.CallbackPath = PathBack;
        options.ResponseType = OpenIdConnectResponseType.Code;
        options.ResponseMode = OpenIdConnectResponseMode.Query;
        options.UsePkce = true;
        options.MapInboundClaims = false;
        options.SaveTokens = false;
        options.GetClaimsFromUserInfoEndpoint = true;
        options.ClaimActions.MapJsonKey(provider.NameClaim, provider.NameClaim);
        options.ClaimActions.MapJsonKey(provider.GroupsClaim, provider.GroupsClaim);
        options.ClaimActions.Remove("iss");
        options.RemoteAuthenticationTimeout = Patience;
        foreach (var scope in provider.Scopes)
            options.Scope.Add(scope);
        // The provider's answer comes as a link from its pages, which brings these along; no form posts it.
        options.CorrelationCookie.SameSite = options.NonceCookie.SameSite = SameSiteMode.Lax;
        options.CorrelationCookie.SecurePolicy = options.NonceCookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.SignInScheme = SignInSchemes.Cookie;
        options.Events = new OpenIdConnectEvents
        {
            OnTokenValidated = context =>
            {
                // Who fetches a token may take it unsigned (OpenID Connect Core 1.0, 3.1.3.7); nobody has a reason to leave the signature out.
                if (context.SecurityToken.RawSignature.Length == 0)
                    context.Fail("The token is not signed.");
                return Task.CompletedTask;
            },
            OnTicketReceived = context => Arrive(context, provider),
            OnAccessDenied = async context =>
            {
                context.HandleResponse();
                await ShowRefusal(context.HttpContext, $"{provider.Name} did not let you in.");
            },
            OnRemoteFailure = async context =>
            {
                context.HandleResponse();
                context.HttpContext.RequestServices.GetRequiredService<ILoggerFactory>().CreateLogger(typeof(ProviderSignIn).FullName!).LogWarning(context.Failure, "The sign-in by the identity provider failed.");
                await ShowRefusal(
                    context.HttpContext,
                    $"The answer of {provider.Name} does not fit what was asked, or came later than {Patience.TotalMinutes:0} minutes. Begin anew; if it stays so, the service's log says more.");
            },
        };
    });

    public static void Map(WebApplication app, ServiceSettings settings)
    {
        if (settings.Provider is not { } provider)
            return;
        app.MapGet(Path, async (string? to, HttpContext context) =>
        {
            try
            {
                await context.ChallengeAsync(Scheme, new AuthenticationProperties { RedirectUri = OnlyOwn(to) });
            }
            catch (Exception error) when (error is InvalidOperationException or HttpRequestException && !context.Response.HasStarted)
            {
                context.RequestServices.GetRequiredService<ILoggerFactory>().CreateLogger(typeof(ProviderSignIn).FullName!).LogWarning(error, "The identity provider cannot be reached.");
                await ShowRefusal(context, $"{provider.Name} cannot be reached at {provider.Authority.OriginalString}. Try again in a while, or sign in with name and password.");
            }
        }).NeedsNobody().RequireRateLimiting(Limits.SignIn).ExcludeFromDescription();
    }

    private static async Task Arrive(TicketReceivedContext context, IdentityProvider provider)
    {
        context.HandleResponse();
        var refused = await context.HttpContext.RequestServices.GetRequiredService<ComingByProvider>().Do(context.Principal!, context.HttpContext, context.HttpContext.RequestAborted);
        if (refused is null)
            await Show(context.HttpContext, StatusCodes.Status200OK, "You are signed in.", OnlyOwn(context.ReturnUri));
        else
            await ShowRefusal(context.HttpContext, $"{char.ToUpperInvariant(refused[0])}{refused[1..]}");
    }

    /// <summary>An address of Daxlin's own console, whatever was asked for: nobody is sent on to another site.</summary>
    private static string OnlyOwn(string? to) => to is ['/', not ('/' or '\\'), ..] && !to.StartsWith("/sign-in/", StringComparison.Ordinal) ? to : "/";

    private static Task ShowRefusal(HttpContext context, string sentence) => Show(context, StatusCodes.Status403Forbidden, sentence, null);

    /// <summary>
    /// A page of its own between the provider's and the console: what follows from it comes from Daxlin itself, so that the browser brings the
    /// cookie that it keeps from links of other sites.
    /// </summary>
    private static async Task Show(HttpContext context, int status, string sentence, string? to)
    {
        var encoder = HtmlEncoder.Default;
        context.Response.StatusCode = status;
        context.Response.ContentType = "text/html; charset=utf-8";
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers.ContentSecurityPolicy = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";
        await context.Response.WriteAsync(
            $"""
            <!doctype html>
            <html lang="en">
            <head><meta charset="utf-8"><title>Daxlin</title>{(to is null ? "" : $"<meta http-equiv=\"refresh\" content=\"0; url={encoder.Encode(to)}\">")}</head>
            <body><main><h1>Daxlin</h1><p>{encoder.Encode(sentence)}</p><p><a href="{encoder.Encode(to ?? "/")}">{(to is null ? "Back to the sign-in" : "Go on")}</a></p></main></body>
            </html>
            """);
    }
}
