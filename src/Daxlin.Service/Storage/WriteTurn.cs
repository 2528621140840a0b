namespace Daxlin.Service.Storage;

/// <summary>One writer at a time: SQLite allows no more, and a check must still be true when its result is written.</summary>
public sealed class WriteTurn : IDisposable
{
    private readonly SemaphoreSlim turn = new(1, 1);

    public async Task<IDisposable> Take(CancellationToken cancel)
    {
        await turn.WaitAsync(cancel);
        return new Held(turn);
    }

    public void Dispose() => turn.Dispose();

    private sealed class Held(SemaphoreSlim turn) : IDisposable
    {
        public void Dispose() => turn.Release();
    }
}
