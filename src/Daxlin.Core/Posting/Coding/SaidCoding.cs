using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What a person says of a line's codes, in the place of what rules say.</summary>
/// <param name="Shares">One for the whole line, or several among which its amount is parted.</param>
public sealed record SaidCoding(ImmutableArray<SaidShare> Shares)
{
    /// <summary>account 6210, cost centre 410; or 60: cost centre 410; 40: cost centre 420.</summary>
    public string Says => string.Join("; ", Shares.Select(share => (Shares.Length > 1 ? ExpressionTypes.Settled(share.Part) + ": " : "") + share.Says));

    /// <summary>Says that a line has the codes already, whoever says them.</summary>
    internal bool IsSaidBy(ImmutableArray<CodedPart> parts) => parts.Length == Shares.Length
        && parts.Zip(Shares).All(pair => (Shares.Length == 1 || pair.First.Part == pair.Second.Part) && pair.Second.Codes.All(code => pair.First[code.Key] == code.Value));
}

/// <param name="Part">So many of all parts; above 0.</param>
/// <param name="Codes">By name; one that is absent is left to the rules.</param>
public sealed record SaidShare(decimal Part, ImmutableSortedDictionary<string, string> Codes)
{
    internal string Says => string.Join(", ", CodeNames.All.Where(Codes.ContainsKey).Select(name => $"{TradeNames.Spoken(name)} {Codes[name]}"));
}
