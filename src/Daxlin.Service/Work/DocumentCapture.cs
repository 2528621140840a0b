using Daxlin.Core.Capture;
using Daxlin.Core.History;
using Daxlin.Reading;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Has one document captured by a reading process, and stores what comes of it.</summary>
public sealed class DocumentCapture(
    IDbContextFactory<DaxlinDb> databases, ReadingProcesses processes, WriteTurn turn, BatchEvents events, TimeProvider clock)
{
    /// <summary>A document on which so many processes died is not begun again.</summary>
    private const int MostDeaths = 2;

    public async Task Run(int intakeId, CancellationToken cancel)
    {
        while (await Waiting(intakeId, cancel) is var (intake, facts))
        {
            try
            {
                await Store(intakeId, intake.Round, await processes.Capture(intake.Sha256, facts, intake.Attempts > 0, cancel), cancel);
            }
            catch (UnreadableException error)
            {
                await SetAside(intakeId, error.Code, error.Message, cancel, intake.Round);
            }
            catch (ReaderDiedException) when (intake.Attempts + 1 < MostDeaths)
            {
                await CountDeath(intakeId, cancel);
            }
            catch (ReaderDiedException)
            {
                await SetAside(intakeId, ReaderDiedException.Code, ReaderDiedException.Sentence, cancel, intake.Round);
            }
        }
    }

    private async Task<(Intake Intake, DocumentFacts Facts)?> Waiting(int intakeId, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var waiting = await db.Intakes.Where(row => row.Id == intakeId && row.State == IntakeState.Waiting)
            .Join(db.Batches, row => row.BatchId, batch => batch.Id, (row, batch) => new { Intake = row, Batch = batch.Name })
            .SingleOrDefaultAsync(cancel);
        return waiting is null ? null
            : (waiting.Intake, waiting.Intake.Facts(waiting.Batch));
    }

    private async Task CountDeath(int intakeId, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.Intakes.Where(row => row.Id == intakeId).ExecuteUpdateAsync(set => set.SetProperty(row => row.Attempts, row => row.Attempts + 1), cancel);
    }

    /// <param name="round">The round in which the reason was found; null for any.</param>
    public async Task SetAside(int intakeId, string code, string reason, CancellationToken cancel, int? round = null)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            if (round is not null && intake.Round != round)
                return;
            (intake.State, intake.ReasonCode, intake.Reason) = (IntakeState.Unreadable, code, reason);
            // What was captured while the bytes were whole says nothing less now that the disk has lost them.
            if (code is not (DocumentStore.Missing or DocumentStore.Altered))
            {
                var gone = (await db.Invoices.Where(row => row.IntakeId == intakeId).ToListAsync(cancel)).FindAll(BoundActs.IsUndecided);
                db.Invoices.RemoveRange(gone);
                await StoreFindings.Refresh(db, [], [.. gone.Select(InvoiceKeys.Of)], clock.GetUtcNow().UtcDateTime, cancel);
            }
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private async Task Store(int intakeId, int round, DocumentOutcome outcome, CancellationToken cancel)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            // Put back to wait meanwhile: it is captured anew, by what was saved meanwhile.
            if (intake.Round != round)
                return;
            var known = await db.Invoices.Where(row => row.IntakeId == intakeId).ToListAsync(cancel);
            var undecided = known.FindAll(BoundActs.IsUndecided);
            var decided = known.Except(undecided).ToList();
            var keys = undecided.ConvertAll(InvoiceKeys.Of);
            var now = clock.GetUtcNow().UtcDateTime;
            var filled = new List<(Invoice Row, string Before)>();
            // Pages of a decided invoice are never captured over.
            foreach (var invoice in outcome.Invoices.Where(one => !decided.Any(row => row.FirstPage <= one.LastPage && row.LastPage >= one.FirstPage)))
            {
                var row = undecided.Find(row => row.FirstPage == invoice.FirstPage);
                if (row is null)
                {
                    row = new Invoice { Id = await NumberFor(intake, db, cancel), CapturedAt = default, IntakeId = intakeId, BatchId = intake.BatchId };
                    db.Invoices.Add(row);
                }
                undecided.Remove(row);
                row.CapturedAt = now;
                var before = known.Contains(row) ? row.Record : "";
                filled.Add((row, before));
                row.Intake = intake;
                invoice.Fill(row);
                if (known.Contains(row))
                    await CorrectedInvoices.TakeOver(row, db, cancel);
                StoreFindings.Carry(row, before);
            }
            db.Invoices.RemoveRange(undecided);
            (intake.State, intake.Pages, intake.Attempts) = (IntakeState.Done, outcome.Pages, 0);
            (intake.Reason, intake.ReasonCode) = ("", "");
            await StoreFindings.Refresh(db, filled.ConvertAll(one => one.Row), keys, now, cancel);
            // What is captured anew as it was is nothing new.
            await HistoryLog.Record(db, [.. filled.Where(one => one.Row.Record != one.Before).Select(one => Told(one.Row, now))], cancel);
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private static Deed Told(Invoice row, DateTime at) => new(
        HistoryStreams.Invoice(row.Id), at, Deed.Daxlin, HistoryActs.Captured,
        row.Template.Length == 0 ? "placed by no template" : $"captured by the template {row.Template}, version {row.TemplateVersion}")
    {
        After = InvoiceDetails.Word(row.State),
        Reason = row.FirstFinding,
        Content = HistoryChain.ContentOf(row.Record),
    };

    /// <summary>The first invoice of a document has its number from the intake; others get theirs when they are found.</summary>
    private static async Task<int> NumberFor(Intake intake, DaxlinDb db, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        return intake.InvoiceNumber > 0 && !await db.Invoices.AnyAsync(other => other.Id == intake.InvoiceNumber, cancel)
            ? intake.InvoiceNumber : await InvoiceNumbers.Next(db, cancel);
    }
}
