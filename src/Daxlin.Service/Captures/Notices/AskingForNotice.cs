using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Captures.Notices;

/// <summary>Another program wants a receiver to be told once its document is captured. Where that is an administrator has said: no program sends anything to an address of its own.</summary>
internal sealed class AskingForNotice(DaxlinDb db, ReceiverShelf receivers, WriteTurn turn, TimeProvider clock)
{
    /// <returns>Why the receiver cannot be told; null if it can.</returns>
    public async Task<Refused?> FaultOf(string receiver, CancellationToken cancel) => await receivers.Row(receiver, null, cancel) switch
    {
        null => Refused.NotThere($"receiver “{receiver}”"),
        { IsRetired: true } => Refused.Conflict("receiver-retired", $"The receiver “{receiver}” is retired: it is told nothing any more."),
        var row => ReceiverShelf.Read(row)?.Way is WebhookWay ? null : Refused.Conflict("no-webhook", $"The receiver “{receiver}” is no web address; one whose way is “webhook” can be told that a document is captured."),
    };

    /// <summary>Notes that it is to be told of a document, once.</summary>
    public async Task Note(int intake, string receiver, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (await db.CaptureNotices.AnyAsync(row => row.IntakeId == intake && row.Receiver == receiver, cancel))
            return;
        db.CaptureNotices.Add(new CaptureNotice { IntakeId = intake, Receiver = receiver, Key = $"capture-{Guid.NewGuid():N}", NextAt = clock.GetUtcNow().UtcDateTime });
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }

    /// <summary>What waits in a restored backup is not sent: the service that it was made of may have sent it since.</summary>
    public static Task<int> GiveRestoredUp(DaxlinDb db, CancellationToken cancel) => db.CaptureNotices.Where(row => row.State == NoticeState.Waiting).ExecuteUpdateAsync(
        set => set.SetProperty(row => row.State, NoticeState.GivenUp).SetProperty(row => row.Says, "It waited when the backup was made that this was restored from; whether it was sent since, nobody can tell here."), cancel);
}
