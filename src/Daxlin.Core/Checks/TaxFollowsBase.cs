using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that a tax is its rate of its base, rounded.</summary>
/// <remarks>
/// 19 % of 16.53 EUR is 3.1407, so 3.14; 3.15 is held. Where the base holds the tax already, 19 % in 19.67 EUR is
/// 19.67 × 19 ÷ 119 = 3.1406, so 3.14 too. A vendor whose prices hold the tax takes it out of the amount with tax, and
/// prints the rest as base: 20 % in 15,299.31 is 2,549.89 and leaves 12,749.42, of which 20 % would be 2,549.88.
/// </remarks>
/// <param name="TaxIncluded">Says that the invoice's prices hold the tax.</param>
/// <param name="BaseHoldsTax">Says that the base is an amount with its tax.</param>
public sealed record TaxFollowsBase(
    decimal Rate, decimal Base, decimal Amount, bool TaxIncluded, bool BaseHoldsTax, decimal? TaxByLine, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : RoundedTax(TaxByLine, Rule, Currency, Members)
{
    public override string Code => "tax-rate";
    public override string Equation => BaseHoldsTax ? $"base × {Text(Rate)} ÷ {Text(100 + Rate)} = tax" : $"base × {Text(Rate)} % = tax";
    public override decimal Right => Amount;
    protected override string Says => $"Tax at {Text(Rate)} % {(BaseHoldsTax ? "in" : "of")} {Currency.Show(Base)} comes to";

    /// <remarks>One rate is all that is rounded here, so by rate and once are the same.</remarks>
    protected override IEnumerable<(TaxRoundings By, decimal Tax)> Otherwise
    {
        get
        {
            yield return (TaxRoundings.ByRate | TaxRoundings.Once, Round(Base * Rate / (BaseHoldsTax ? 100 + Rate : 100), Currency, Rule.Rounding));
            if (TaxIncluded && !BaseHoldsTax)
                yield return (TaxRoundings.ByRate | TaxRoundings.Once, Round((Base + Amount) * Rate / (100 + Rate), Currency, Rule.Rounding));
        }
    }

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
