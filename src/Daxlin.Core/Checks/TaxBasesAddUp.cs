using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the bases of all taxes add up to what is taxed: subtotal − discount + freight.</summary>
/// <param name="Bases">Without tax, or with it where the subtotal holds the tax already.</param>
public sealed record TaxBasesAddUp(
    ImmutableArray<decimal> Bases, decimal Taxed, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "tax-bases";
    public override string Equation => "Σ tax bases = subtotal − discount + freight";
    public override decimal Left => Bases.Sum();
    public override decimal Right => Taxed;
    public override decimal Tolerance => Rule.SumTolerance;
    protected override string Says => Bases.Length == 1 ? "The base of the tax is" : $"The {Bases.Length} tax bases add up to";
}
