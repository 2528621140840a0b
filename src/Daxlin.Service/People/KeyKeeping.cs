using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>People make access keys for their programs, and revoke them; administrators revoke anyone's.</summary>
internal sealed class KeyKeeping(DaxlinDb db, TimeProvider clock)
{
    /// <summary>So that a key found somewhere says what it is for.</summary>
    private const string Beginning = "daxlin_";

    private const int LettersShown = 6;
    private const int LongestName = 100;
    private const int MostDays = 366;

    /// <summary>Days that a key lasts if nothing else is said.</summary>
    public const int UsualDays = 90;

    /// <summary>The turn to write is held by who asks.</summary>
    /// <returns>The key, which nobody sees again.</returns>
    public async Task<(AccessKey? Made, string Key, Refused? Refused)> Make(KeyToMake wanted, Actor actor, CancellationToken cancel)
    {
        if (actor.PersonId is not { } owner)
            return (null, "", Refused.Conflict("no-sign-in", "This service has no sign-in, so that nothing needs a key."));
        if (actor.Key.Length > 0)
            return (null, "", Refused.Conflict("key-by-key", "A key cannot make another key; sign in with name and password."));
        var name = PersonName.Tidied(wanted.Name ?? "");
        if (name.Length is 0 or > LongestName)
            return (null, "", Refused.Faulty("name-faulty", $"A key needs a name of 1 to {LongestName} characters that says what it is for."));
        var days = wanted.Days ?? UsualDays;
        if (days is < 1 or > MostDays)
            return (null, "", Refused.Faulty("days-faulty", $"A key lasts 1 to {MostDays} days, not {days}."));
        // A right that is another's, who is away, is nobody's to hand on.
        var own = actor.For.Length > 0 ? actor.Rights.Remove(Right.Approve) : actor.Rights;
        var words = wanted.Rights is { IsDefaultOrEmpty: false } said ? said : [.. own.Select(Roles.Word)];
        if (words.FirstOrDefault(word => Roles.FindRight(word) is null) is { } unknown)
            return (null, "", Refused.Faulty("right-unknown", $"“{unknown}” is no right; there are {string.Join(", ", Enum.GetValues<Right>().Select(Roles.Word))}."));
        var rights = words.Select(Roles.FindRight).OfType<Right>().Append(Right.See).ToImmutableSortedSet();
        if (rights.Except(own).Select(right => (Right?)right).FirstOrDefault() is { } lacking)
            return (null, "", Refused.Faulty("right-missing", $"The key cannot have the right “{Roles.Word(lacking)}”, since {actor.Name} does not have it; that is for {Roles.WhoCan(lacking)}."));
        var secret = Beginning + Secrets.New();
        var now = clock.GetUtcNow().UtcDateTime;
        var key = new AccessKey
        {
            PersonId = owner,
            Name = name,
            Beginning = secret[..(Beginning.Length + LettersShown)],
            Sha256 = Secrets.HashOf(secret),
            RightWords = string.Join(',', rights.Select(Roles.Word)),
            MadeAt = now,
            ExpiresAt = now.AddDays(days),
        };
        db.AccessKeys.Add(key);
        await Record(owner, actor.Name, HistoryActs.KeyMade, $"made the access key “{name}”", string.Create(CultureInfo.InvariantCulture, $"{key.RightWords}, until {key.ExpiresAt:yyyy-MM-dd}"), cancel);
        await db.SaveChangesAsync(cancel);
        return (key, secret, null);
    }

    public async Task<Refused?> Revoke(AccessKey key, Actor actor, CancellationToken cancel)
    {
        if (key.PersonId != actor.PersonId && !actor.Rights.Contains(Right.Administer))
            return Refused.NotThere($"access key {key.Id}");
        if (key.RevokedAt is not null)
            return Refused.Conflict("revoked-already", $"The access key “{key.Name}” was revoked already.");
        key.RevokedAt = clock.GetUtcNow().UtcDateTime;
        key.Revision++;
        await Record(key.PersonId, actor.Name, HistoryActs.KeyRevoked, $"revoked the access key “{key.Name}”", "", cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Notes that a key is used: to the hour, and in the history once a day and address.</summary>
    public static async Task NoteUse(DaxlinDb db, WriteTurn turn, DateTime now, AccessKey key, string owner, string from, CancellationToken cancel)
    {
        var hour = now.Date.AddHours(now.Hour);
        if (key.LastUsedAt >= hour && key.LastUsedFrom == from)
            return;
        await using var change = await turn.Take(db, cancel);
        await db.AccessKeys.Where(row => row.Id == key.Id).ExecuteUpdateAsync(
            set => set.SetProperty(row => row.LastUsedAt, hour).SetProperty(row => row.LastUsedFrom, from), cancel);
        if (key.LastUsedAt?.Date != now.Date || key.LastUsedFrom != from)
        {
            await HistoryLog.Record(db, new Deed(HistoryStreams.Person(key.PersonId), now, owner, HistoryActs.KeyUsed, $"used the access key “{key.Name}” from {from}"), cancel);
            await db.SaveChangesAsync(cancel);
        }
        await change.Commit(cancel);
    }

    public static ImmutableSortedSet<Right> RightsOf(AccessKey key) => [.. key.RightWords.Split(',').Select(Roles.FindRight).OfType<Right>()];

    private Task Record(int person, string who, string act, string what, string after, CancellationToken cancel) =>
        HistoryLog.Record(db, new Deed(HistoryStreams.Person(person), clock.GetUtcNow().UtcDateTime, who, act, what) { After = after }, cancel);
}
