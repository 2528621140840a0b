using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Takes the tax off amounts that include it, rate by rate, so that what is taken off comes to the stated taxes to the last minor unit.</summary>
/// <remarks>
/// Of 107.00 and 53.50 at 7 % with a stated tax of 10.50, 7.00 and 3.50 are taken off. Where a rate is not stated, that of freight mostly,
/// each rate of the invoice is tried; the one under which the stated taxes come out is it, and if several do, none is.
/// </remarks>
internal static class NetAmounts
{
    /// <summary>Amounts whose rate is tried: freight and a discount. Of more, too many ways come to the same taxes by chance.</summary>
    private const int MostTried = 2;

    /// <param name="amounts">With the tax, each with its rate in per cent; null if none is stated.</param>
    /// <param name="taxes">Of the summary; a rate of null where only the sum of the taxes is stated.</param>
    /// <returns>The amounts without it; null where it cannot be told which of them includes how much.</returns>
    public static ImmutableArray<decimal>? Of(ImmutableArray<(decimal Amount, decimal? Rate)> amounts, ImmutableArray<(decimal? Rate, decimal Tax)> taxes, int minorDigits)
    {
        if (taxes is [var only])
            return Taken([.. amounts.Select(one => one with { Rate = one.Rate == 0 ? 0 : only.Rate is null ? null : one.Rate ?? only.Rate })], taxes, minorDigits);
        var untold = Enumerable.Range(0, amounts.Length).Where(at => amounts[at] is { Rate: null, Amount: not 0 }).ToList();
        if (untold.Count > MostTried)
            return null;
        IEnumerable<ImmutableArray<(decimal Amount, decimal? Rate)>> tried = [amounts];
        foreach (var at in untold)
            tried = tried.SelectMany(so => taxes.Select(tax => so.SetItem(at, so[at] with { Rate = tax.Rate })));
        var fitting = tried.Select(so => Taken(so, taxes, minorDigits)).Where(net => net is not null).Take(2).ToList();
        return fitting is [var one] ? one : null;
    }

    private static ImmutableArray<decimal>? Taken(ImmutableArray<(decimal Amount, decimal? Rate)> amounts, ImmutableArray<(decimal? Rate, decimal Tax)> taxes, int minorDigits)
    {
        var net = amounts.Select(one => one.Amount).ToArray();
        var unit = new decimal(1, 0, 0, false, (byte)minorDigits);
        var left = Enumerable.Range(0, net.Length).ToHashSet();
        foreach (var tax in taxes)
        {
            var of = left.Where(at => amounts[at].Rate == tax.Rate).ToList();
            left.ExceptWith(of);
            var gross = of.Sum(at => amounts[at].Amount);
            // What is taken off must be what the rate says, but for what the vendor rounded, line by line or once.
            if (tax.Rate is { } rate && Math.Abs(tax.Tax - gross * rate / (100 + rate)) > unit * (of.Count + 1) / 2m)
                return null;
            if (tax.Tax == 0)
                continue;
            if (gross == 0)
                return null;
            var shares = SharedAmount.Of(tax.Tax, [.. of.Select(at => amounts[at].Amount)], minorDigits);
            for (var at = 0; at < of.Count; at++)
                net[of[at]] -= shares[at];
        }
        // What is taxed at 0 % holds none, whether or not the summary has a row for it.
        return left.All(at => amounts[at].Amount == 0 || amounts[at].Rate == 0) ? [.. net] : null;
    }
}
