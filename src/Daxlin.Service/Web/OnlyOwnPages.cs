using System.Net;

namespace Daxlin.Service.Web;

/// <summary>
/// Refuses requests that another site's page makes in the clerk's browser, and those to another name than the service has: this
/// machine's own, and what it was told to answer to. From other machines only what comes encrypted is answered, past a proxy, too.
/// </summary>
internal static class OnlyOwnPages
{
    public static void Use(WebApplication app, ServiceSettings settings) => app.Use(async (context, next) =>
    {
        var request = context.Request;
        var origin = request.Headers.Origin.ToString();
        // A link from elsewhere opens the console and nothing more: no page can read what comes of it, or show it as part of its own.
        var isLink = HttpMethods.IsGet(request.Method) && !request.Path.StartsWithSegments("/api") && request.Headers["Sec-Fetch-Mode"] == "navigate" && request.Headers["Sec-Fetch-Dest"] == "document";
        var site = request.Headers["Sec-Fetch-Site"].ToString();
        // A name that a stranger's server points at this machine would make its pages "same origin": only our own names count.
        if (!IsLoopbackName(request.Host.Host) && !settings.Hosts.Contains(request.Host.Host, StringComparer.OrdinalIgnoreCase))
            await Refuse(context, "host-refused", $"Daxlin answers to {string.Join(" and ", settings.Hosts.Prepend("localhost"))} only, not to “{request.Host.Host}”.");
        else if (!request.IsHttps && context.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from))
            await Refuse(context, "line-unencrypted", "Daxlin is reached from other machines on an encrypted line alone; this one is not, and what was sent on it could be read.");
        else if (origin.Length > 0 && origin != $"{request.Scheme}://{request.Host}")
            await Refuse(context, "origin-refused", $"Requests from “{origin}” are refused: only Daxlin's own pages may make them.");
        else if (!isLink && site is "cross-site" or "same-site")
            await Refuse(context, "origin-refused", "Requests from other sites are refused: only Daxlin's own pages may make them.");
        else
            await next(context);
    });

    public static bool IsLoopbackName(string host) =>
        host.Equals("localhost", StringComparison.OrdinalIgnoreCase)
        || (IPAddress.TryParse(host.Trim('[', ']'), out var address) && IPAddress.IsLoopback(address));

    private static Task Refuse(HttpContext context, string code, string sentence) =>
        Problem.Of(StatusCodes.Status403Forbidden, code, sentence).ExecuteAsync(context);
}
