using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Parts an amount by shares, so that the shares come to the amount to its last digit.</summary>
/// <remarks>
/// Each share is cut to the currency's smallest unit, and the units that are left go one by one to those that lost most by it (largest
/// remainder, Hamilton 1791), the first of equals first. 100.00 in three equal parts is 33.34, 33.33 and 33.33.
/// </remarks>
public static class SharedAmount
{
    /// <param name="parts">They do not come to 0 together. One below 0 gets a share of the other sign.</param>
    /// <param name="minorDigits">Digits behind the point of the currency; an amount with more keeps its own.</param>
    public static ImmutableArray<decimal> Of(decimal amount, ImmutableArray<decimal> parts, int minorDigits)
    {
        if (parts.Length == 1)
            return [amount];
        var unit = 1m;
        for (var digit = 0; digit < Math.Max(minorDigits, amount.Scale); digit++)
            unit /= 10;
        var all = parts.Sum();
        var units = Math.Abs(amount) / unit;
        var exact = parts.Select(part => units * part / all).ToArray();
        var shares = exact.Select(Math.Floor).ToArray();
        var left = (int)(units - shares.Sum());
        foreach (var at in Enumerable.Range(0, shares.Length).OrderByDescending(at => exact[at] - shares[at]).ThenBy(at => at).Take(left))
            shares[at]++;
        return [.. shares.Select(share => Math.Sign(amount) * share * unit)];
    }
}
