using System.Collections.Immutable;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Operation;

/// <summary>What waits in the database, whichever service will do it.</summary>
/// <param name="Documents">How many wait for their capture.</param>
/// <param name="OldestAt">When the one was taken in that waits longest; null if none waits.</param>
/// <param name="OldestSeconds">How long ago that was when it was looked; 0 if none waits.</param>
/// <param name="Invoices">How many there are of each state.</param>
/// <param name="Deliveries">How many there are of each state.</param>
internal sealed record Backlog(
    int Documents, DateTime? OldestAt, double OldestSeconds, ImmutableSortedDictionary<string, int> Invoices, ImmutableSortedDictionary<string, int> Deliveries)
{
    public static Backlog None { get; } = new(0, null, 0, ImmutableSortedDictionary<string, int>.Empty, ImmutableSortedDictionary<string, int>.Empty);

    public static async Task<Backlog> Of(DaxlinDb db, DateTime now, CancellationToken cancel)
    {
        var waiting = db.Intakes.Where(row => row.State == IntakeState.Waiting);
        var count = await waiting.CountAsync(cancel);
        var oldest = count == 0 ? null : await waiting.MinAsync(row => (DateTime?)row.ReceivedAt, cancel);
        var invoices = await db.Invoices.GroupBy(row => row.State).Select(group => new { State = group.Key, Count = group.Count() }).ToListAsync(cancel);
        var deliveries = await db.Deliveries.GroupBy(row => row.State).Select(group => new { State = group.Key, Count = group.Count() }).ToListAsync(cancel);
        return new Backlog(
            count, oldest, oldest is { } at ? Math.Max(0, (now - at).TotalSeconds) : 0,
            invoices.ToImmutableSortedDictionary(one => Word(one.State), one => one.Count, StringComparer.Ordinal),
            deliveries.ToImmutableSortedDictionary(one => Word(one.State), one => one.Count, StringComparer.Ordinal));
    }

    /// <summary>As the interface spells states: <c>given-up</c>.</summary>
    private static string Word(Enum state) => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName(state.ToString());
}
