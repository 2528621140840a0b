using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that what the lines tax at a rate is the printed base of that rate.</summary>
/// <remarks>
/// A discount shared out among rates leaves parts of a minor unit, which go to one rate or the other: 3.47 off 100.00 and
/// 50.00 is 2.3133… and 1.1566…, printed as 97.69 and 48.84 or as 97.68 and 48.85.
/// </remarks>
/// <param name="Base">What the lines come to at the rate, with their share of discount and freight, unrounded.</param>
/// <param name="Stated">The printed base; with its tax where the lines hold it.</param>
public sealed record LinesFollowBase(
    decimal Rate, decimal Base, decimal Stated, CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override string Code => "rate-base";
    public override string Equation => $"Σ line amounts at {Text(Rate)} % = base at {Text(Rate)} %";
    public override decimal Left => Round(Base, Currency, Rule.Rounding);
    public override decimal Right => Stated;
    public override decimal Tolerance => Base == Left ? Rule.SumTolerance : Math.Max(Rule.SumTolerance, Currency.MinorUnit);
    protected override string Says => $"What the lines tax at {Text(Rate)} % comes to";

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
