using Daxlin.Service.Nodes;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Of services that share a database: what waits is asked of the database each time, and taken by a lease.</summary>
internal sealed class SharedCaptureQueue : CaptureQueue
{
    private const string Topic = "captures";

    /// <summary>What a service had that died comes back without anyone saying so.</summary>
    private static readonly TimeSpan LongestSleep = TimeSpan.FromSeconds(5);

    private readonly StoredLeases leases;
    private readonly NodeMessages messages;
    private readonly StorageState storage;
    private readonly IDbContextFactory<DaxlinDb> databases;
    private readonly SemaphoreSlim woken = new(0);
    private int asleep;
    private int last;

    public SharedCaptureQueue(StoredLeases leases, NodeMessages messages, StorageState storage, IDbContextFactory<DaxlinDb> databases)
    {
        (this.leases, this.messages, this.storage, this.databases) = (leases, messages, storage, databases);
        messages.Listen(Topic, _ => Wake());
    }

    public override async Task<int> Begin(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Intakes.CountAsync(intake => intake.State == IntakeState.Waiting, cancel);
    }

    public override void Add(int batch, int intake)
    {
        Wake();
        messages.Tell(Topic, 0);
    }

    public override async Task<(int Batch, int Intake)> Next(CancellationToken cancel)
    {
        while (true)
        {
            // Whoever falls asleep says so before looking: what is added after the look wakes it.
            Interlocked.Increment(ref asleep);
            try
            {
                var taken = await leases.TakeCapture(last, cancel) ?? await leases.TakeCapture(0, cancel);
                // A lease is a change, and is refused where none is taken, even if there is nothing to lease.
                storage.TookChange();
                if (taken is var (batch, intake))
                {
                    last = batch;
                    return (batch, intake);
                }
                await woken.WaitAsync(LongestSleep, cancel);
            }
            finally
            {
                Interlocked.Decrement(ref asleep);
            }
        }
    }

    public override Task End(int intake, CancellationToken cancel) => leases.End(Leases.Capture, intake, cancel);

    /// <summary>Wakes all who wait here. One too many looks once more in vain.</summary>
    private void Wake()
    {
        var missing = Volatile.Read(ref asleep) - woken.CurrentCount;
        if (missing > 0)
            woken.Release(missing);
    }

    public override void Dispose() => woken.Dispose();
}
