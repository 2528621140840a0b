using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>A tie that says what a tax comes to. Vendors round it by line, by rate or once; whichever the template allows holds.</summary>
/// <param name="TaxByLine">What it comes to if it is rounded on each line; null where the lines do not tell.</param>
public abstract record RoundedTax(decimal? TaxByLine, CheckRule Rule, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override bool HasFactors => true;

    /// <summary>What it comes to otherwise, the usual way first.</summary>
    protected abstract IEnumerable<(TaxRoundings By, decimal Tax)> Otherwise { get; }

    /// <summary>Where the lines do not tell what the template allows, what they would tell is not asked for.</summary>
    private List<(TaxRoundings By, decimal Tax)> Allowed
    {
        get
        {
            List<(TaxRoundings By, decimal Tax)> all = [.. Otherwise];
            if (TaxByLine is { } byLine)
                all.Add((TaxRoundings.ByLine, byLine));
            var allowed = all.FindAll(way => (way.By & Rule.TaxRounding) != 0);
            return allowed.Count > 0 ? allowed : all;
        }
    }

    /// <summary>The first of the ways that comes to what is stated; the usual one if none does.</summary>
    public sealed override decimal Left => Allowed is var ways && ways.FindIndex(Fits) is >= 0 and var at ? ways[at].Tax : ways[0].Tax;

    public sealed override decimal Tolerance => Rule.TaxTolerance;

    /// <summary>The ways of rounding under which it holds, with that on each line where the lines do not tell.</summary>
    private TaxRoundings Roundings => Allowed.Where(Fits).Aggregate(TaxByLine is null ? TaxRoundings.ByLine : TaxRoundings.None, (all, way) => all | way.By);

    private bool Fits((TaxRoundings By, decimal Tax) way) => Math.Abs(Right - way.Tax) <= Tolerance;

    /// <summary>
    /// The ways under which all taxes of an invoice hold that hold at all. Any if it does not tell them apart, or has none: then it
    /// says nothing of how its vendor rounds; nor does one with freight or a discount, which may have been taxed in several ways. None
    /// if one tax holds one way only, and another another way.
    /// </summary>
    public static TaxRoundings Of(CheckedInvoice invoice) =>
        invoice.Captured.Amount(TradeNames.Freight) is not (null or 0) || invoice.Captured.Amount(TradeNames.Discount) is not (null or 0) ? TaxRoundings.Any
        : invoice.Ties.OfType<RoundedTax>().Where(tie => tie.Holds).Aggregate(TaxRoundings.Any, (all, tie) => all & tie.Roundings);
}
