using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>Parts the discount and the charge on a whole invoice by rate.</summary>
/// <remarks>
/// Lines of 100.00 at 20 % and 50.00 at 5 % over bases of 90.00 and 45.00 have a discount of 10.00 at 20 % and 5.00 at 5 %. Where both a
/// discount and a charge are stated, the charge is taken to be at one rate, if just one rate leaves a discount at each.
/// </remarks>
internal static class UblSharing
{
    /// <param name="rates">What the lines come to at each rate, and its base.</param>
    /// <returns>Null where it cannot be told.</returns>
    public static ImmutableArray<UblAllowance>? Of(IReadOnlyList<(decimal Rate, decimal Lines, decimal Base)> rates, decimal discount, decimal charge)
    {
        if (rates is [var (only, _, _)])
            return Parts([(only, discount)], [(only, charge)]);
        // Then there is nothing to part, and a base that is another sum is told as such.
        if (discount == 0 && charge == 0)
            return [];
        var less = rates.Select(one => (one.Rate, Amount: one.Lines - one.Base)).ToList();
        if (less.Sum(one => one.Amount) != discount - charge)
            return null;
        if (charge == 0)
            return less.TrueForAll(one => one.Amount >= 0) ? Parts(less, []) : null;
        if (discount == 0)
            return less.TrueForAll(one => one.Amount <= 0) ? Parts([], less.Select(one => (one.Rate, -one.Amount))) : null;
        var ways = less.Select(at => less.ConvertAll(one => (one.Rate, Amount: one.Amount + (one.Rate == at.Rate ? charge : 0))))
            .Select((discounts, at) => (discounts, less[at].Rate)).Where(way => way.discounts.TrueForAll(one => one.Amount >= 0)).ToList();
        return ways is [var (off, rate)] ? Parts(off, [(rate, charge)]) : null;
    }

    private static ImmutableArray<UblAllowance> Parts(IEnumerable<(decimal Rate, decimal Amount)> discounts, IEnumerable<(decimal Rate, decimal Amount)> charges) =>
    [
        .. discounts.Where(one => one.Amount != 0).Select(one => new UblAllowance(false, one.Rate, one.Amount)),
        .. charges.Where(one => one.Amount != 0).Select(one => new UblAllowance(true, one.Rate, one.Amount)),
    ];
}
