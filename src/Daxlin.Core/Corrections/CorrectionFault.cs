namespace Daxlin.Core.Corrections;

/// <summary>Why a correction makes no sense.</summary>
/// <param name="Code">A stable word.</param>
/// <param name="Sentence">For a clerk.</param>
public sealed record CorrectionFault(string Code, string Sentence)
{
    public const string Faulty = "correction-faulty";

    public const string ReasonMissing = "reason-missing";
}
