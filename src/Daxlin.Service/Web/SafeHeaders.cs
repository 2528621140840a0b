namespace Daxlin.Service.Web;

/// <summary>Headers that every answer carries, refusals and failures too.</summary>
internal static class SafeHeaders
{
    private const string ContentSecurityPolicy =
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; worker-src 'self' blob:; "
        + "font-src 'self' data:; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; object-src 'none'; frame-ancestors 'none'; base-uri 'none'";

    /// <remarks>They are set when the answer begins, since a failure clears what was set before.</remarks>
    public static void Use(WebApplication app) => app.Use((context, next) =>
    {
        context.Response.OnStarting(() =>
        {
            var headers = context.Response.Headers;
            headers.XContentTypeOptions = "nosniff";
            headers["Referrer-Policy"] = "no-referrer";
            headers.XFrameOptions = "DENY";
            if (context.Request.IsHttps)
                headers.StrictTransportSecurity = "max-age=31536000";
            // What the interface answers stays in no cache: the next at this browser may not have the right to it.
            if (context.Request.Path.StartsWithSegments("/api") && headers.CacheControl.Count == 0)
                headers.CacheControl = "no-store";
            // A document's bytes have a stricter one of their own.
            if (headers.ContentSecurityPolicy.Count == 0)
                headers.ContentSecurityPolicy = ContentSecurityPolicy;
            return Task.CompletedTask;
        });
        return next(context);
    });
}
