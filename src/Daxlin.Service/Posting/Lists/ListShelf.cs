using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.History;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Lists;

/// <summary>The translation lists that were saved: each change is a version, and none is ever changed or taken away.</summary>
internal sealed class ListShelf(DaxlinDb db, CodingWorker coding, TimeProvider clock)
{
    /// <summary>The newest version of each list.</summary>
    public static IQueryable<ListVersion> Newest(DaxlinDb db) =>
        db.Lists.AsNoTracking().Where(row => row.Version == db.Lists.Where(other => other.Name == row.Name).Max(other => other.Version));

    public Task<ListVersion?> Find(string name, CancellationToken cancel) => Newest(db).SingleOrDefaultAsync(row => row.Name == name, cancel);

    /// <summary>All lists as they are now.</summary>
    public async Task<ReadLists> Now(CancellationToken cancel) => Read(await Newest(db).ToListAsync(cancel));

    /// <summary>Some lists as they were.</summary>
    /// <param name="versions">By name.</param>
    public async Task<ReadLists> AsOf(IReadOnlyDictionary<string, int> versions, CancellationToken cancel)
    {
        var names = versions.Keys.ToList();
        return Read((await db.Lists.AsNoTracking().Where(row => names.Contains(row.Name)).ToListAsync(cancel)).Where(row => versions[row.Name] == row.Version));
    }

    public async Task<ListVersion> Save(ListVersion? newest, string name, ImmutableArray<ListEntryRecord> entries, string who, CancellationToken cancel)
    {
        var text = JsonSerializer.Serialize(entries);
        if (newest?.Entries == text)
            return newest;
        var row = new ListVersion
        {
            Name = name,
            Version = (newest?.Version ?? 0) + 1,
            Entries = text,
            Count = entries.Length,
            SavedAt = clock.GetUtcNow().UtcDateTime,
            SavedBy = who,
        };
        db.Lists.Add(row);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.List(name), row.SavedAt, who, HistoryActs.ListSaved, $"saved version {row.Version}, {entries.Length} {(entries.Length == 1 ? "entry" : "entries")}") { Content = HistoryChain.ContentOf(text) },
            cancel);
        await db.SaveChangesAsync(cancel);
        db.Then(coding.Wake);
        return row;
    }

    public static ImmutableArray<ListEntryRecord> EntriesOf(ListVersion list) => JsonSerializer.Deserialize<ImmutableArray<ListEntryRecord>>(list.Entries);

    public static ReadLists Read(IEnumerable<ListVersion> rows)
    {
        var own = rows.ToList();
        return new ReadLists(
            new TranslationLists(own.Select(row => new TranslationList(row.Name, EntriesOf(row).Select(entry => entry.Entry)))),
            own.ToImmutableSortedDictionary(row => row.Name, row => row.Version, StringComparer.Ordinal));
    }
}

/// <summary>Translation lists as layouts look words up in them.</summary>
/// <param name="Versions">By name.</param>
internal sealed record ReadLists(TranslationLists Lists, ImmutableSortedDictionary<string, int> Versions);
