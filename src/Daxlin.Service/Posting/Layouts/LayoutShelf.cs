using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.Posting.Layouts;

/// <summary>The layouts that were saved.</summary>
internal sealed class LayoutShelf(DaxlinDb db, CodingWorker coding, TimeProvider clock) : DocumentShelf<LayoutVersion>(db, clock)
{
    public override string What => "layout";

    protected override string Act => HistoryActs.LayoutSaved;

    protected override string StreamOf(string name) => HistoryStreams.Layout(name);

    protected override Task Changed(string name, CancellationToken cancel)
    {
        // A layout in use may want codes.
        Db.Then(coding.Wake);
        return Task.CompletedTask;
    }

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
}
