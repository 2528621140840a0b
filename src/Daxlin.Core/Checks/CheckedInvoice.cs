using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Checks;

/// <summary>A captured invoice with its ties weighed.</summary>
/// <param name="Findings">Those of the capture and those of the checks.</param>
/// <param name="Tied">The names of all amounts that stand in a tie that holds.</param>
public sealed record CheckedInvoice(
    CapturedInvoice Captured, ImmutableArray<Tie> Ties, ImmutableArray<Finding> Findings, ImmutableHashSet<string> Tied)
{
    /// <summary>Says that nothing holds it: all that is required is there, and every stated amount is tied.</summary>
    public bool IsClear => Findings.All(finding => finding.Severity != Severity.Hold);
}
