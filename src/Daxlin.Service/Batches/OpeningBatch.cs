using System.Security.Claims;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

/// <summary>Opens a batch, or finds the one of its name.</summary>
internal sealed class OpeningBatch(DaxlinDb db, Reach reach, WriteTurn turn, TimeProvider clock)
{
    private const int LongestName = 100;

    /// <param name="wantedGroup">Whose it is to be; null for the first of the person's own groups, or for none.</param>
    /// <param name="who">A person who is held to groups opens batches of those only.</param>
    public async Task<(Batch? Batch, bool IsNew, Refused? Refused)> Do(string? wantedName, string? wantedGroup, ClaimsPrincipal who, CancellationToken cancel)
    {
        var (group, faulty) = GivingGroup.Read(wantedGroup);
        if (group is null)
            return (null, false, faulty);
        if (PersonClaims.GroupsOf(who) is { IsEmpty: false } groups && !groups.Contains(group))
        {
            if (group.Length > 0)
                return (null, false, new Refused(StatusCodes.Status403Forbidden, "groups-held", $"The group “{group}” is none of yours, which are {string.Join(", ", groups)}."));
            group = groups[0];
        }
        var name = wantedName?.Trim() ?? "";
        if (name.Length is 0 or > LongestName || name.Any(char.IsControl))
            return (null, false, Refused.Faulty("name-faulty", $"A batch's name has 1 to {LongestName} characters on one line."));
        await using var change = await turn.Take(db, cancel);
        var (batch, isNew) = await Within(db, name, group, clock.GetUtcNow().UtcDateTime, cancel);
        if (!isNew && reach.Refuse(batch.Id) is not null)
            return (null, false, Refused.Conflict("name-taken", $"There is a batch “{name}” already, of a group that is not yours. Take another name."));
        await change.Commit(cancel);
        return (batch, isNew, null);
    }

    /// <summary>The same within a change that is under way, whoever it is for.</summary>
    public static async Task<(Batch Batch, bool IsNew)> Within(DaxlinDb db, string name, string group, DateTime now, CancellationToken cancel)
    {
        if (await db.Batches.SingleOrDefaultAsync(row => row.Name == name, cancel) is { } kept)
            return (kept, false);
        var batch = new Batch { Name = name, Group = group, CreatedAt = now };
        db.Batches.Add(batch);
        await db.SaveChangesAsync(cancel);
        return (batch, true);
    }
}
