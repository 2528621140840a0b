using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that the total less what was paid before, a deposit or an earlier payment, is the amount due.</summary>
/// <param name="Paid">What is taken off, with the sign of the total; 0 if nothing was captured.</param>
public sealed record AmountDueAddsUp(decimal Total, decimal Paid, decimal AmountDue, CheckRule Rule, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => "amount-due";
    public override string Equation => Paid == 0 ? "total = amount due" : "total − already paid = amount due";
    public override decimal Left => Total - Paid;
    public override decimal Right => AmountDue;
    public override decimal Tolerance => Rule.SumTolerance;
    protected override string Says => Paid == 0 ? "The total, of which nothing was paid before, comes to" : $"{Currency.Show(Total)} less {Currency.Show(Paid)} already paid comes to";
}
