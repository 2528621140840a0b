using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that a sum printed between the rows is what the rows above it come to.</summary>
/// <param name="Text">The line as printed.</param>
public sealed record RowsAboveAddUp(string Text, decimal Counted, decimal Stated, CheckRule Rule, Currency Currency)
    : Tie(Currency, ImmutableArray<string>.Empty)
{
    public override string Code => "section-sum";
    public override string Equation => $"Σ rows above = “{Text}”";
    public override decimal Left => Counted;
    public override decimal Right => Stated;
    public override decimal Tolerance => Rule.SumTolerance;
    protected override string Says => $"The rows above “{Text}” come to";
}
