using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Layouts;

/// <summary>The layouts that were saved: each change is a version, and none is ever changed or taken away.</summary>
internal sealed class LayoutShelf(DaxlinDb db, CodingWorker coding, TimeProvider clock)
{
    /// <summary>The newest version of each layout, of retired ones, too.</summary>
    public static IQueryable<LayoutVersion> Newest(DaxlinDb db) =>
        db.Layouts.Where(row => row.Version == db.Layouts.Where(other => other.Name == row.Name).Max(other => other.Version));

    public Task<LayoutVersion?> Row(string name, int? version, CancellationToken cancel) => version is { } number
        ? db.Layouts.SingleOrDefaultAsync(row => row.Name == name && row.Version == number, cancel)
        : Newest(db).SingleOrDefaultAsync(row => row.Name == name, cancel);

    /// <summary>The newest version of a layout that is not retired; or why there is none.</summary>
    public async Task<(StoredLayout? Layout, Refused? Refused)> FindInUse(string name, TranslationLists lists, CancellationToken cancel)
    {
        var row = await Row(name, null, cancel);
        return row is null ? (null, Refused.NotThere($"layout “{name}”"))
            : row.IsRetired ? (null, Refused.Conflict("layout-retired", $"The layout “{name}” is retired: no run is made by it any more."))
            : Read(row, lists);
    }

    public async Task<(StoredLayout? Layout, Refused? Refused)> Find(string name, int version, TranslationLists lists, CancellationToken cancel) =>
        await Row(name, version, cancel) is { } row ? Read(row, lists) : (null, Refused.NotThere($"version {version} of the layout “{name}”"));

    /// <remarks>One that was in order when it was saved may have faults in a later release.</remarks>
    private static (StoredLayout? Layout, Refused? Refused) Read(LayoutVersion row, TranslationLists lists)
    {
        try
        {
            return (new StoredLayout(LayoutReader.Read(row.Document, lists), row.Version), null);
        }
        catch (JsonFaultException error)
        {
            return (null, Refused.Conflict("layout-faulty", $"The layout “{row.Name}” has a fault: {error.Faults[0]}"));
        }
    }

    public async Task<LayoutSaved> Save(LayoutVersion? newest, string name, string document, string note, string who, CancellationToken cancel)
    {
        if (newest is { IsRetired: false } && newest.Document == document)
            return new LayoutSaved(newest.Name, newest.Version, false);
        var row = await Add(newest, name, document, note, isRetired: false, who, cancel);
        return new LayoutSaved(row.Name, row.Version, true);
    }

    public async Task<LayoutSaved> SetRetired(LayoutVersion newest, bool isRetired, string note, string who, CancellationToken cancel)
    {
        var row = await Add(newest, newest.Name, newest.Document, note, isRetired, who, cancel);
        return new LayoutSaved(row.Name, row.Version, true);
    }

    private async Task<LayoutVersion> Add(LayoutVersion? newest, string name, string document, string note, bool isRetired, string who, CancellationToken cancel)
    {
        var row = new LayoutVersion
        {
            Name = name,
            Version = (newest?.Version ?? 0) + 1,
            Document = document,
            SavedAt = clock.GetUtcNow().UtcDateTime,
            SavedBy = who,
            Note = note,
            IsRetired = isRetired,
        };
        db.Layouts.Add(row);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Layout(name), row.SavedAt, who, HistoryActs.LayoutSaved, isRetired ? $"retired, as version {row.Version}" : $"saved version {row.Version}")
            {
                After = name,
                Reason = note,
                Content = HistoryChain.ContentOf(document),
            },
            cancel);
        await db.SaveChangesAsync(cancel);
        // A layout in use may want codes.
        coding.Wake();
        return row;
    }
}
