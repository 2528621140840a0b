using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Schedules;
using Daxlin.Service.History;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Schedules;

/// <summary>The schedules that were saved.</summary>
internal sealed class ScheduleShelf(DaxlinDb db, TimeProvider clock) : PausableShelf<ScheduleVersion, ScheduleState>(db, clock)
{
    public override string What => "schedule";

    protected override string Act => HistoryActs.ScheduleSaved;

    protected override string StreamOf(string name) => HistoryStreams.Schedule(name);

    protected override (string Paused, string Resumed) Pauses => (HistoryActs.SchedulePaused, HistoryActs.ScheduleResumed);

    /// <remarks>What is due next is reckoned anew from now: times that passed while it was paused or retired, or said otherwise, are not made up.</remarks>
    protected override void Turned(ScheduleState state) => state.NextAt = null;

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

    /// <summary>A sentence for each schedule in use of whose last turn nothing came.</summary>
    public static async Task<List<string>> Troubles(DaxlinDb db, CancellationToken cancel) => (await Troubled(db, cancel)).ConvertAll(
        state => string.Create(CultureInfo.InvariantCulture, $"The schedule “{state.Name}” could not do its work, since {state.TroubleSince:yyyy-MM-dd HH:mm} UTC: {state.Trouble}"));

    /// <summary>Pauses the schedules of a backup: the service that it was made of may have gone on, and posted since.</summary>
    /// <returns>How many are paused by it.</returns>
    public static async Task<int> PauseRestored(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        var paused = await PauseRestored(db, HistoryStreams.Schedule, HistoryActs.SchedulePaused, at, cancel);
        foreach (var state in paused)
            state.NextAt = null;
        await db.SaveChangesAsync(cancel);
        return paused.Count;
    }

    /// <summary>The word for how a schedule is.</summary>
    public static new string WordOf(bool isRetired, ScheduleState? state) => PausableShelf<ScheduleVersion, ScheduleState>.WordOf(isRetired, state) ?? "in-use";
}
