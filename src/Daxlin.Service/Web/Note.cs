using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Web;

/// <summary>What a person says of a version that it saves, in a line.</summary>
internal static class Note
{
    private const int Longest = 500;

    /// <summary>Null for one that is too long, or more than a line.</summary>
    public static string? Of(string? note) => (note?.Trim() ?? "") is { Length: <= Longest } words && !words.Any(char.IsControl) ? words : null;

    public static ProblemHttpResult TooLong { get; } = Problem.Of(StatusCodes.Status422UnprocessableEntity, "note-faulty", $"A note is a line of {Longest} characters at most.");
}
