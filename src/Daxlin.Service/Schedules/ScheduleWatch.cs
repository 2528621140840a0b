using System.Globalization;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

/// <summary>Has each schedule take its turn when it is due.</summary>
/// <remarks>
/// One change of the store holds the turn, what was done and when the schedule is due next. Of several services, and after a death in the middle, one does it once. Times that passed while
/// none ran are made up by one turn.
/// </remarks>
internal sealed class ScheduleWatch(IDbContextFactory<DaxlinDb> databases, IServiceScopeFactory scopes, WriteTurn write, TimeProvider clock, ILogger<ScheduleWatch> log)
    : RegularWork(TimeSpan.FromSeconds(1), clock, log)
{
    /// <summary>Missed times are counted so far.</summary>
    private const int MostCounted = 1000;

    /// <summary>One whose turn failed is tried again after so long.</summary>
    private static readonly TimeSpan AfterFailure = TimeSpan.FromMinutes(1);

    private readonly ILogger<ScheduleWatch> log = log;
    private readonly Dictionary<string, DateTime> failed = new(StringComparer.Ordinal);

    protected override async Task Do(CancellationToken cancel)
    {
        List<(ScheduleVersion Row, ScheduleState State)> schedules;
        await using (var db = await databases.CreateDbContextAsync(cancel))
            schedules = await InUse(db).Select(one => ValueTuple.Create(one.Row, one.State)).ToListAsync(cancel);
        foreach (var (row, state) in schedules.Where(one => ReckonedOf(one.Row, one.State) is { } next && (one.State.NextAt != next || next <= Now)))
        {
            if (failed.TryGetValue(row.Name, out var at) && at > Now && at - Now <= AfterFailure)
                continue;
            failed.Remove(row.Name);
            try
            {
                await ReckonOrTake(row.Name, cancel);
            }
            catch (Exception error) when (!cancel.IsCancellationRequested)
            {
                failed[row.Name] = Now + AfterFailure;
                log.LogError(error, "The schedule {Schedule} could not take its turn; it is tried again", row.Name);
                await NoteFailure(state.Id, error, cancel);
            }
        }
    }

    private DateTime Now => Clock.GetUtcNow().UtcDateTime;

    private static IQueryable<UsedSchedule> InUse(DaxlinDb db) =>
        from row in ScheduleShelf.Newest(db).AsNoTracking()
        join state in db.ScheduleStates on row.Name equals state.Name
        where !row.IsRetired && !state.IsPaused
        select new UsedSchedule { Row = row, State = state };

    /// <summary>When a schedule is due next: as it is noted, unless the clock was ahead when it was.</summary>
    private DateTime? ReckonedOf(ScheduleVersion row, ScheduleState state)
    {
        if (ScheduleShelf.Read(row) is not { } schedule)
            return null;
        if (state.NextAt <= Now)
            return state.NextAt;
        var next = schedule.Due.Next(Of(state.LastAt), Clock.GetUtcNow(), Clock.LocalTimeZone).UtcDateTime;
        return state.NextAt is { } noted && noted < next ? noted : next;
    }

    private static DateTimeOffset? Of(DateTime? time) => time is { } known ? new DateTimeOffset(DateTime.SpecifyKind(known, DateTimeKind.Utc)) : null;

    private async Task ReckonOrTake(string name, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DaxlinDb>();
        await using var change = await write.Take(db, cancel);
        if (await InUse(db).AsTracking().SingleOrDefaultAsync(one => one.Row.Name == name, cancel) is not { } used || ReckonedOf(used.Row, used.State) is not { } next)
            return;
        var (row, state) = (used.Row, used.State);
        if (next <= Now)
        {
            var turn = await scope.ServiceProvider.GetRequiredService<Turns>().Take(row, state, next, "", cancel);
            var due = ScheduleShelf.Read(row)!.Due;
            if (due.CountBetween(Of(next)!.Value, Clock.GetUtcNow(), Clock.LocalTimeZone, MostCounted) is > 0 and var missed)
                turn.Says = string.Create(CultureInfo.InvariantCulture, $"{turn.Says} It was due {missed + 1} times since {next:yyyy-MM-dd HH:mm} UTC, and is made up once.").Trim();
            state.LastAt = Now;
            next = due.Next(null, Clock.GetUtcNow(), Clock.LocalTimeZone).UtcDateTime;
        }
        state.NextAt = next;
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }

    private async Task NoteFailure(int state, Exception error, CancellationToken cancel)
    {
        var (why, now) = (StorageFaults.Of(error) is var (_, _, sentence) ? sentence : "Daxlin failed on this schedule; its log says where. It is tried again.", Now);
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.ScheduleStates.Where(row => row.Id == state).ExecuteUpdateAsync(set => set.SetProperty(row => row.Trouble, why).SetProperty(row => row.TroubleSince, row => row.TroubleSince ?? now), cancel);
    }

    private sealed class UsedSchedule
    {
        public required ScheduleVersion Row { get; init; }
        public required ScheduleState State { get; init; }
    }
}
