using System.Collections.Immutable;
using Daxlin.Core.Corrections;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Coding;

namespace Daxlin.Service.Review;

/// <summary>What a person says of an invoice's values. Which keys an act takes:</summary>
/// <remarks>
/// <c>enter</c>: <c>of</c>, <c>text</c>, and <c>place</c> if the text was pointed at. <c>strike</c>: <c>of</c>. <c>add</c>:
/// <c>list</c>, <c>block</c>, <c>after</c>, <c>cells</c>. <c>join</c>: <c>of</c>, <c>with</c>. <c>split</c>: <c>of</c>, <c>cells</c>, what belongs to the row below. <c>move</c>: <c>of</c>,
/// <c>after</c>. <c>kind</c>: <c>text</c>, <c>invoice</c> or <c>creditNote</c>. <c>accept</c>: <c>code</c>, <c>message</c>,
/// <c>reason</c>. <c>code</c>: <c>of</c>, a row of <c>lines</c> or <c>invoice</c> for one without, and <c>cells</c> or <c>shares</c>. <c>undo</c> and <c>redo</c> take none.
/// </remarks>
/// <param name="Act">enter, strike, add, join, split, move, kind, accept, code, undo or redo.</param>
/// <param name="Of">A value, <c>total</c> or <c>lines[3].amount</c>; or a row, <c>lines[3]</c>.</param>
/// <param name="Text">As typed, in the vendor's way of writing or in the settled form; empty says that there is no such value.</param>
/// <param name="Place">Where the text is printed.</param>
/// <param name="List">The list that a row is added to: <c>lines</c> if left out, <c>taxes</c>, or a block's own.</param>
/// <param name="Block">The block of an added row; that of the row above it, or the list's first, if left out.</param>
/// <param name="After">The row above; left out for the first place.</param>
/// <param name="With">The row that is joined to the first.</param>
/// <param name="Cells">Texts by column, of an added row or of the lower of two that were captured as one; or codes by name, an empty one leaving it to the rules.</param>
/// <param name="Code">Of the finding that may pass.</param>
/// <param name="Message">The finding's sentence as it was shown.</param>
/// <param name="Shares">All shares of a line, each with its codes; empty leaves its codes to the rules.</param>
/// <param name="Reason">Why; figures that do not add up need one of five letters at least.</param>
public sealed record CorrectionToMake(
    string? Act, string? Of = null, string? Text = null, PlaceRecord? Place = null, string? List = null, string? Block = null, string? After = null,
    string? With = null, ImmutableSortedDictionary<string, string>? Cells = null, string? Code = null, string? Message = null, string? Reason = null,
    ImmutableArray<SaidShareRecord>? Shares = null)
{
    internal WantedCorrection ToCore() => new(
        Act, Of, Text, Place is { } place ? CapturedRecords.Of(place) : null, List, Block, After, With, Cells, Code, Message, Reason)
    {
        Shares = Shares is { } shares ? [.. shares.Select(CodingRecords.Of)] : null,
    };
}

/// <summary>A small change after which more of an invoice adds up. It is shown, and never made by itself.</summary>
/// <param name="Act">The act that makes it: <c>enter</c>, <c>strike</c> or <c>add</c>.</param>
/// <param name="Of">The value, <c>lines[3].amount</c>, to enter; the row, <c>lines[3]</c>, to strike out; or the row to add one below, empty for the first place.</param>
/// <param name="Value">The text to enter; null for a row.</param>
/// <param name="Was">What it is; empty for nothing.</param>
/// <param name="Slip">What would have happened: two figures swapped; empty if the two have nothing in common.</param>
/// <param name="Place">Where the value is printed; null if it is printed nowhere else.</param>
/// <param name="SettlesAll">Says that every sum would come out.</param>
/// <param name="IsOnly">Says that nothing else was found.</param>
/// <param name="Says">The whole of it in a sentence.</param>
/// <param name="Cells">The values of a row to add, by column.</param>
public sealed record ProposalRecord(string Act, string Of, string? Value, string Was, string Slip, PlaceRecord? Place, bool SettlesAll, bool IsOnly, string Says, ImmutableSortedDictionary<string, string> Cells);
