namespace Daxlin.Service.Work;

/// <summary>Wakes a worker that waits for something to do. Calls that come while it works become one.</summary>
internal sealed class WakeCall : IDisposable
{
    // Once at the start: what a kill left is to be done.
    private readonly SemaphoreSlim woken = new(1, 1);

    public void Wake()
    {
        try
        {
            woken.Release();
        }
        catch (SemaphoreFullException)
        {
            // It is awake, or will be.
        }
    }

    public Task Wait(CancellationToken cancel) => woken.WaitAsync(cancel);

    public void Dispose() => woken.Dispose();
}
