using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting.Coding;

namespace Daxlin.Core.Corrections;

/// <summary>What was captured from an invoice, what persons said of it, and what both together come to.</summary>
/// <param name="Captured">As captured.</param>
/// <param name="Checked">With all corrections, its ties weighed; accepted findings left out.</param>
/// <param name="Entered">The values that a person entered, by name; a value that was taken away is there, too.</param>
/// <param name="Struck">Captured rows that are none, by their lists.</param>
/// <param name="Accepted">Findings that a person let pass.</param>
/// <param name="Rows">Where each row of <paramref name="Checked"/> comes from, by list and number.</param>
public sealed record CorrectedInvoice(
    CapturedInvoice Captured,
    CheckedInvoice Checked,
    ImmutableSortedDictionary<string, EnteredValue> Entered,
    ImmutableArray<StruckRow> Struck,
    ImmutableArray<AcceptedFinding> Accepted,
    ImmutableDictionary<(string List, int Number), RowAddress> Rows)
{
    /// <summary>What persons said of codes, by the number of the line; 0 is the invoice as a whole.</summary>
    public ImmutableSortedDictionary<int, CodedByHand> Coded { get; init; } = ImmutableSortedDictionary<int, CodedByHand>.Empty;
}

/// <param name="Correction">The correction that said so.</param>
public sealed record CodedByHand(int Correction, SaidCoding Coding);

/// <param name="Correction">The correction that entered it.</param>
/// <param name="Captured">What was captured in its place, by the newest capture; null for nothing.</param>
public sealed record EnteredValue(int Correction, CapturedValue? Captured);

/// <param name="Correction">The correction that struck it.</param>
public sealed record StruckRow(int Correction, string List, CapturedLine Line);

/// <param name="Correction">The correction that accepted it.</param>
public sealed record AcceptedFinding(int Correction, Finding Finding, string Reason);
