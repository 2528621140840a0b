using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Checks;

/// <summary>A captured invoice with its ties weighed.</summary>
/// <param name="Findings">Those of the capture and those of the checks.</param>
/// <param name="Tied">The names of all amounts that stand in a tie that holds.</param>
/// <param name="Unproved">The names of all captured numbers that stand in no tie: not checked by any sum.</param>
public sealed record CheckedInvoice(
    CapturedInvoice Captured, ImmutableArray<Tie> Ties, ImmutableArray<Finding> Findings, ImmutableHashSet<string> Tied,
    ImmutableArray<string> Unproved)
{
    /// <summary>Says that nothing holds it: all that is required is there, and every stated amount is tied.</summary>
    public bool IsClear => Findings.All(finding => finding.Severity != Severity.Hold);

    /// <summary>Says that a finding is a tie that does not hold: figures that do not add up, and not only a doubt.</summary>
    public bool IsTie(Finding finding) => Ties.Any(tie => !tie.Holds && tie.Code == finding.Code && tie.ToFinding().Message == finding.Message);
}
