using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Daxlin.Service.Storage;

/// <summary>A change under way: all that is stored until <see cref="Commit"/> is there then, at once; without it nothing is.</summary>
/// <remarks>What a refusal has begun to change is gone with it: <c>if (refused) return;</c> before the commit leaves nothing.</remarks>
public sealed class Change : IAsyncDisposable
{
    private readonly DaxlinDb db;
    private readonly IDbContextTransaction transaction;
    private readonly SemaphoreSlim turn;
    private readonly List<Action> then = [];

    private Change(DaxlinDb db, IDbContextTransaction transaction, SemaphoreSlim turn) => (this.db, this.transaction, this.turn) = (db, transaction, turn);

    internal static async Task<Change> Begin(DaxlinDb db, Store store, SemaphoreSlim turn, CancellationToken cancel)
    {
        var transaction = await db.Database.BeginTransactionAsync(cancel);
        try
        {
            // A change is stored as a whole or not at all, so no part of it is marked to come back to but by Part.
            db.Database.AutoSavepointsEnabled = false;
            await store.TakeTurn(db, cancel);
            return db.Change = new Change(db, transaction, turn);
        }
        catch
        {
            await transaction.DisposeAsync();
            throw;
        }
    }

    /// <summary>Has something done once the change is stored: who is told before would look in vain.</summary>
    public void Then(Action act) => then.Add(act);

    public async Task Commit(CancellationToken cancel)
    {
        await transaction.CommitAsync(cancel);
        foreach (var act in then)
            act();
        then.Clear();
    }

    /// <summary>Does a part of the change that may be refused by itself.</summary>
    /// <param name="act">Null for done; else the part leaves nothing stored, and the rest stands.</param>
    public async Task<T?> Part<T>(Func<Task<T?>> act, CancellationToken cancel)
        where T : class
    {
        const string Before = "part";
        await transaction.CreateSavepointAsync(Before, cancel);
        var refused = await act();
        if (refused is null)
            await transaction.ReleaseSavepointAsync(Before, cancel);
        else
            await transaction.RollbackToSavepointAsync(Before, cancel);
        return refused;
    }

    public async ValueTask DisposeAsync()
    {
        db.Change = null;
        try
        {
            await transaction.DisposeAsync();
        }
        finally
        {
            turn.Release();
        }
    }
}
