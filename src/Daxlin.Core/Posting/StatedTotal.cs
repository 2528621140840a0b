using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>What a batch is to come to in one currency, as its cover sheet says.</summary>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Invoices">How many invoices; null if only the sum is known.</param>
/// <param name="Sum">Credit notes taken off; null if only the count is known.</param>
public sealed record StatedTotal(string Currency, int? Invoices, decimal? Sum)
{
    /// <summary>What several cover sheets state together; a count or a sum that one of them does not state is not known of all.</summary>
    public static ImmutableArray<StatedTotal> Together(IEnumerable<StatedTotal> totals) =>
    [
        .. totals.GroupBy(total => total.Currency).OrderBy(all => all.Key, StringComparer.Ordinal)
            .Select(all => new StatedTotal(
                all.Key, all.Any(total => total.Invoices is null) ? null : all.Sum(total => total.Invoices), all.Any(total => total.Sum is null) ? null : all.Sum(total => total.Sum))),
    ];
}
