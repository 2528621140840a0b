using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Sums;

/// <summary>Adds invoices up, one after the other; amounts in different currencies are never added.</summary>
public sealed class SumsSoFar(SumBy by)
{
    private readonly Dictionary<(string Key, string Currency), (int Invoices, decimal Amount)> sums = [];
    private readonly Dictionary<string, (int Invoices, decimal Amount)> all = [];

    public void Add(ApprovedInvoice invoice)
    {
        var parts = SummedPart.Of(invoice, by);
        foreach (var same in parts.GroupBy(part => part.Key))
        {
            var (invoices, amount) = sums.GetValueOrDefault((same.Key, invoice.Currency));
            sums[(same.Key, invoice.Currency)] = (invoices + 1, amount + same.Sum(part => part.Amount));
        }
        var (count, sum) = all.GetValueOrDefault(invoice.Currency);
        all[invoice.Currency] = (count + 1, sum + parts.Sum(part => part.Amount));
    }

    /// <summary>By currency; months in their order, anything else the largest first.</summary>
    public ImmutableArray<SummedGroup> Groups
    {
        get
        {
            var groups = sums.Select(sum => new SummedGroup(sum.Key.Key, sum.Key.Currency, sum.Value.Invoices, sum.Value.Amount)).OrderBy(group => group.Currency, StringComparer.Ordinal);
            return [.. (by == SumBy.Month ? groups : groups.ThenByDescending(group => Math.Abs(group.Amount))).ThenBy(group => group.Key, StringComparer.Ordinal)];
        }
    }

    /// <summary>What all of it comes to, by currency.</summary>
    public ImmutableArray<SummedGroup> Totals =>
        [.. all.OrderBy(sum => sum.Key, StringComparer.Ordinal).Select(sum => new SummedGroup("", sum.Key, sum.Value.Invoices, sum.Value.Amount))];
}

/// <summary>What some invoices come to.</summary>
/// <param name="Invoices">How many of them have a part in it.</param>
public sealed record SummedGroup(string Key, string Currency, int Invoices, decimal Amount);
