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

    /// <summary>The same for what is saved as versions: a template, a layout, a list. What nobody said to have seen is not bound.</summary>
    /// <remarks>
    /// A file under version control is saved unseen; what was made from a version says from which (If-Match), and what is new says that
    /// there was none (If-None-Match).
    /// </remarks>
    /// <param name="what">As a sentence names it: template “brinewood-standard”.</param>
    /// <param name="note">What who saved it said of it; may be empty.</param>
    public static ProblemHttpResult? RefuseVersion(HttpRequest request, int version, string what, string savedBy, DateTime savedAt, string note = "")
    {
        if (request.Headers.IfNoneMatch.Count > 0)
            return Problem.Of(StatusCodes.Status412PreconditionFailed, "changed-since", $"A {what} was saved meanwhile by {savedBy}. Give this one another name, or open that one.");
        return request.Headers.IfMatch.Count == 0 ? null : Refuse(request, version, () => ChangedVersion(version, what, savedBy, savedAt, note));
    }

    /// <summary>What became of a version since it was shown.</summary>
    public static string ChangedVersion(int version, string what, string savedBy, DateTime savedAt, string note = "") =>
        $"The {what} is not as it was shown: version {version} was saved by {savedBy}, {savedAt:yyyy-MM-dd HH:mm:ss} UTC" + (note.Length > 0 ? $" (“{note}”)." : ".") + " Look at it again.";

    private static string TagOf(int revision) => $"\"{revision}\"";
}
