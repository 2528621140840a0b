using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Schedules;
using Daxlin.Service.Posting;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

/// <summary>Does what a schedule says, within the change that its turn is stored in: a death leaves both or neither.</summary>
internal sealed class Turns(DaxlinDb db, PostingRuns runs, TimeProvider clock)
{
    /// <summary>By whom posting runs are made that nobody had made.</summary>
    public static string NameOf(string schedule) => "schedule: " + schedule;

    /// <param name="row">The version that says what is done.</param>
    /// <param name="dueAt">When it was due.</param>
    /// <param name="by">Who has it done at once; empty for nobody.</param>
    public async Task<ScheduledTurn> Take(ScheduleVersion row, ScheduleState state, DateTime dueAt, string by, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var turn = new ScheduledTurn { Schedule = row.Name, Version = row.Version, DueAt = dueAt, At = now, By = by };
        switch (ScheduleShelf.Read(row)?.Act)
        {
            case PostingAct posting:
                await Post(turn, posting, cancel);
                break;
            case DigestAct digest:
                await Tell(turn, digest, cancel);
                break;
            default:
                (turn.Outcome, turn.Says) = (TurnOutcome.Refused, $"The schedule “{row.Name}” has faults: this release cannot read its document any more.");
                break;
        }
        db.ScheduledTurns.Add(turn);
        Note(state, turn.Outcome == TurnOutcome.Refused ? turn.Says : "", now);
        await db.SaveChangesAsync(cancel);
        return turn;
    }

    /// <summary>Notes whether a person has to look at a schedule.</summary>
    public static void Note(ScheduleState state, string trouble, DateTime now) =>
        (state.Trouble, state.TroubleSince) = (trouble, trouble.Length == 0 ? null : state.TroubleSince ?? now);

    private async Task Post(ScheduledTurn turn, PostingAct posting, CancellationToken cancel)
    {
        var approved = db.Invoices.Where(invoice => invoice.State == InvoiceState.Approved);
        if (!await approved.AnyAsync(cancel))
        {
            (turn.Outcome, turn.Says) = (TurnOutcome.Nothing, "There was nothing to post.");
            return;
        }
        List<int?> batches = posting.IsByBatch ? await approved.Select(invoice => (int?)invoice.BatchId).Distinct().OrderBy(batch => batch).ToListAsync(cancel) : [null];
        var (made, said, isRefused) = (new List<int>(), new List<string>(), false);
        foreach (var batch in batches)
        {
            var wanted = new RunToStart(batch, batch is null, Layout: posting.Layout.Length > 0 ? posting.Layout : null, Deliver: posting.Deliver);
            var (run, refused) = await runs.Make(wanted, null, turn.By.Length > 0 ? turn.By : NameOf(turn.Schedule), cancel);
            if (run is not null)
            {
                made.Add(run.Number);
                said.Add(string.Create(CultureInfo.InvariantCulture, $"Posting run {run.Number} was made, with {(run.Invoices == 1 ? "1 invoice" : $"{run.Invoices} invoices")}."));
            }
            else if (refused!.Code != PostingRuns.NothingToPost)
            {
                isRefused = true;
                said.Add(batch is null ? refused.Sentence : $"Batch “{await db.Batches.Where(one => one.Id == batch).Select(one => one.Name).SingleAsync(cancel)}”: {refused.Sentence}");
            }
        }
        turn.Runs = JsonSerializer.Serialize(made);
        turn.Outcome = isRefused ? TurnOutcome.Refused : made.Count > 0 ? TurnOutcome.Done : TurnOutcome.Nothing;
        turn.Says = said.Count > 0 ? string.Join(" ", said) : "There was nothing to post by this layout.";
    }

    private async Task Tell(ScheduledTurn turn, DigestAct digest, CancellationToken cancel)
    {
        if ((await ReceiverShelf.ByMail(digest.Receiver, db, cancel)).Refused is { } unfit)
        {
            (turn.Outcome, turn.Says) = (TurnOutcome.Refused, unfit.Sentence);
            return;
        }
        var last = await db.ScheduledTurns.Where(row => row.Schedule == turn.Schedule).MaxAsync(row => (DateTime?)row.At, cancel);
        var facts = await Waiting.Of(db, last ?? turn.At.AddDays(-1), DateOnly.FromDateTime(clock.GetLocalNow().DateTime), cancel);
        if (facts.IsNothing && !digest.EvenIfNothing)
        {
            (turn.Outcome, turn.Says) = (TurnOutcome.Nothing, "Nothing waits for a person, so nobody was told.");
            return;
        }
        (turn.Outcome, turn.State, turn.Subject, turn.Text) = (TurnOutcome.Done, MailState.Waiting, DigestText.Subject(digest.Subject, facts), DigestText.Of(facts));
    }
}
