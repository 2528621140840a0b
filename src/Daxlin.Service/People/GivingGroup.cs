using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.People;

/// <summary>An administrator says whose a batch or a vendor is: those who are held to groups reach what is of theirs.</summary>
internal sealed class GivingGroup(DaxlinDb db, TimeProvider clock)
{
    private const int Longest = 100;

    public async Task<Refused?> Do(Batch batch, string? group, Actor actor, CancellationToken cancel)
    {
        var (named, refused) = Read(group);
        if (named is null || named == batch.Group)
            return refused;
        await Record(HistoryStreams.Batch(batch.Id), $"the batch {batch.Name}", batch.Group, named, actor, cancel);
        (batch.Group, batch.Revision) = (named, batch.Revision + 1);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    public async Task<Refused?> Do(Vendor vendor, string? group, Actor actor, CancellationToken cancel)
    {
        var (named, refused) = Read(group);
        if (named is null || named == vendor.Group)
            return refused;
        await Record(HistoryStreams.Vendor(vendor.Id), vendor.Name, vendor.Group, named, actor, cancel);
        (vendor.Group, vendor.Revision) = (named, vendor.Revision + 1);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>A group as it is kept; empty for none.</summary>
    public static (string? Group, Refused? Refused) Read(string? group)
    {
        var named = PersonName.Tidied(group ?? "");
        return named.Length <= Longest ? (named, null) : (null, Refused.Faulty("group-faulty", $"A group's name has at most {Longest} characters."));
    }

    private Task Record(string stream, string what, string before, string after, Actor actor, CancellationToken cancel) =>
        HistoryLog.Record(
            db,
            new Deed(stream, clock.GetUtcNow().UtcDateTime, actor.Name, HistoryActs.GroupGiven, after.Length == 0 ? $"took {what} out of its group" : $"gave {what} to the group {after}") { Before = before, After = after },
            cancel);
}
