using Microsoft.Net.Http.Headers;

namespace Daxlin.Service.Web;

/// <summary>Refuses texts in another encoding than UTF-8, which is what the interface speaks.</summary>
internal static class OnlyUtf8
{
    public static void Use(WebApplication app) => app.Use((context, next) =>
        MediaTypeHeaderValue.TryParse(context.Request.ContentType, out var type) && type.Charset.HasValue
            && !HeaderUtilities.RemoveQuotes(type.Charset).Equals("utf-8", StringComparison.OrdinalIgnoreCase)
            ? Problem.Of(StatusCodes.Status415UnsupportedMediaType, "charset-unknown", "Texts come in UTF-8 only.").ExecuteAsync(context)
            : next(context));
}
