namespace Daxlin.Core.Corrections;

/// <summary>What a person gives as a reason, to be read by who looks at the record later.</summary>
public static class Reason
{
    /// <summary>Letters, in any script: dots and blanks say nothing.</summary>
    public const int FewestLetters = 5;

    public static bool SaysSomething(string reason) => reason.Count(char.IsLetter) >= FewestLetters;
}
