using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that a tax whose base is not printed is its rate of what the invoice taxes at that rate.</summary>
/// <remarks>
/// 7.5 % of 100.00 is 7.50; a tax of 75.00 is held, though subtotal, tax and total add up. Vendors round the base before
/// they tax it or do not: both hold.
/// </remarks>
/// <param name="Base">What is taxed at the rate, unrounded: subtotal − discount + freight, or the lines' share of it.</param>
/// <param name="TaxIncluded">Says that the base is an amount with its tax.</param>
/// <param name="IsOfLines">Says that the base is what the lines with this rate come to.</param>
public sealed record TaxFollowsRate(
    decimal Rate, decimal Base, decimal Amount, bool TaxIncluded, bool IsOfLines, decimal? TaxByLine, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : RoundedTax(TaxByLine, Rule, Currency, Members)
{
    public override string Code => "tax-rate";
    public override string Equation => $"({(IsOfLines ? $"Σ line amounts at {Text(Rate)} %" : "subtotal − discount + freight")}) × {Text(Rate)}{(TaxIncluded ? $" ÷ {Text(100 + Rate)}" : " %")} = tax";
    public override decimal Right => Amount;
    protected override string Says => $"Tax at {Text(Rate)} % {(TaxIncluded ? "in" : "of")} {Currency.Show(Round(Base, Currency, Rule.Rounding))} comes to";

    /// <remarks>One rate is all that is rounded here, so by rate and once are the same.</remarks>
    protected override IEnumerable<(TaxRoundings By, decimal Tax)> Otherwise =>
        [(TaxRoundings.ByRate | TaxRoundings.Once, TaxOf(Round(Base, Currency, Rule.Rounding))), (TaxRoundings.ByRate | TaxRoundings.Once, TaxOf(Base))];

    private decimal TaxOf(decimal of) => Round(of * Rate / (TaxIncluded ? 100 + Rate : 100), Currency, Rule.Rounding);

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
