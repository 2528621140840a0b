using Daxlin.Core.History;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.History;
using Daxlin.Service.Nodes;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>Hands runs to receivers: each receiver's in their order, different receivers' at once.</summary>
/// <remarks>
/// A run that takes another back must not arrive before it, so what waits for a receiver waits behind what failed before it, until that is
/// delivered or given up. What is handed over is stored step by step (<see cref="IDeliveryWay{TWay}"/>); a kill loses nothing.
/// </remarks>
internal sealed class DeliveryWorker(
    IDbContextFactory<DaxlinDb> databases, DeliveryWays ways, WriteTurn turn, DeliveryEvents events, NodeMessages messages, Leases leases, TimeProvider clock, ILogger<DeliveryWorker> log) : BackgroundService
{
    /// <summary>It looks again after so long at least: clocks are set, and a delivery that was forgotten would be forgotten for ever.</summary>
    private static readonly TimeSpan LongestRest = TimeSpan.FromMinutes(10);

    private static readonly TimeSpan WhileOthersDeliver = TimeSpan.FromSeconds(1);

    private readonly WakeCall call = new(messages, "deliveries");

    /// <summary>Something is to be delivered, or can be now.</summary>
    public void Wake() => call.Wake();

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var rest = TimeSpan.Zero;
        try
        {
            while (true)
            {
                await Rest(rest, stoppingToken);
                try
                {
                    rest = await DeliverDue(stoppingToken);
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested)
                {
                    log.LogError(error, "Looking for deliveries failed");
                    rest = LongestRest;
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops; what waits is delivered after the next start.
        }
    }

    private async Task Rest(TimeSpan rest, CancellationToken cancel)
    {
        using var wake = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var next = Task.Delay(rest, clock, wake.Token);
        await Task.WhenAny(call.Wait(wake.Token), next);
        await wake.CancelAsync();
        cancel.ThrowIfCancellationRequested();
    }

    /// <summary>Tries the first of each receiver that is due.</summary>
    /// <returns>How long until the next is due.</returns>
    private async Task<TimeSpan> DeliverDue(CancellationToken cancel)
    {
        List<Delivery> first;
        await using (var db = await databases.CreateDbContextAsync(cancel))
        {
            var waiting = db.Deliveries.AsNoTracking().Where(row => row.State == DeliveryState.Waiting);
            first = await waiting.Where(row => row.Id == waiting.Where(other => other.Receiver == row.Receiver).Min(other => other.Id)).ToListAsync(cancel);
        }
        var now = clock.GetUtcNow().UtcDateTime;
        var due = first.FindAll(row => row.NextAt <= now);
        if (due.Count == 0)
            return first.Count == 0 ? LongestRest : TimeSpan.FromTicks(Math.Min((first.Min(row => row.NextAt) - now).Ticks, LongestRest.Ticks));
        var tried = await Task.WhenAll(due.Select(row => Attempt(row.Id, cancel)));
        return tried.Contains(true) ? TimeSpan.Zero : WhileOthersDeliver;
    }

    /// <returns>False if another service is at it.</returns>
    private async Task<bool> Attempt(int id, CancellationToken cancel)
    {
        if (!await leases.Take(Leases.Delivery, id, cancel))
            return false;
        try
        {
            await AttemptHeld(id, cancel);
            return true;
        }
        finally
        {
            await leases.End(Leases.Delivery, id, CancellationToken.None);
        }
    }

    private async Task AttemptHeld(int id, CancellationToken cancel)
    {
        var isBegun = false;
        try
        {
            (var parcel, isBegun) = await ParcelOf(id, cancel);
            if (parcel is null)
                return;
            if (!isBegun)
            {
                await ways.Prepare(parcel, cancel);
                if (!await Change(id, row => row.IsBegun = true, null, cancel))
                    return;
            }
            var receipt = await ways.HandOver(parcel, isBegun, cancel);
            await Change(id, row => End(row, DeliveryState.Delivered, receipt), HistoryActs.Delivered, cancel);
        }
        catch (DeliveryFaultException error)
        {
            await Failed(id, error, isBegun, cancel);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested)
        {
            // Something that nobody thought of must neither be tried for ever nor stop others.
            log.LogError(error, "Delivery {Delivery} failed", id);
            await Failed(id, new DeliveryFaultException("Daxlin failed on this delivery; its log says where.", inner: error), isBegun, cancel);
        }
    }

    /// <returns>Null for one that another service has delivered since it was found.</returns>
    private async Task<(Parcel? Parcel, bool IsBegun)> ParcelOf(int id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.Deliveries.AsNoTracking().SingleAsync(one => one.Id == id, cancel);
        if (row.State != DeliveryState.Waiting)
            return (null, false);
        var newest = await ReceiverShelf.Newest(db).AsNoTracking().SingleAsync(one => one.Name == row.Receiver, cancel);
        if (newest.IsRetired)
            throw new DeliveryFaultException($"The receiver “{row.Receiver}” is retired.", nothingReached: true);
        if (ReceiverShelf.Read(newest) is not { } receiver)
            throw new DeliveryFaultException($"The receiver “{row.Receiver}” has faults: this release cannot read its document any more.", nothingReached: true);
        var run = await db.PostingRuns.AsNoTracking().SingleAsync(one => one.Number == row.RunNumber, cancel);
        var files = await db.PostedFiles.AsNoTracking().Where(file => file.RunNumber == row.RunNumber).OrderBy(file => file.Id).ToListAsync(cancel);
        if (files.Find(file => HistoryChain.ContentOf(file.Content) != file.Sha256) is { } altered)
            throw new DeliveryFaultException($"The file {altered.Name} of run {row.RunNumber} is not as it was written: something else than Daxlin changed it.", nothingReached: true);
        return (new Parcel(row.Key, receiver, run, [.. files]), row.IsBegun);
    }

    /// <param name="wasBegun">An attempt before this one may have handed over some of it.</param>
    private async Task Failed(int id, DeliveryFaultException error, bool wasBegun, CancellationToken cancel)
    {
        var wait = default(TimeSpan?);
        await Change(
            id,
            row =>
            {
                row.Attempts++;
                row.Says = error.Message;
                // Where nobody can tell, a person says; and what it says is done as if for the first time.
                if ((error.NothingReached && !wasBegun) || error.IsUnsure)
                    row.IsBegun = false;
                wait = error.IsUnsure ? null : DeliveryPatience.After(row.Attempts);
                if (wait is { } again)
                    row.NextAt = clock.GetUtcNow().UtcDateTime + again;
                else
                    End(row, DeliveryState.GivenUp, error.Message);
            },
            HistoryActs.DeliveryGivenUp, cancel);
    }

    private void End(Delivery row, DeliveryState state, string says) => (row.State, row.Says, row.EndedAt) = (state, says, clock.GetUtcNow().UtcDateTime);

    /// <param name="act">What the history says if the delivery has ended by it; null for a step that ends nothing.</param>
    /// <returns>False if a person said meanwhile how to go on; then nothing is changed.</returns>
    private async Task<bool> Change(int id, Action<Delivery> change, string? act, CancellationToken cancel)
    {
        int run;
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using (var stored = await turn.Take(db, cancel))
        {
            var row = await db.Deliveries.SingleAsync(one => one.Id == id, cancel);
            if (row.State != DeliveryState.Waiting)
                return false;
            change(row);
            if (act is not null && row.State != DeliveryState.Waiting)
            {
                await HistoryLog.Record(
                    db,
                    new Deed(
                        HistoryStreams.PostingRun(row.RunNumber), row.EndedAt ?? clock.GetUtcNow().UtcDateTime, Deed.Daxlin, act,
                        row.State == DeliveryState.Delivered ? $"delivered to {row.Receiver}" : $"gave the delivery to {row.Receiver} up")
                    { Reason = row.Says },
                    cancel);
            }
            await db.SaveChangesAsync(cancel);
            await stored.Commit(cancel);
            run = row.RunNumber;
        }
        events.Moved(run);
        return true;
    }

    public override void Dispose()
    {
        call.Dispose();
        base.Dispose();
    }
}
