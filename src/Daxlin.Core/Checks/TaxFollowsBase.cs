using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that a tax is its rate of its base, rounded.</summary>
/// <remarks>19 % of 16.53 EUR is 3.1407, so 3.14; 3.15 is held.</remarks>
public sealed record TaxFollowsBase(
    decimal Rate, decimal Base, decimal Amount, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "tax-rate";
    public override string Equation => $"base × {Text(Rate)} % = tax";
    public override decimal Left => Round(Base * Rate / 100, Currency, Rule.Rounding);
    public override decimal Right => Amount;
    public override decimal Tolerance => Rule.TaxTolerance;
    protected override string Says => $"Tax at {Text(Rate)} % of {Currency.Show(Base)} comes to";

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
