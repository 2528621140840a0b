namespace Daxlin.Service.Work;

/// <summary>
/// Which documents wait for their capture, batch by batch in turn, so that a batch of ten does not wait for one of ten
/// thousand. Only a way to wake the workers: what waits is in the database, so nothing is lost with this queue.
/// </summary>
public sealed class CaptureQueue : IDisposable
{
    private readonly Lock guard = new();
    private readonly Queue<int> turns = [];
    private readonly Dictionary<int, Queue<int>> waiting = [];
    private readonly SemaphoreSlim count = new(0);

    public void Add(int batch, int intake)
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

    /// <summary>The next document of the batch whose turn it is; waits if there is none.</summary>
    public async Task<(int Batch, int Intake)> Next(CancellationToken cancel)
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

    public void Dispose() => count.Dispose();
}
