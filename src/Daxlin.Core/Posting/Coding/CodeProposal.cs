using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What persons said of most lines like a line before. It is shown, and never counts by itself.</summary>
/// <param name="Agree">Of so many lines the same was said.</param>
/// <param name="Of">So many lines were like it, those that were left to the rules among them.</param>
public sealed record CodeProposal(SaidCoding Coding, int Agree, int Of)
{
    public string Says => $"{Coding.Says} on {Agree} of {Of} {(Of == 1 ? "line" : "lines")} like it";

    /// <summary>Proposes codes for a line, where that is worth a look.</summary>
    /// <remarks>
    /// It is if the line lacks a code that was said before, or if most lines like it were coded so: where rules say something else, one
    /// exception among a hundred lines is no reason to ask each time.
    /// </remarks>
    /// <param name="now">The line's parts as they are coded.</param>
    /// <param name="before">What was said of each line like it; null for one that was left to the rules.</param>
    public static CodeProposal? For(ImmutableArray<CodedPart> now, IReadOnlyCollection<SaidCoding?> before)
    {
        if (before.OfType<SaidCoding>().GroupBy(said => said.Says).OrderByDescending(group => group.Count()).FirstOrDefault()?.ToList() is not [var coding, ..] most
            || coding.IsSaidBy(now))
            return null;
        var fillsGap = coding.Shares.SelectMany(share => share.Codes.Keys).Any(name => now.All(part => part[name].Length == 0));
        return fillsGap || most.Count * 2 >= before.Count ? new CodeProposal(coding, most.Count, before.Count) : null;
    }
}
