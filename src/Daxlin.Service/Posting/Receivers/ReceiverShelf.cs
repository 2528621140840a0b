using System.Collections.Immutable;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Receivers;

/// <summary>The receivers that were saved: each change is a version, and none is ever changed or taken away.</summary>
internal sealed class ReceiverShelf(DaxlinDb db, SecretStore secrets, DeliveryWorker worker, TimeProvider clock)
{
    /// <summary>The newest version of each receiver, of retired ones, too.</summary>
    public static IQueryable<ReceiverVersion> Newest(DaxlinDb db) =>
        db.Receivers.Where(row => row.Version == db.Receivers.Where(other => other.Name == row.Name).Max(other => other.Version));

    public Task<ReceiverVersion?> Row(string name, int? version, CancellationToken cancel) => version is { } number
        ? db.Receivers.SingleOrDefaultAsync(row => row.Name == name && row.Version == number, cancel)
        : Newest(db).SingleOrDefaultAsync(row => row.Name == name, cancel);

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
        var rows = await Newest(db).Where(row => !row.IsRetired).OrderBy(row => row.Name).ToListAsync(cancel);
        return [.. rows.Select(Read).OfType<Receiver>().Where(receiver => receiver.AtOnce && (receiver.Layout.Length == 0 || receiver.Layout == layout)).Select(receiver => receiver.Name)];
    }

    /// <summary>Names of secrets that a receiver needs and that are not kept yet.</summary>
    public ImmutableArray<string> MissingOf(Receiver? receiver) => [.. (receiver?.Way.Secrets ?? []).Where(name => secrets.Find(name) is null)];

    public async Task<ReceiverSaved> Save(ReceiverVersion? newest, string name, string document, string note, string who, CancellationToken cancel) =>
        newest is { IsRetired: false } && newest.Document == document
            ? new ReceiverSaved(newest.Name, newest.Version, false) : await Add(newest, name, document, note, isRetired: false, who, cancel);

    public Task<ReceiverSaved> SetRetired(ReceiverVersion newest, bool isRetired, string note, string who, CancellationToken cancel) =>
        Add(newest, newest.Name, newest.Document, note, isRetired, who, cancel);

    /// <summary>What failed may go well now that something was mended, so nobody waits for its next hour.</summary>
    public async Task TryNow(IQueryable<Delivery> deliveries, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        await deliveries.Where(row => row.State == DeliveryState.Waiting && row.NextAt > now).ExecuteUpdateAsync(set => set.SetProperty(row => row.NextAt, now), cancel);
        worker.Wake();
    }

    private async Task<ReceiverSaved> Add(ReceiverVersion? newest, string name, string document, string note, bool isRetired, string who, CancellationToken cancel)
    {
        var row = new ReceiverVersion
        {
            Name = name,
            Version = (newest?.Version ?? 0) + 1,
            Document = document,
            SavedAt = clock.GetUtcNow().UtcDateTime,
            SavedBy = who,
            Note = note,
            IsRetired = isRetired,
        };
        db.Receivers.Add(row);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Receiver(name), row.SavedAt, who, HistoryActs.ReceiverSaved, isRetired ? $"retired, as version {row.Version}" : $"saved version {row.Version}")
            {
                After = name,
                Reason = note,
                Content = HistoryChain.ContentOf(document),
            },
            cancel);
        await db.SaveChangesAsync(cancel);
        await TryNow(db.Deliveries.Where(delivery => delivery.Receiver == name), cancel);
        return new ReceiverSaved(row.Name, row.Version, true);
    }
}
