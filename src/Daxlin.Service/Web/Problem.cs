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

    public static ProblemHttpResult NotThere(string what) =>
        Of(StatusCodes.Status404NotFound, "not-there", $"There is no {what}.");
}
