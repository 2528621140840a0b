using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Posting.Coding;

namespace Daxlin.Core.Corrections;

/// <summary>A correction as a person asks for it, with names and texts as they are shown. Which of them an act takes, <see cref="CorrectionReader"/> says.</summary>
/// <param name="Act">enter, strike, add, join, split, move, kind, accept or code.</param>
/// <param name="Of">A value, <c>total</c> or <c>lines[3].amount</c>; or a row, <c>lines[3]</c>.</param>
/// <param name="Text">As typed, or as printed if it has a place.</param>
/// <param name="Place">Where the text is printed.</param>
public sealed record WantedCorrection(
    string? Act, string? Of, string? Text, PlaceOnPage? Place, string? List, string? Block, string? After, string? With,
    ImmutableSortedDictionary<string, string>? Cells, string? Code, string? Message, string? Reason)
{
    /// <summary>Among which the amount of a line is parted, each with its codes; empty leaves its codes to the rules.</summary>
    public ImmutableArray<SaidShare>? Shares { get; init; }
}
