using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Web;

/// <summary>Refusals as problem details (RFC 9457): a sentence for a clerk, and a stable code for programs.</summary>
internal static class Problem
{
    public static ProblemHttpResult Of(int status, string code, string sentence, params ReadOnlySpan<(string Key, object Value)> more)
    {
        var extensions = new Dictionary<string, object?> { ["code"] = code };
        foreach (var (key, value) in more)
            extensions[key] = value;
        return TypedResults.Problem(sentence, statusCode: status, type: "about:blank", extensions: extensions);
    }

    public static ProblemHttpResult NotThere(string what) => Refused.NotThere(what).ToProblem();

    /// <summary>What a status says that no endpoint gave a sentence of its own.</summary>
    public static (int Status, string Code, string Sentence) OfStatus(int status) => status switch
    {
        StatusCodes.Status400BadRequest => (status, "request-faulty", "The request is not complete or not well formed."),
        StatusCodes.Status404NotFound => (status, "not-there", "There is no such address in the interface."),
        StatusCodes.Status405MethodNotAllowed => (status, "method-unknown", "This address does not know the method; the Allow header says which it knows."),
        StatusCodes.Status408RequestTimeout => (status, "too-slow", "The request came too slowly and was given up; send it again."),
        StatusCodes.Status413PayloadTooLarge => (status, "too-large", "The request is larger than the service takes; send less at a time."),
        StatusCodes.Status415UnsupportedMediaType => (status, "type-unknown", "The content type is not one that this address takes: JSON in UTF-8, or multipart/form-data for files."),
        StatusCodes.Status431RequestHeaderFieldsTooLarge => (status, "headers-too-large", "The headers of the request are too large."),
        >= 500 => (status, "failed", "Daxlin failed on this request; nothing was changed by it, and the log has the details."),
        _ => (status, "refused", "The request is refused."),
    };

    /// <summary>Gives every answer without a body, whatever layer it comes from, its sentence and code.</summary>
    public static void Complete(ProblemDetailsContext context)
    {
        var details = context.ProblemDetails;
        var (_, code, sentence) = OfStatus(details.Status ?? context.HttpContext.Response.StatusCode);
        details.Type = "about:blank";
        details.Detail ??= sentence;
        details.Extensions.TryAdd("code", code);
        details.Extensions.Remove("traceId");
    }
}
