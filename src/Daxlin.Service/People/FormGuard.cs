using Daxlin.Service.Web;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authorization;

namespace Daxlin.Service.People;

/// <summary>A browser sends its cookie with whatever page asks for it; only Daxlin's own pages know the form token that goes with it.</summary>
internal static class FormGuard
{
    /// <summary>The header in which the console sends the token that it was told with its session.</summary>
    public const string Header = "Daxlin-Form";

    public static void Use(WebApplication app) => app.Use(async (context, next) =>
    {
        var method = context.Request.Method;
        var isSafe = HttpMethods.IsGet(method) || HttpMethods.IsHead(method) || HttpMethods.IsOptions(method);
        // Whoever signs in or follows a link at a browser where somebody is signed in has no token yet, and acts in nobody's name.
        var isForNobody = context.GetEndpoint()?.Metadata.GetMetadata<IAllowAnonymous>() is not null;
        if (!isSafe && !isForNobody && context.User.Identity is { IsAuthenticated: true, AuthenticationType: SignInSchemes.Cookie }
            && !await context.RequestServices.GetRequiredService<IAntiforgery>().IsRequestValidAsync(context))
        {
            await Problem.Of(
                StatusCodes.Status403Forbidden, "form-token-missing",
                $"The request lacks the form token of its sign-in (header {Header}), so it may not come from a page of Daxlin. Load the page anew.").ExecuteAsync(context);
            return;
        }
        await next(context);
    });
}
