using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the one stated tax is what the lines' own rates come to.</summary>
/// <param name="Bases">Each rate in per cent with what is taxed at it, unrounded.</param>
/// <param name="TaxIncluded">Says that the line amounts hold the tax already.</param>
/// <remarks>
/// Tax is rounded for each rate, or once for all: both are in use, and both hold. 19 % of 1.03 and 7 % of 1.07 are
/// 0.20 + 0.07 = 0.27 and 0.2706, so 0.27.
/// </remarks>
public sealed record TaxFollowsLines(
    ImmutableArray<(decimal Rate, decimal Base)> Bases, bool TaxIncluded, decimal Tax, CheckRule Rule, Currency Currency,
    ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override string Code => "tax-rate";
    public override string Equation => "Σ line amounts × tax rate = tax";
    public override decimal Left => Bases.Sum(part => Round(TaxOf(part), Currency, Rule.Rounding));
    public override decimal Right => Tax;
    public override decimal Tolerance => Rule.TaxTolerance;
    public override bool Holds => base.Holds || Math.Abs(Tax - RoundedOnce) <= Tolerance;
    protected override string Says => "Tax by the lines' own rates comes to";

    private decimal RoundedOnce => Round(Bases.Sum(TaxOf), Currency, Rule.Rounding);

    private decimal TaxOf((decimal Rate, decimal Base) part) => part.Base * part.Rate / (TaxIncluded ? 100 + part.Rate : 100);
}
