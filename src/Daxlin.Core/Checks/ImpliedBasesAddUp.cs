using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the bases which several taxes imply, where neither they nor the lines' rates are printed, add up to what is taxed.</summary>
/// <remarks>
/// 20.00 at 20 % and 2.50 at 5 % imply 100.00 and 50.00. A tax is rounded, so its base is known to half a minor unit over
/// the rate: 0.10 at 5 %. What is taxed at 0 % is not known, so the bases may come to less where such a rate is printed.
/// </remarks>
/// <param name="Slack">How far the bases may be off for the rounding of their taxes.</param>
public sealed record ImpliedBasesAddUp(
    decimal Bases, decimal Slack, decimal Taxed, CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override bool HasFactors => true;
    public override string Code => "tax-rates";
    public override string Equation => "Σ tax ÷ rate = subtotal − discount + freight";
    public override decimal Left => Round(Bases, Currency, Rule.Rounding);
    public override decimal Right => Taxed;
    public override decimal Tolerance => Rule.SumTolerance + Slack;
    protected override string Says => "The amounts that these taxes are due on come to";
}
