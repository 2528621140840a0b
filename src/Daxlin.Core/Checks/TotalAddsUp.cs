using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that subtotal − discount + freight + tax is the stated total.</summary>
/// <param name="SubtotalIsStated">Says that the subtotal is printed; else it is the sum of the lines.</param>
/// <param name="Tax">What is added; 0 where the subtotal holds the tax already.</param>
public sealed record TotalAddsUp(
    decimal Subtotal, bool SubtotalIsStated, decimal Discount, decimal Freight, decimal Tax, decimal Total,
    CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override string Code => "total";

    public override string Equation =>
        $"{(SubtotalIsStated ? "subtotal" : "Σ line amounts")}{(Discount == 0 ? "" : " − discount")}{(Freight == 0 ? "" : " + freight")}{(Tax == 0 ? "" : " + tax")} = total";

    public override decimal Left => Subtotal - Discount + Freight + Tax;
    public override decimal Right => Total;
    public override decimal Tolerance => Rule.SumTolerance;

    protected override string Says => Discount == 0 && Freight == 0 && Tax == 0
        ? $"{(SubtotalIsStated ? "The subtotal" : "The sum of the lines")}, to which neither discount nor freight nor tax was captured, comes to"
        : $"{Currency.Show(Subtotal)}{Part(" less discount", Discount)}{Part(" plus freight", Freight)}{Part(" plus tax", Tax)} comes to";

    private string Part(string word, decimal amount) => amount == 0 ? "" : $"{word} {Currency.Show(amount)}";
}
