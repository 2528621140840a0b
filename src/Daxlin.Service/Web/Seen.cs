using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Net.Http.Headers;

namespace Daxlin.Service.Web;

/// <summary>Binds an act to what was shown: who decides has seen this revision, and no other.</summary>
/// <remarks>
/// An answer that can be decided on carries its revision as an ETag (RFC 9110, 8.8.3); acts send it back as If-Match. An
/// invoice that was captured again by another template, with another account number, is another revision.
/// </remarks>
internal static class Seen
{
    public static void Tag(HttpResponse response, int revision) => response.Headers.ETag = new EntityTagHeaderValue(TagOf(revision)).ToString();

    /// <summary>Null if the request saw this revision.</summary>
    /// <param name="changed">What became of it since, as a sentence.</param>
    public static ProblemHttpResult? Refuse(HttpRequest request, int revision, Func<string> changed)
    {
        var seen = request.GetTypedHeaders().IfMatch;
        if (seen.Count == 0)
        {
            return Problem.Of(
                StatusCodes.Status428PreconditionRequired, "seen-missing",
                "Say in the header If-Match which ETag was shown to the person who decides.");
        }
        return seen.Any(tag => !tag.IsWeak && tag.Tag == TagOf(revision)) ? null
            : Problem.Of(StatusCodes.Status412PreconditionFailed, "changed-since", changed());
    }

    private static string TagOf(int revision) => $"\"{revision}\"";
}
