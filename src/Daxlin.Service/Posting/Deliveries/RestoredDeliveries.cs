using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>What waited for a receiver when a backup was made may have reached it since, from the service that the backup was made of: a person says how to go on.</summary>
internal static class RestoredDeliveries
{
    /// <returns>How many.</returns>
    public static async Task<int> GiveUp(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        var waiting = await db.Deliveries.Where(row => row.State == DeliveryState.Waiting).OrderBy(row => row.Id).ToListAsync(cancel);
        foreach (var row in waiting)
        {
            (row.State, row.EndedAt, row.IsBegun) = (DeliveryState.GivenUp, at, false);
            row.Says = $"It waited when the backup was made that this was restored from; whether {row.Receiver} has run {row.RunNumber} since, nobody can tell here. Look there, then send it again or settle it.";
            await HistoryLog.Record(
                db, new Deed(HistoryStreams.PostingRun(row.RunNumber), at, Deed.Daxlin, HistoryActs.DeliveryGivenUp, $"gave the delivery to {row.Receiver} up") { Reason = row.Says }, cancel);
        }
        await db.SaveChangesAsync(cancel);
        return waiting.Count;
    }
}
