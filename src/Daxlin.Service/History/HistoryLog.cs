using Daxlin.Core.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.History;

/// <summary>Adds to the history, in the transaction of what it tells.</summary>
/// <remarks>The turn to write is held by who acts; two who wrote at once would be kept apart by the database, which takes one entry of a number.</remarks>
internal static class HistoryLog
{
    /// <summary>A database asks for so many streams at once.</summary>
    private const int StreamsAtOnce = 500;

    public static Task Record(DaxlinDb db, Deed deed, CancellationToken cancel) => Record(db, [deed], cancel);

    /// <summary>Adds deeds in their order. They are stored with what else of the context is.</summary>
    public static async Task Record(DaxlinDb db, IReadOnlyCollection<Deed> deeds, CancellationToken cancel) => db.History.AddRange(await RowsOf(db, deeds, cancel));

    /// <summary>Adds thousands of deeds in their order, and stores them and what else of the context is, in the transaction that it is in.</summary>
    public static async Task RecordMany(DaxlinDb db, IReadOnlyCollection<Deed> deeds, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        await ManyRows.Insert(db, await RowsOf(db, deeds, cancel), cancel);
    }

    private static async Task<List<HistoryRow>> RowsOf(DaxlinDb db, IReadOnlyCollection<Deed> deeds, CancellationToken cancel)
    {
        var heads = await Heads(db, [.. deeds.Select(deed => deed.Stream).Distinct()], cancel);
        var rows = new List<HistoryRow>(deeds.Count);
        foreach (var deed in deeds)
        {
            var (number, before) = heads.GetValueOrDefault(deed.Stream, (0, HistoryChain.Beginning));
            var hash = HistoryChain.HashOf(before, number + 1, deed);
            heads[deed.Stream] = (number + 1, hash);
            rows.Add(new HistoryRow
            {
                Stream = deed.Stream,
                Number = number + 1,
                At = deed.At,
                By = deed.By,
                Act = deed.Act,
                What = deed.What,
                Before = deed.Before,
                After = deed.After,
                Reason = deed.Reason,
                Letter = deed.Letter,
                Content = deed.Content,
                Hash = hash,
            });
        }
        return rows;
    }

    /// <summary>The newest entry of each stream, whether it is stored already or is only about to be.</summary>
    private static async Task<Dictionary<string, (int Number, string Hash)>> Heads(DaxlinDb db, string[] streams, CancellationToken cancel)
    {
        var heads = new Dictionary<string, (int Number, string Hash)>();
        foreach (var some in streams.Chunk(StreamsAtOnce))
        {
            var stored = await db.History.Where(row => some.Contains(row.Stream) && row.Number == db.History.Where(other => other.Stream == row.Stream).Max(other => other.Number))
                .Select(row => new { row.Stream, row.Number, row.Hash }).ToListAsync(cancel);
            foreach (var head in stored)
                heads[head.Stream] = (head.Number, head.Hash);
        }
        foreach (var row in db.ChangeTracker.Entries<HistoryRow>().Where(entry => entry.State == EntityState.Added).Select(entry => entry.Entity))
        {
            if (row.Number > heads.GetValueOrDefault(row.Stream).Number)
                heads[row.Stream] = (row.Number, row.Hash);
        }
        return heads;
    }

    /// <summary>Seals what the history has gained since the seal before, if it has gained anything.</summary>
    public static async Task Seal(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        var newest = await db.History.Where(row => row.Stream == HistoryStreams.Seals).OrderByDescending(row => row.Number).Select(row => (int?)row.Id).FirstOrDefaultAsync(cancel) ?? 0;
        var hashes = await db.History.Where(row => row.Id >= newest).OrderBy(row => row.Id).Select(row => row.Hash).ToListAsync(cancel);
        var gained = hashes.Count - (newest > 0 ? 1 : 0);
        if (gained == 0)
            return;
        await Record(db, new Deed(HistoryStreams.Seals, at, Deed.Daxlin, "sealed", $"sealed {gained} {(gained == 1 ? "entry" : "entries")}") { Content = HistoryChain.SealOf(hashes) }, cancel);
        await db.SaveChangesAsync(cancel);
    }
}
