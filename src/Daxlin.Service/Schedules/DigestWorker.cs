using System.Globalization;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Core.Schedules;
using Daxlin.Service.Nodes;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Schedules;

/// <summary>Sends the messages of schedules, each once.</summary>
internal sealed class DigestWorker(IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn write, Leases leases, TimeProvider clock, ILogger<DigestWorker> log)
    : RegularWork(TimeSpan.FromSeconds(2), clock, log)
{
    protected override async Task Do(CancellationToken cancel)
    {
        foreach (var id in await Due(cancel))
            await Send(id, cancel);
    }

    private async Task<List<int>> Due(CancellationToken cancel)
    {
        var now = Clock.GetUtcNow().UtcDateTime;
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.ScheduledTurns.Where(row => row.State == MailState.Sending || row.State == MailState.Waiting && (row.NextAt == null || row.NextAt <= now))
            .OrderBy(row => row.Id).Select(row => row.Id).ToListAsync(cancel);
    }

    private async Task Send(int id, CancellationToken cancel)
    {
        if (!await leases.Take(Leases.Digest, id, cancel))
            return;
        try
        {
            ScheduledTurn turn;
            MailWay? line;
            string whyNot;
            await using (var db = await databases.CreateDbContextAsync(cancel))
            {
                turn = await db.ScheduledTurns.AsNoTracking().SingleAsync(row => row.Id == id, cancel);
                (line, whyNot) = await LineOf(turn, db, cancel);
            }
            if (turn.State is not (MailState.Waiting or MailState.Sending))
                return;
            if (line is null)
            {
                await Change(id, row => (row.State, row.Says) = (MailState.GivenUp, whyNot), cancel);
                return;
            }
            using var message = MessageOf(turn, line);
            await once.Send(turn.State, message, line, act => Change(id, act, cancel), cancel);
        }
        finally
        {
            await leases.End(Leases.Digest, id, CancellationToken.None);
        }
    }

    /// <summary>By which server it goes and to whom; or why it does not go any more.</summary>
    private static async Task<(MailWay? Line, string WhyNot)> LineOf(ScheduledTurn turn, DaxlinDb db, CancellationToken cancel)
    {
        var newest = await ScheduleShelf.Newest(db).AsNoTracking().SingleAsync(row => row.Name == turn.Schedule, cancel);
        if (newest.IsRetired || ScheduleShelf.Read(newest)?.Act is not DigestAct digest)
            return (null, "The schedule sends no messages any more.");
        if (turn.State == MailState.Waiting && await db.ScheduledTurns.AnyAsync(row => row.Schedule == turn.Schedule && row.Id > turn.Id && row.State != MailState.None, cancel))
            return (null, "A newer message says what waits by now.");
        var (line, refused) = await ReceiverShelf.ByMail(digest.Receiver, db, cancel);
        return (line, refused?.Sentence ?? "");
    }

    private static MimeMessage MessageOf(ScheduledTurn turn, MailWay line)
    {
        var message = new MimeMessage { Subject = turn.Subject, Body = new TextPart("plain") { Text = turn.Text } };
        message.From.Add(MailboxAddress.Parse(line.From));
        message.To.AddRange(line.To.Select(one => new MailboxAddress("", one)));
        // The same however often it is made, so that it can be found.
        message.MessageId = string.Create(CultureInfo.InvariantCulture, $"schedule-{turn.Id}-{turn.At.Ticks}@{line.From[(line.From.IndexOf('@', StringComparison.Ordinal) + 1)..]}");
        // So that no program answers it (RFC 3834, 5).
        message.Headers.Add("Auto-Submitted", "auto-generated");
        return message;
    }

    /// <remarks>What could not be sent stands as the schedule's trouble, what was sent ends it; of one that a newer message has taken the place of, neither is told.</remarks>
    private async Task Change(int id, Action<IMailedOnce> act, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await write.Take(db, cancel);
        var turn = await db.ScheduledTurns.SingleAsync(row => row.Id == id, cancel);
        act(turn);
        var isNewest = !await db.ScheduledTurns.AnyAsync(row => row.Schedule == turn.Schedule && row.Id > id && row.State != MailState.None, cancel);
        var trouble = turn.State switch { MailState.Sent => "", MailState.GivenUp => turn.Says, _ => turn.Attempts > 0 ? turn.Says : null };
        if (isNewest && trouble is not null)
            Turns.Note(await db.ScheduleStates.SingleAsync(row => row.Name == turn.Schedule, cancel), trouble, Clock.GetUtcNow().UtcDateTime);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }
}
