using Daxlin.Core.Schedules;
using Daxlin.Service.Nodes;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Schedules;

/// <summary>Sends the messages of schedules.</summary>
internal sealed class DigestWorker(IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn turn, Leases leases, TimeProvider clock, ILogger<DigestWorker> log)
    : WaitingMail<ScheduledTurn>(Leases.Digest, databases, once, turn, leases, clock, log)
{
    protected override async Task<MailToSend> Make(ScheduledTurn row, DaxlinDb db, CancellationToken cancel)
    {
        var newest = await ScheduleShelf.Newest(db).AsNoTracking().SingleAsync(schedule => schedule.Name == row.Schedule, cancel);
        if (newest.IsRetired || ScheduleShelf.Read(newest)?.Act is not DigestAct digest)
            return MailToSend.Not("The schedule sends no messages any more.");
        if (row.State == MailState.Waiting && await HasNewer(row, db, cancel))
            return MailToSend.Not("A newer message says what waits by now.");
        var (line, refused) = await ReceiverShelf.ByMail(digest.Receiver, db, cancel);
        if (line is null)
            return MailToSend.Not(refused!.Sentence);
        var message = new MimeMessage { Subject = row.Subject, Body = new TextPart("plain") { Text = row.Text }, MessageId = MessageIds.Of("schedule", row.Id, row.At, line) };
        message.From.Add(MailboxAddress.Parse(line.From));
        message.To.AddRange(line.To.Select(one => new MailboxAddress("", one)));
        // So that no program answers it (RFC 3834, 5).
        message.Headers.Add("Auto-Submitted", "auto-generated");
        return MailToSend.By(line, message);
    }

    /// <remarks>What could not be sent stands as the schedule's trouble, what was sent ends it; of one that a newer message has taken the place of, neither is told.</remarks>
    protected override async Task Changed(ScheduledTurn row, DaxlinDb db, CancellationToken cancel)
    {
        var trouble = row.State switch { MailState.Sent => "", MailState.GivenUp => row.Says, _ => row.Attempts > 0 ? row.Says : null };
        if (trouble is not null && !await HasNewer(row, db, cancel))
            Turns.Note(await db.ScheduleStates.SingleAsync(state => state.Name == row.Schedule, cancel), trouble, Clock.GetUtcNow().UtcDateTime);
    }

    private static Task<bool> HasNewer(ScheduledTurn row, DaxlinDb db, CancellationToken cancel) =>
        db.ScheduledTurns.AnyAsync(other => other.Schedule == row.Schedule && other.Id > row.Id && other.State != MailState.None, cancel);
}
