using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>An equation that must hold between captured amounts.</summary>
/// <param name="Currency">The currency of both sides.</param>
/// <param name="Members">The values that stand in it: <c>total</c>, <c>lines[3].amount</c>.</param>
public abstract record Tie(Currency Currency, ImmutableArray<string> Members)
{
    /// <summary>The equation as a person reads it, recalculated side first: quantity × unit price = amount (line 3).</summary>
    public abstract string Equation { get; }

    /// <summary>What the captured amounts come to.</summary>
    public abstract decimal Left { get; }

    /// <summary>What the invoice states.</summary>
    public abstract decimal Right { get; }

    /// <summary>How far the two may be apart.</summary>
    public abstract decimal Tolerance { get; }

    /// <summary>Says that numbers are multiplied in it, and not only added up.</summary>
    public virtual bool HasFactors => false;

    /// <summary>A stable word for a finding of this kind.</summary>
    public abstract string Code { get; }

    /// <summary>What stands before the figures in a finding: "Line 3: 4 × 12.50 EUR comes to".</summary>
    protected abstract string Says { get; }

    /// <summary>Who says the stated side.</summary>
    protected virtual string WhoStates => "the invoice states";

    /// <summary>The stated side less the recalculated one.</summary>
    public decimal Difference => Right - Left;

    public virtual bool Holds => Math.Abs(Difference) <= Tolerance;

    /// <summary>What a person must look at if the tie does not hold.</summary>
    public Finding ToFinding() => new(
        Code, Severity.Hold,
        $"{Says} {Show(Left)}; {WhoStates} {Show(Right)} "
        + $"({Show(Math.Abs(Difference))} {(Difference > 0 ? "more" : "less")}).",
        Members);

    /// <summary>A number of either side as a person reads it.</summary>
    protected virtual string Show(decimal number) => Currency.Show(number);

    /// <summary>Rounds to the currency's minor unit.</summary>
    public static decimal Round(decimal amount, Currency currency, Templates.Rounding rounding) => rounding switch
    {
        Templates.Rounding.HalfEven => Math.Round(amount, currency.MinorDigits, MidpointRounding.ToEven),
        Templates.Rounding.Down => Math.Round(amount, currency.MinorDigits, MidpointRounding.ToZero),
        _ => Math.Round(amount, currency.MinorDigits, MidpointRounding.AwayFromZero),
    };
}
