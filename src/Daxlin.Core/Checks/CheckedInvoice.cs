using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

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

    /// <summary>
    /// The names of header values that were found in a later of their whereabouts only, and that no tie holds: where the first one
    /// failed, the vendor may have moved the value, and something else may stand where it was looked for then. A constant that the
    /// template says for that case is none.
    /// </summary>
    public IEnumerable<string> Unsure => Captured.Fields.Where(value => value.Trace is { Confidence: < 1, Places.IsEmpty: false } && !Tied.Contains(value.Name)).Select(value => value.Name);

    /// <summary>Whether a person who has looked may let a finding pass.</summary>
    /// <remarks>
    /// Never where something must be said instead: no invoice is clear without its number, its date and its total, and an amount
    /// in another currency would be posted as one in the template's.
    /// </remarks>
    public Passing PassingOf(Finding finding) =>
        finding.Code == "currency-differs" || finding.About.Any(name => TradeNames.IsRequiredField(name) && name != TradeNames.Currency && Captured.Find(name) is null) ? Passing.Never
        : IsTie(finding) || finding.Code is ElectronicWitness.Differs or ElectronicWitness.Other or ElectronicWitness.Unread or HiddenText.Code or TextOverText.Code ? Passing.ForReason : Passing.Freely;

    /// <summary>Says that a finding is a tie that does not hold: figures that do not add up, and not only a doubt.</summary>
    public bool IsTie(Finding finding) => (off ??= [.. Ties.Where(tie => !tie.Holds).Select(tie => tie.ToFinding().Message)]).Contains(finding.Message);

    /// <summary>What the ties that do not hold say; an invoice may have thousands, and each finding is asked about.</summary>
    private HashSet<string>? off;
}
