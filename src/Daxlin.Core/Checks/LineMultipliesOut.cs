using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that quantity × unit price, less the line's discounts, is the line's amount.</summary>
/// <remarks>
/// The amount is rounded once, or after each step: 3 × 0.35 less 5 % is 0.9975, so 1.00; taken apart it is 1.05 less
/// 0.05, so 1.00 too; but 1 × 0.30 less 5 % is 0.285 and 0.29, or 0.30 less 0.02, so 0.28. Vendors do both.
/// Discounts in per cent follow one another: 100.00 less 10 % less 5 % is 85.50, not 85.00. One in money comes last.
/// A line without a quantity counts as one piece.
/// </remarks>
/// <param name="DiscountAmount">What is taken off in money, whatever its printed sign.</param>
public sealed record LineMultipliesOut(
    int Line, decimal Quantity, decimal UnitPrice, decimal PriceBasis, ImmutableArray<decimal> DiscountPercents, decimal DiscountAmount,
    decimal Amount, CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override bool HasFactors => true;
    public override string Code => "line-amount";

    public override string Equation =>
        $"quantity × unit price{(PriceBasis == 1 ? "" : " ÷ price basis")}{(HasDiscount ? " − discount" : "")} = amount (line {Text(Line)})";

    public override decimal Left => Round(
        DiscountPercents.Aggregate(Gross, (rest, percent) => rest * (1 - percent / 100)) - Off, Currency, Rule.Rounding);

    public override decimal Right => Amount;

    public override decimal Tolerance => Rule.LineTolerance;

    public override bool Holds => base.Holds || Math.Abs(Amount - RoundedApart) <= Tolerance;

    protected override string Says =>
        $"Line {Text(Line)}: {Text(Quantity)} × {Currency.Show(UnitPrice)}"
        + (PriceBasis == 1 ? "" : $" per {Text(PriceBasis)}")
        + string.Concat(DiscountPercents.Where(percent => percent != 0).Select(percent => $" less {Text(percent)} %"))
        + (DiscountAmount == 0 ? "" : $" less {Currency.Show(Math.Abs(DiscountAmount))}") + " comes to";

    private bool HasDiscount => DiscountAmount != 0 || DiscountPercents.Any(percent => percent != 0);

    private decimal Gross => Quantity * UnitPrice / PriceBasis;

    /// <summary>A discount makes a line smaller, and a credited line less negative.</summary>
    private decimal Off => Math.Abs(DiscountAmount) * (Gross < 0 ? -1 : 1);

    private decimal RoundedApart => DiscountPercents.Aggregate(
        Round(Gross, Currency, Rule.Rounding), (rest, percent) => rest - Round(rest * percent / 100, Currency, Rule.Rounding)) - Off;

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
