using Daxlin.Service.Nodes;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Outgoing;

/// <summary>Sends messages of one kind that were stored to be sent, each once: what is due, and what a death left in the middle.</summary>
/// <param name="lease">The word for such work among services that share a database.</param>
internal abstract class WaitingMail<TRow>(string lease, IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn turn, Leases leases, TimeProvider clock, ILogger log)
    : RegularWork(TimeSpan.FromSeconds(2), clock, log)
    where TRow : class, IMailedOnce
{
    protected sealed override async Task Do(CancellationToken cancel)
    {
        var now = Clock.GetUtcNow().UtcDateTime;
        List<int> due;
        await using (var db = await databases.CreateDbContextAsync(cancel))
        {
            due = await db.Set<TRow>().Where(row => row.State == MailState.Sending || row.State == MailState.Waiting && (row.NextAt == null || row.NextAt <= now))
                .OrderBy(row => row.Id).Select(row => row.Id).ToListAsync(cancel);
        }
        foreach (var id in due)
            await Send(id, cancel);
    }

    /// <summary>What a message says and how it goes, made again at each try; or why it does not go any more.</summary>
    /// <param name="row">As it was found; one that is <see cref="MailState.Sending"/> may have arrived, and is not held back for what has changed since.</param>
    protected abstract Task<MailToSend> Make(TRow row, DaxlinDb db, CancellationToken cancel);

    /// <summary>Stores what else follows from how it stands, within the same change.</summary>
    protected virtual Task Changed(TRow row, DaxlinDb db, CancellationToken cancel) => Task.CompletedTask;

    private async Task Send(int id, CancellationToken cancel)
    {
        if (!await leases.Take(lease, id, cancel))
            return;
        try
        {
            TRow row;
            MailToSend made;
            await using (var db = await databases.CreateDbContextAsync(cancel))
            {
                row = await db.Set<TRow>().AsNoTracking().SingleAsync(one => one.Id == id, cancel);
                if (row.State is not (MailState.Waiting or MailState.Sending))
                    return;
                made = await Make(row, db, cancel);
            }
            using var message = made.Message;
            if (message is null)
                await Change(id, one => (one.State, one.Says) = (MailState.GivenUp, (row.State == MailState.Sending ? MailOnce.MayHaveArrived + " " : "") + made.WhyNot), cancel);
            else
                await once.Send(row.State, message, made.Line!, act => Change(id, act, cancel), cancel);
        }
        finally
        {
            await leases.End(lease, id, CancellationToken.None);
        }
    }

    private async Task Change(int id, Action<IMailedOnce> act, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        var row = await db.Set<TRow>().SingleAsync(one => one.Id == id, cancel);
        act(row);
        await Changed(row, db, cancel);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }
}
