using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the taxes of all rates add up to the stated tax.</summary>
public sealed record TaxesAddUp(
    ImmutableArray<decimal> Taxes, decimal Tax, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "tax-sum";
    public override string Equation => "Σ taxes = tax";
    public override decimal Left => Taxes.Sum();
    public override decimal Right => Tax;
    public override decimal Tolerance => Rule.SumTolerance;
    protected override string Says => $"The {Taxes.Length} taxes add up to";
}
