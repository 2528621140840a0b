using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Web;

/// <summary>Why an act cannot be done.</summary>
/// <param name="Status">The HTTP status that says so.</param>
/// <param name="Code">A stable word.</param>
/// <param name="Sentence">For a clerk.</param>
internal sealed record Refused(int Status, string Code, string Sentence)
{
    /// <summary>It is not in a state for it.</summary>
    public static Refused Conflict(string code, string sentence) => new(StatusCodes.Status409Conflict, code, sentence);

    /// <summary>What was asked for makes no sense, whatever state it is in.</summary>
    public static Refused Faulty(string code, string sentence) => new(StatusCodes.Status422UnprocessableEntity, code, sentence);

    public static Refused NotThere(string what) => new(StatusCodes.Status404NotFound, "not-there", $"There is no {what}.");

    public ProblemHttpResult ToProblem() => Problem.Of(Status, Code, Sentence);
}
