using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Corrections;

/// <summary>One small change after which more of an invoice holds. It is shown, and never made by itself.</summary>
/// <param name="Of">The value, <c>lines[3].amount</c>; the row, <c>lines[3]</c>; or for a row that would be added, the one above it, empty for none.</param>
/// <param name="Value">What the value would be, in its settled form; null for a row.</param>
/// <param name="Was">What it is; empty for nothing.</param>
/// <param name="Slip">What would have happened: two figures swapped; empty if the two have nothing in common.</param>
/// <param name="Place">Where the value stands on the page; null if it stands nowhere.</param>
/// <param name="SettlesAll">Says that every tie would hold; else only more than now.</param>
/// <param name="Says">The whole of it in a sentence.</param>
public sealed record Proposal(string Of, string? Value, string Was, string Slip, PlaceOnPage? Place, bool SettlesAll, string Says)
{
    /// <summary>Says that more speaks for it than that it would add up.</summary>
    public bool HasEvidence => Slip.Length > 0 || Place is not null;

    /// <summary>Says that it is what a picture was read as otherwise, and no sum asks for it.</summary>
    public bool IsReading { get; init; }

    /// <summary>The values of a row that would be added, by column; empty for other changes.</summary>
    public ImmutableSortedDictionary<string, string> Cells { get; init; } = ImmutableSortedDictionary<string, string>.Empty;
}
