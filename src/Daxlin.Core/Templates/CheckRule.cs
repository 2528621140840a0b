using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>How a vendor rounds, and how far its sums may be off.</summary>
/// <param name="Rounding">What becomes of half a minor unit.</param>
/// <param name="LineTolerance">How far quantity × unit price may be off, in the invoice's currency.</param>
/// <param name="TaxTolerance">How far a recalculated tax may be off.</param>
/// <param name="SumTolerance">How far the lines may be off the subtotal, and the parts off the total.</param>
public sealed record CheckRule(Rounding Rounding, decimal LineTolerance, decimal TaxTolerance, decimal SumTolerance)
{
    /// <summary>Where its tax is rounded; any of them holds unless the template says one.</summary>
    public TaxRoundings TaxRounding { get; init; } = TaxRoundings.Any;

    /// <summary>Equations of the template's own, beside those that always hold.</summary>
    public ImmutableArray<TieRule> Ties { get; init; } = [];
}
