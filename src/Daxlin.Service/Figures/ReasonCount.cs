using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Figures;

/// <summary>How many invoices a kind of finding holds. One that is held by two kinds counts for both.</summary>
/// <param name="Says">The code in a few words.</param>
public sealed record ReasonCount(string Code, string Says, int Invoices)
{
    /// <summary>The most frequent first.</summary>
    internal static async Task<ImmutableArray<ReasonCount>> Of(IQueryable<CountedInvoice> invoices, CancellationToken cancel)
    {
        var held = await invoices.Where(invoice => invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Unplaced)
            .GroupBy(invoice => invoice.HeldBy).Select(group => new { Codes = group.Key, Count = group.Count() }).ToListAsync(cancel);
        return
        [
            .. held.SelectMany(one => one.Codes.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(code => (code, one.Count))).GroupBy(one => one.code)
                .Select(group => new ReasonCount(group.Key, FindingWords.Of(group.Key), group.Sum(one => one.Count)))
                .OrderByDescending(reason => reason.Invoices).ThenBy(reason => reason.Code, StringComparer.Ordinal),
        ];
    }
}
