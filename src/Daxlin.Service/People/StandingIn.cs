using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>An approver who is going to be away says who approves meanwhile; an administrator can say it for one who is away already.</summary>
/// <remarks>The right is given for a time and for approvals alone; it is gone with the right of who gave it. Acts are told with both names.</remarks>
internal sealed class StandingIn(DaxlinDb db, TimeProvider clock)
{
    private const int MostDays = 92;

    public async Task<(StandIn? Made, Refused? Refused)> Begin(StandInToName wanted, Actor actor, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var (absent, absentFault) = await Find(wanted.Absent ?? actor.Name, cancel);
        var (standIn, standInFault) = await Find(wanted.StandIn ?? "", cancel);
        if (absent is null || standIn is null)
            return (null, absentFault ?? standInFault);
        if (absent.Id != actor.PersonId && !actor.Rights.Contains(Right.Administer))
            return (null, new Refused(StatusCodes.Status403Forbidden, "right-missing", $"{actor.Name} may name who stands in for {actor.Name}; for others an administrator does."));
        if (!absent.Rights.Contains(Right.Approve))
            return (null, Refused.Conflict("no-approver", $"{absent.Name} does not approve, and has no right to give."));
        if (standIn.Rights.Contains(Right.Approve))
            return (null, Refused.Conflict("approver-already", $"{standIn.Name} approves already, and needs no right of another."));
        if (wanted.Until is not { } day || day < DateOnly.FromDateTime(now) || day > DateOnly.FromDateTime(now).AddDays(MostDays))
            return (null, Refused.Faulty("until-faulty", $"Say the last day, from today on and at most {MostDays} days ahead."));
        if (await Active(db, now).AnyAsync(row => row.StandInId == standIn.Id, cancel))
            return (null, Refused.Conflict("stands-in-already", $"{standIn.Name} stands in for another already; an approval is for one at a time."));
        var made = new StandIn { AbsentId = absent.Id, StandInId = standIn.Id, From = now, Until = day.AddDays(1).ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc) };
        db.StandIns.Add(made);
        await Record(absent, actor, HistoryActs.StandInNamed, $"said that {standIn.Name} approves for {absent.Name}", $"until {day:yyyy-MM-dd}", cancel);
        await db.SaveChangesAsync(cancel);
        return (made, null);
    }

    public async Task<Refused?> End(StandIn standIn, Actor actor, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        if (standIn.AbsentId != actor.PersonId && standIn.StandInId != actor.PersonId && !actor.Rights.Contains(Right.Administer))
            return Refused.NotThere($"stand-in {standIn.Id}");
        if (standIn.EndedAt is not null || standIn.Until <= now)
            return Refused.Conflict("ended-already", "That has ended already.");
        standIn.EndedAt = now;
        standIn.Revision++;
        var names = await db.Users.Where(person => person.Id == standIn.AbsentId || person.Id == standIn.StandInId).ToDictionaryAsync(person => person.Id, cancel);
        await Record(names[standIn.AbsentId], actor, HistoryActs.StandInEnded, $"said that {names[standIn.StandInId].Name} approves for {names[standIn.AbsentId].Name} no more", "", cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>For whom a person approves at the moment; empty for nobody, and for one who approves in the own name.</summary>
    public static async Task<string> ForWhom(DaxlinDb db, Person person, DateTime now, CancellationToken cancel)
    {
        if (person.Rights.Contains(Right.Approve))
            return "";
        var absent = await Active(db, now).Where(row => row.StandInId == person.Id).Join(db.Users, row => row.AbsentId, one => one.Id, (_, one) => one).AsNoTracking().FirstOrDefaultAsync(cancel);
        return absent is { IsDisabled: false } && absent.Rights.Contains(Right.Approve) ? absent.Name : "";
    }

    private static IQueryable<StandIn> Active(DaxlinDb db, DateTime now) => db.StandIns.Where(row => row.EndedAt == null && row.From <= now && row.Until > now);

    private async Task<(Person? Person, Refused? Fault)> Find(string name, CancellationToken cancel)
    {
        var sought = PersonName.Tidied(name).ToUpperInvariant();
        return await db.Users.SingleOrDefaultAsync(person => person.NormalizedUserName == sought && !person.IsDisabled, cancel) is { } person
            ? (person, null) : (null, Refused.Faulty("person-unknown", $"There is no person “{name}” who may sign in."));
    }

    private Task Record(Person absent, Actor actor, string act, string what, string after, CancellationToken cancel) =>
        HistoryLog.Record(db, new Deed(HistoryStreams.Person(absent.Id), clock.GetUtcNow().UtcDateTime, actor.Name, act, what) { After = after }, cancel);
}
