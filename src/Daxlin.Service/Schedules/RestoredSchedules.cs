using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

/// <summary>What schedules of a backup must not do by themselves: the service that it was made of may have gone on, and posted since.</summary>
internal static class RestoredSchedules
{
    /// <returns>How many are paused by it.</returns>
    public static async Task<int> Pause(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        var retired = await ScheduleShelf.Newest(db).Where(row => row.IsRetired).Select(row => row.Name).ToListAsync(cancel);
        var used = await db.ScheduleStates.Where(state => !state.IsPaused && !retired.Contains(state.Name)).OrderBy(state => state.Name).ToListAsync(cancel);
        foreach (var state in used)
        {
            (state.IsPaused, state.NextAt) = (true, null);
            await HistoryLog.Record(db, new Deed(HistoryStreams.Schedule(state.Name), at, Deed.Daxlin, HistoryActs.SchedulePaused, "paused") { Reason = "It was restored from a backup." }, cancel);
        }
        foreach (var turn in await db.ScheduledTurns.Where(row => row.State == MailState.Waiting || row.State == MailState.Sending).ToListAsync(cancel))
            (turn.State, turn.Says) = (MailState.GivenUp, "It waited when the backup was made that this was restored from; whether it was sent since, nobody can tell here.");
        await db.SaveChangesAsync(cancel);
        return used.Count;
    }
}
