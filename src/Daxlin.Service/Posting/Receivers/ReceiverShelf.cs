using System.Collections.Immutable;
using Daxlin.Service.Secrets;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Receivers;

/// <summary>The receivers that were saved.</summary>
internal sealed class ReceiverShelf(DaxlinDb db, SecretStore secrets, DeliveryWorker worker, TimeProvider clock) : DocumentShelf<ReceiverVersion>(db, clock)
{
    public override string What => "receiver";

    protected override string Act => HistoryActs.ReceiverSaved;

    protected override string StreamOf(string name) => HistoryStreams.Receiver(name);

    /// <remarks>What waits is delivered as the newest version says.</remarks>
    protected override Task Changed(string name, CancellationToken cancel) => TryNow(Db.Deliveries.Where(delivery => delivery.Receiver == name), cancel);

    /// <summary>What a document says; null for one that a later release cannot read any more.</summary>
    public static Receiver? Read(ReceiverVersion row)
    {
        try
        {
            return ReceiverReader.Read(row.Document);
        }
        catch (JsonFaultException)
        {
            return null;
        }
    }

    /// <summary>The receivers that get each new run by a layout at once.</summary>
    /// <param name="layout">Empty for a run without one.</param>
    public static async Task<List<string>> AtOnce(DaxlinDb db, string layout, CancellationToken cancel)
    {
        var rows = await Newest(db).AsNoTracking().Where(row => !row.IsRetired).OrderBy(row => row.Name).ToListAsync(cancel);
        return [.. rows.Select(Read).OfType<Receiver>().Where(receiver => receiver.AtOnce && receiver.Gets(layout)).Select(receiver => receiver.Name)];
    }

    /// <summary>A receiver that can have a run; or why there is none.</summary>
    /// <param name="layout">That makes the run; empty for none.</param>
    public async Task<(ReceiverVersion? Receiver, Refused? Refused)> FindFor(string name, string layout, CancellationToken cancel)
    {
        var row = await Row(name, null, cancel);
        return row is null ? (null, Refused.NotThere($"receiver “{name}”"))
            : row.IsRetired ? (null, Refused.Conflict("receiver-retired", $"The receiver “{name}” is retired: nothing is delivered to it any more."))
            : Read(row) is { } receiver && !receiver.Gets(layout) ? (null, Refused.Conflict(
                "other-layout", $"“{name}” gets runs by the layout “{receiver.Layout}”; this one is made by {(layout.Length == 0 ? "none" : $"“{layout}”")}."))
            : (row, null);
    }

    /// <summary>How a receiver is written to by mail; or why it is not.</summary>
    public static async Task<(MailWay? Way, Refused? Refused)> ByMail(string name, DaxlinDb db, CancellationToken cancel)
    {
        var row = await Newest(db).AsNoTracking().SingleOrDefaultAsync(one => one.Name == name, cancel);
        return row is null ? (null, Refused.NotThere($"receiver “{name}”"))
            : row.IsRetired ? (null, Refused.Conflict("receiver-retired", $"The receiver “{name}” is retired: nothing is sent to it any more."))
            : Read(row)?.Way is MailWay way ? (way, null) : (null, Refused.Conflict("not-by-mail", $"“{name}” is no receiver by mail; a message goes to one."));
    }

    /// <summary>Names of secrets that a receiver needs and that are not kept yet.</summary>
    public ImmutableArray<string> MissingOf(Receiver? receiver) => secrets.MissingOf(receiver?.Way.Secrets ?? []);

    /// <summary>What failed may go well now that something was mended, so nobody waits for its next hour.</summary>
    public async Task TryNow(IQueryable<Delivery> deliveries, CancellationToken cancel)
    {
        var now = Now;
        await deliveries.Where(row => row.State == DeliveryState.Waiting && row.NextAt > now).ExecuteUpdateAsync(set => set.SetProperty(row => row.NextAt, now), cancel);
        Db.Then(worker.Wake);
    }
}
