namespace Daxlin.Service.Review;

/// <summary>Why an act cannot be done.</summary>
/// <param name="Status">The HTTP status that says so.</param>
/// <param name="Code">A stable word.</param>
/// <param name="Sentence">For a clerk.</param>
internal sealed record Refused(int Status, string Code, string Sentence)
{
    /// <summary>What was asked for makes no sense, whatever the invoice is like.</summary>
    public static Refused Faulty(string sentence) => new(StatusCodes.Status422UnprocessableEntity, "correction-faulty", sentence);

    /// <summary>The invoice is not in a state for it.</summary>
    public static Refused Conflict(string code, string sentence) => new(StatusCodes.Status409Conflict, code, sentence);
}
