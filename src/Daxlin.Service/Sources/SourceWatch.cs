using System.Collections.Concurrent;
using Daxlin.Core.Sources;
using Daxlin.Service.Nodes;
using Daxlin.Service.Sources.Mailboxes;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

/// <summary>Looks at each source again and again, different sources at once, and one at a time in one service of several.</summary>
internal sealed class SourceWatch(
    IDbContextFactory<DaxlinDb> databases, SourceWays ways, MailboxLook mailboxes, Leases leases, NodeMessages messages, TimeProvider clock, ILogger<SourceWatch> log) : BackgroundService
{
    /// <summary>A source that could not be looked at, or that another service looks at, is tried again after so long.</summary>
    private static readonly TimeSpan AfterTrouble = TimeSpan.FromSeconds(10);

    /// <summary>So long until it is seen that a look has ended.</summary>
    private static readonly TimeSpan WhileBusy = TimeSpan.FromMilliseconds(250);

    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(30);

    private readonly WakeCall call = new(messages, "sources");
    private readonly ConcurrentDictionary<string, (int Version, DateTime At)> next = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, bool> busy = new(StringComparer.Ordinal);
    private readonly List<Task> looks = [];
    private readonly ConcurrentDictionary<string, bool> news = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, SemaphoreSlim> atIt = new(StringComparer.Ordinal);

    /// <summary>A source was changed, paused or brought back.</summary>
    public void Wake() => call.Wake();

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var rest = TimeSpan.Zero;
        mailboxes.News += LookSoon;
        try
        {
            while (true)
            {
                using var wake = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
                await Task.WhenAny(call.Wait(wake.Token), Task.Delay(rest, clock, wake.Token));
                await wake.CancelAsync();
                stoppingToken.ThrowIfCancellationRequested();
                try
                {
                    rest = await LookAtDue(stoppingToken);
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested)
                {
                    log.LogWarning(error, "The sources were not looked at");
                    rest = AfterTrouble;
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops; what is there is taken after the next start.
        }
        finally
        {
            await Task.WhenAll(looks).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private void LookSoon(string source)
    {
        news[source] = true;
        Wake();
    }

    /// <summary>Begins to look at what is due.</summary>
    /// <returns>How long until the next is due.</returns>
    private async Task<TimeSpan> LookAtDue(CancellationToken cancel)
    {
        List<SourceVersion> sources;
        await using (var db = await databases.CreateDbContextAsync(cancel))
        {
            sources = await SourceShelf.Newest(db).AsNoTracking().Where(row => !row.IsRetired && !db.SourceStates.Any(state => state.Name == row.Name && state.IsPaused)).ToListAsync(cancel);
        }
        var local = clock.GetLocalNow().DateTime;
        sources.RemoveAll(row => SourceShelf.Read(row)?.Hours?.Contain(local) == false);
        foreach (var gone in next.Keys.Except(sources.Select(row => row.Name)).ToList())
            next.TryRemove(gone, out _);
        // One that is looked at this moment keeps its line; it is let go of the next time.
        await mailboxes.KeepOnly(sources.Select(row => row.Name).Concat(busy.Keys).ToHashSet(StringComparer.Ordinal));
        var now = clock.GetUtcNow().UtcDateTime;
        var due = sources.FindAll(row => !next.TryGetValue(row.Name, out var known) || known.Version != row.Version || known.At <= now || news.ContainsKey(row.Name));
        looks.RemoveAll(look => look.IsCompleted);
        foreach (var row in due.Where(row => busy.TryAdd(row.Name, true)))
            looks.Add(Task.Run(() => LookInItsTime(row, cancel), cancel));
        if (!busy.IsEmpty)
            return WhileBusy;
        if (sources.Count == 0)
            return LongestRest;
        var rest = next.Values.Min(one => one.At) - clock.GetUtcNow().UtcDateTime;
        return TimeSpan.FromTicks(Math.Clamp(rest.Ticks, TimeSpan.FromMilliseconds(100).Ticks, LongestRest.Ticks));
    }

    /// <summary>Looks at a source beside the others: a server that does not answer for a minute holds up nothing but itself.</summary>
    private async Task LookInItsTime(SourceVersion row, CancellationToken cancel)
    {
        var again = AfterTrouble;
        try
        {
            // What comes while it is looked at is looked at again.
            news.TryRemove(row.Name, out _);
            (_, again) = await Look(row, cancel);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested)
        {
            log.LogWarning(error, "The source {Source} was not looked at", row.Name);
        }
        catch (OperationCanceledException)
        {
            // The service stops.
        }
        finally
        {
            next[row.Name] = (row.Version, clock.GetUtcNow().UtcDateTime + again);
            busy.TryRemove(row.Name, out _);
        }
    }

    /// <summary>Looks at a source now, whether it is due or not. One look at a time is at it; who comes meanwhile waits.</summary>
    public async Task<(LookedAtSource Said, TimeSpan Again)> Look(SourceVersion row, CancellationToken cancel)
    {
        var one = atIt.GetOrAdd(row.Name, _ => new SemaphoreSlim(1, 1));
        await one.WaitAsync(cancel);
        try
        {
            return await LookAlone(row, cancel);
        }
        finally
        {
            one.Release();
        }
    }

    private async Task<(LookedAtSource Said, TimeSpan Again)> LookAlone(SourceVersion row, CancellationToken cancel)
    {
        int id;
        await using (var db = await databases.CreateDbContextAsync(cancel))
            id = await db.SourceStates.Where(state => state.Name == row.Name).Select(state => state.Id).SingleAsync(cancel);
        if (!await leases.Take(Leases.Source, id, cancel))
            return (new LookedAtSource(false, 0, 0, 0, 0, "Another of the services on the database looks at it at the moment."), AfterTrouble);
        try
        {
            if (SourceShelf.Read(row) is not { } source)
                throw new SourceTroubleException($"The source “{row.Name}” has faults: this release cannot read its document any more.");
            var looked = await ways.Look(source, cancel);
            await Note(row.Name, "", cancel);
            return (new LookedAtSource(true, looked.Taken, looked.Documents, looked.LeftOut, looked.Waiting, Says(looked)), looked.Again);
        }
        catch (SourceTroubleException error)
        {
            log.LogWarning(error, "The source {Source} could not be looked at", row.Name);
            await Note(row.Name, error.Message, cancel);
            return (new LookedAtSource(false, 0, 0, 0, 0, error.Message), AfterTrouble);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested)
        {
            log.LogError(error, "Looking at the source {Source} failed", row.Name);
            var why = StorageFaults.Of(error) is var (_, _, sentence) ? sentence : "Daxlin failed on this source; its log says where.";
            await Note(row.Name, why, cancel);
            return (new LookedAtSource(false, 0, 0, 0, 0, why), AfterTrouble);
        }
        finally
        {
            await leases.End(Leases.Source, id, CancellationToken.None);
        }
    }

    private async Task Note(string name, string trouble, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.SourceStates.Where(state => state.Name == name).ExecuteUpdateAsync(
            set => set.SetProperty(state => state.LookedAt, now).SetProperty(state => state.Trouble, trouble)
                .SetProperty(state => state.TroubleSince, state => trouble == "" ? null : state.TroubleSince ?? now), cancel);
    }

    private static string Says(LookedAt looked) => looked is { Taken: 0, Waiting: 0 } ? "There was nothing new."
        : string.Join(" ", new[]
        {
            looked.Taken == 0 ? "" : $"{looked.Taken} taken with {looked.Documents} {(looked.Documents == 1 ? "document" : "documents")}{(looked.LeftOut > 0 ? $"; {looked.LeftOut} left out" : "")}.",
            looked.Waiting == 0 ? "" : $"{looked.Waiting} not settled yet, for the next look.",
        }.Where(part => part.Length > 0));

    public override void Dispose()
    {
        call.Dispose();
        base.Dispose();
    }
}
