using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the line amounts of an invoice add up to its stated subtotal.</summary>
/// <remarks>
/// To the last minor unit: printed amounts are rounded already, so three lines of 0.33 EUR add up to 0.99 and nothing
/// else. A vendor that adds before it rounds needs a sumTolerance in its template.
/// </remarks>
public sealed record LinesAddUp(
    ImmutableArray<decimal> Lines, decimal Subtotal, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "lines-subtotal";
    public override string Equation => "Σ line amounts = subtotal";
    public override decimal Left => Lines.Sum();
    public override decimal Right => Subtotal;
    public override decimal Tolerance => Rule.SumTolerance;
    protected override string Says => Lines.Length == 1 ? "The one line comes to" : $"The {Lines.Length} lines add up to";
}
