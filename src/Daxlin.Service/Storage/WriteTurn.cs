namespace Daxlin.Service.Storage;

/// <summary>One change at a time, in whichever of the processes that share a database: a check must still be true when its result is stored.</summary>
public sealed class WriteTurn : IDisposable
{
    private readonly SemaphoreSlim turn = new(1, 1);
    private readonly Store store;

    internal WriteTurn(Store store) => this.store = store;

    /// <summary>Waits for the turn, and begins a change of all that the context reads and stores until the change ends.</summary>
    /// <remarks>
    /// Within this process the turn is a lock of memory, so that whoever waits holds no connection. Between processes it is a lock of the
    /// database that belongs to the transaction: a process that dies, or loses its connection, has neither the turn nor any of its change stored.
    /// </remarks>
    public async Task<Change> Take(DaxlinDb db, CancellationToken cancel)
    {
        await turn.WaitAsync(cancel);
        try
        {
            return await Change.Begin(db, store, turn, cancel);
        }
        catch
        {
            turn.Release();
            throw;
        }
    }

    public void Dispose() => turn.Dispose();
}
