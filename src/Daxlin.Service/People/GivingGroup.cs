using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.People;

/// <summary>An administrator says whose a batch or a vendor is: those who are held to groups reach what is of theirs.</summary>
internal sealed class GivingGroup(DaxlinDb db, TimeProvider clock)
{
    private const int Longest = 100;

    /// <param name="stream">In which the history tells of it.</param>
    public async Task<Refused?> Do(IGrouped what, string stream, string? group, Actor actor, CancellationToken cancel)
    {
        var (named, refused) = Read(group);
        if (named is null || named == what.Group)
            return refused;
        await HistoryLog.Record(
            db,
            new Deed(stream, clock.GetUtcNow().UtcDateTime, actor.Name, HistoryActs.GroupGiven, named.Length == 0 ? $"took {what.Name} out of its group" : $"gave {what.Name} to the group {named}") { Before = what.Group, After = named },
            cancel);
        (what.Group, what.Revision) = (named, what.Revision + 1);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>A group as it is kept; empty for none.</summary>
    public static (string? Group, Refused? Refused) Read(string? group)
    {
        var named = PersonName.Tidied(group ?? "");
        return named.Length <= Longest ? (named, null) : (null, Refused.Faulty("group-faulty", $"A group's name has at most {Longest} characters."));
    }
}
