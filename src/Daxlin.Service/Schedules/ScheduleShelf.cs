using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Schedules;
using Daxlin.Service.History;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

/// <summary>The schedules that were saved.</summary>
internal sealed class ScheduleShelf(DaxlinDb db, TimeProvider clock) : DocumentShelf<ScheduleVersion>(db, clock)
{
    public override string What => "schedule";

    protected override string Act => HistoryActs.ScheduleSaved;

    protected override string StreamOf(string name) => HistoryStreams.Schedule(name);

    /// <remarks>What is due next is reckoned anew from now: times that passed while it was retired, or said otherwise, are not made up.</remarks>
    protected override async Task Changed(string name, CancellationToken cancel)
    {
        (await StateOf(name, cancel)).NextAt = null;
        await Db.SaveChangesAsync(cancel);
    }

    /// <summary>What a document says; null for one that a later release cannot read any more.</summary>
    public static Schedule? Read(ScheduleVersion row)
    {
        try
        {
            return ScheduleReader.Read(row.Document);
        }
        catch (JsonFaultException)
        {
            return null;
        }
    }

    /// <summary>How a schedule is; made at its first version.</summary>
    public async Task<ScheduleState> StateOf(string name, CancellationToken cancel)
    {
        if (await Db.ScheduleStates.SingleOrDefaultAsync(row => row.Name == name, cancel) is { } kept)
            return kept;
        var state = new ScheduleState { Name = name };
        Db.ScheduleStates.Add(state);
        return state;
    }

    /// <summary>Stops what a schedule does by itself, or goes on from now; what is so already stays so.</summary>
    public async Task SetPaused(string name, bool isPaused, string note, string who, CancellationToken cancel)
    {
        var state = await StateOf(name, cancel);
        if (state.IsPaused == isPaused)
            return;
        (state.IsPaused, state.NextAt) = (isPaused, null);
        await HistoryLog.Record(
            Db, new Deed(HistoryStreams.Schedule(name), Now, who, isPaused ? HistoryActs.SchedulePaused : HistoryActs.ScheduleResumed, isPaused ? "paused" : "went on") { Reason = note }, cancel);
        await Db.SaveChangesAsync(cancel);
    }

    /// <summary>A sentence for each schedule in use of whose last turn nothing came.</summary>
    public static async Task<List<string>> Troubles(DaxlinDb db, CancellationToken cancel)
    {
        var retired = Newest(db).Where(row => row.IsRetired).Select(row => row.Name);
        var troubled = await db.ScheduleStates.AsNoTracking().Where(state => state.Trouble != "" && !state.IsPaused && !retired.Contains(state.Name)).OrderBy(state => state.Name).ToListAsync(cancel);
        return troubled.ConvertAll(state => string.Create(CultureInfo.InvariantCulture, $"The schedule “{state.Name}” could not do its work, since {state.TroubleSince:yyyy-MM-dd HH:mm} UTC: {state.Trouble}"));
    }

    /// <summary>The word for how a schedule is.</summary>
    public static string WordOf(bool isRetired, ScheduleState? state) => isRetired ? "retired" : state is { IsPaused: true } ? "paused" : state is { Trouble.Length: > 0 } ? "trouble" : "in-use";
}
