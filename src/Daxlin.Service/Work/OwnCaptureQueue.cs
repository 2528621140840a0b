using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Of a service that has its database for itself, in its memory.</summary>
internal sealed class OwnCaptureQueue(IDbContextFactory<DaxlinDb> databases) : CaptureQueue
{
    private readonly Lock guard = new();
    private readonly Queue<int> turns = [];
    private readonly Dictionary<int, Queue<int>> waiting = [];
    private readonly SemaphoreSlim count = new(0);

    public override async Task<int> Begin(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var before = await db.Intakes.Where(intake => intake.State == IntakeState.Waiting).OrderBy(intake => intake.Id).Select(intake => new { intake.BatchId, intake.Id }).ToListAsync(cancel);
        foreach (var intake in before)
            Add(intake.BatchId, intake.Id);
        return before.Count;
    }

    public override void Add(int batch, int intake)
    {
        lock (guard)
        {
            if (!waiting.TryGetValue(batch, out var own))
            {
                waiting.Add(batch, own = new Queue<int>());
                turns.Enqueue(batch);
            }
            own.Enqueue(intake);
        }
        count.Release();
    }

    public override async Task<(int Batch, int Intake)> Next(CancellationToken cancel)
    {
        await count.WaitAsync(cancel);
        lock (guard)
        {
            var batch = turns.Dequeue();
            var own = waiting[batch];
            var intake = own.Dequeue();
            if (own.Count > 0)
                turns.Enqueue(batch);
            else
                waiting.Remove(batch);
            return (batch, intake);
        }
    }

    public override Task End(int intake, CancellationToken cancel) => Task.CompletedTask;

    public override void Dispose() => count.Dispose();
}
