using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the numbers of a list under a row add up to the row's own: quantities delivered to the quantity billed.</summary>
public sealed record RowsUnderAddUp(
    int Line, string List, string Column, ImmutableArray<decimal> Parts, decimal Whole, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "rows-under";
    public override string Equation => $"Σ {TradeNames.Spoken(Column)} of {TradeNames.Spoken(List)} = {TradeNames.Spoken(Column)} (line {Line.ToString(CultureInfo.InvariantCulture)})";
    public override decimal Left => Parts.Sum();
    public override decimal Right => Whole;
    public override decimal Tolerance => 0;
    protected override string Says => $"Line {Line.ToString(CultureInfo.InvariantCulture)}: its {TradeNames.Spoken(List)} come to";

    /// <summary>Quantities are no money: they are shown as they are.</summary>
    protected override string Show(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
