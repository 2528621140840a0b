using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that quantity × unit price, less the line's discount, is the line's amount.</summary>
/// <remarks>
/// The amount is rounded once, or price and discount each: 3 × 0.35 less 5 % is 0.9975, so 1.00; taken apart it is
/// 1.05 less 0.05, so 1.00 too; but 1 × 0.30 less 5 % is 0.285 and 0.29, or 0.30 less 0.02, so 0.28. Vendors do both.
/// A line without a quantity counts as one piece.
/// </remarks>
public sealed record LineMultipliesOut(
    int Line, decimal Quantity, decimal UnitPrice, decimal PriceBasis, decimal DiscountPercent, decimal Amount,
    CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override string Code => "line-amount";

    public override string Equation =>
        $"quantity × unit price{(PriceBasis == 1 ? "" : " ÷ price basis")}{(DiscountPercent == 0 ? "" : " − discount")} = amount (line {Text(Line)})";

    public override decimal Left => Round(Gross * (1 - DiscountPercent / 100), Currency, Rule.Rounding);

    public override decimal Right => Amount;

    public override decimal Tolerance => Rule.LineTolerance;

    public override bool Holds => base.Holds || Math.Abs(Amount - RoundedApart) <= Tolerance;

    protected override string Says =>
        $"Line {Text(Line)}: {Text(Quantity)} × {Currency.Show(UnitPrice)}"
        + (PriceBasis == 1 ? "" : $" per {Text(PriceBasis)}")
        + (DiscountPercent == 0 ? "" : $" less {Text(DiscountPercent)} %") + " comes to";

    private decimal Gross => Quantity * UnitPrice / PriceBasis;

    private decimal RoundedApart
    {
        get
        {
            var gross = Round(Gross, Currency, Rule.Rounding);
            return gross - Round(gross * DiscountPercent / 100, Currency, Rule.Rounding);
        }
    }

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
