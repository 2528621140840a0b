using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Daxlin.Core.Capture;
using Daxlin.Core.Posting.Coding;

namespace Daxlin.Core.Corrections;

/// <summary>One thing that a person says of an invoice beside what was captured. Captured values are never changed by it.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "act")]
[JsonDerivedType(typeof(ValueEntered), "enter")]
[JsonDerivedType(typeof(RowStruck), "strike")]
[JsonDerivedType(typeof(RowAdded), "add")]
[JsonDerivedType(typeof(RowsJoined), "join")]
[JsonDerivedType(typeof(RowSplit), "split")]
[JsonDerivedType(typeof(RowMoved), "move")]
[JsonDerivedType(typeof(KindSaid), "kind")]
[JsonDerivedType(typeof(FindingAccepted), "accept")]
[JsonDerivedType(typeof(LineCoded), "code")]
public abstract record Correction;

/// <summary>A value that a person typed, or pointed at on the page.</summary>
/// <param name="Value">In its settled form ("1204.50", "2026-03-14"); empty says that the invoice has no such value.</param>
/// <param name="Was">What was captured when it was entered; empty for nothing.</param>
/// <param name="Raw">As it was typed or is printed.</param>
/// <param name="Place">Where it is printed, if it was pointed at.</param>
public sealed record ValueEntered(ValueAddress Of, string Value, string Was, string Raw, PlaceOnPage? Place) : Correction;

/// <summary>What was captured as a row is none.</summary>
public sealed record RowStruck(RowAddress Row) : Correction;

/// <summary>A row that was not captured.</summary>
/// <param name="After">The row that stands above it; null for the first.</param>
/// <param name="Cells">Its values by column, in their settled form.</param>
public sealed record RowAdded(string List, string Block, RowAddress? After, ImmutableSortedDictionary<string, string> Cells) : Correction;

/// <summary>Two captured rows are one: texts are put together, and other values are the first row's, or the second's if that has none.</summary>
public sealed record RowsJoined(RowAddress First, RowAddress Second) : Correction;

/// <summary>Two rows were captured as one: what belongs to the second gets a row of its own below it.</summary>
/// <remarks>
/// A text that the captured one ends with is cut off there: of "Pump seal kit Impeller", "Impeller" below leaves "Pump seal kit".
/// Figures stay above as they are, also one that is said below, too: which of the two it is printed for the sums tell.
/// </remarks>
/// <param name="Below">The values of the second row by column, in their settled form.</param>
public sealed record RowSplit(RowAddress Row, ImmutableSortedDictionary<string, string> Below) : Correction
{
    /// <summary>What is left of a text whose end goes to the row below; null if it does not end with it, as words of their own.</summary>
    internal static string? RestOf(string text, string below)
    {
        if (!text.EndsWith(below, StringComparison.Ordinal))
            return null;
        var rest = text[..^below.Length];
        return rest.Length == 0 || char.IsWhiteSpace(rest[^1]) ? rest.TrimEnd() : null;
    }
}

/// <param name="After">The row that stands above it; null for the first place.</param>
public sealed record RowMoved(RowAddress Row, RowAddress? After) : Correction;

/// <summary>Whether the invoice is a credit note, whatever its cues and its total's sign say.</summary>
public sealed record KindSaid(bool IsCreditNote) : Correction;

/// <summary>A person has looked at a finding, and lets it pass.</summary>
/// <param name="Message">Its sentence with its figures: with other figures it is another finding, and open.</param>
/// <param name="Reason">Why, for figures that do not add up; may be empty for others.</param>
public sealed record FindingAccepted(string Code, string Message, string Reason) : Correction;

/// <summary>The codes of a line, in the place of what rules say.</summary>
/// <param name="Row">Null for an invoice without lines, as a whole.</param>
/// <param name="Coding">Null leaves it to the rules again.</param>
public sealed record LineCoded(RowAddress? Row, SaidCoding? Coding) : Correction;
