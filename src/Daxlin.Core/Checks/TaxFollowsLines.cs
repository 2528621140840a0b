using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the one stated tax is what the lines' own rates come to.</summary>
/// <param name="Bases">Each rate in per cent with what is taxed at it, unrounded.</param>
/// <param name="TaxIncluded">Says that the line amounts hold the tax already.</param>
public sealed record TaxFollowsLines(
    ImmutableArray<(decimal Rate, decimal Base)> Bases, bool TaxIncluded, decimal Tax, decimal? TaxByLine, CheckRule Rule, Currency Currency,
    ImmutableArray<string> Members) : RoundedTax(TaxByLine, Rule, Currency, Members)
{
    public override string Code => "tax-rate";
    public override string Equation => "Σ line amounts × tax rate = tax";
    public override decimal Right => Tax;
    protected override string Says => "Tax by the lines' own rates comes to";

    protected override IEnumerable<(TaxRoundings By, decimal Tax)> Otherwise =>
    [
        (TaxRoundings.ByRate, Bases.Sum(part => Round(TaxOf(part), Currency, Rule.Rounding))),
        (TaxRoundings.Once, Round(Bases.Sum(TaxOf), Currency, Rule.Rounding)),
    ];

    private decimal TaxOf((decimal Rate, decimal Base) part) => part.Base * part.Rate / (TaxIncluded ? 100 + part.Rate : 100);
}
