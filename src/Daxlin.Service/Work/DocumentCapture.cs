using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Reading;
using Daxlin.Service.Invoices;
using Daxlin.Service.Operation;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Has one document captured by a reading process, and stores what comes of it.</summary>
public sealed class DocumentCapture(
    IDbContextFactory<DaxlinDb> databases, ReadingProcesses processes, WriteTurn turn, BatchEvents events, Measures measures, TimeProvider clock)
{
    /// <summary>A document on which so many processes died is not begun again.</summary>
    private const int MostDeaths = 2;

    public async Task Run(int intakeId, CancellationToken cancel)
    {
        while (await Waiting(intakeId, cancel) is var (intake, facts, chosen))
        {
            using var span = Measures.Spans.StartActivity("capture document")?.SetTag("daxlin.intake", intakeId).SetTag("daxlin.batch", intake.BatchId);
            try
            {
                var outcome = await measures.Step("read", () => processes.Capture(intake.Sha256, facts, intake.Attempts > 0, chosen, cancel, moved: () => events.Moved(intake.BatchId)));
                if (await measures.Step("store", () => Store(intakeId, intake.Round, outcome, cancel)))
                    measures.AddCaptured();
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

    private async Task<(Intake Intake, DocumentFacts Facts, ImmutableArray<ChosenPages> Chosen)?> Waiting(int intakeId, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var waiting = await db.Intakes.Where(row => row.Id == intakeId && row.State == IntakeState.Waiting)
            .Join(db.Batches, row => row.BatchId, batch => batch.Id, (row, batch) => new { Intake = row, Batch = batch.Name })
            .SingleOrDefaultAsync(cancel);
        return waiting is null ? null
            : (waiting.Intake, waiting.Intake.Facts(waiting.Batch), [.. (await ChoosingTemplate.Of(db, intakeId).ToListAsync(cancel)).Select(ChosenPages.Of)]);
    }

    private async Task CountDeath(int intakeId, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        await db.Intakes.Where(row => row.Id == intakeId).ExecuteUpdateAsync(set => set.SetProperty(row => row.Attempts, row => row.Attempts + 1), cancel);
        await change.Commit(cancel);
    }

    /// <param name="round">The round in which the reason was found; null for any.</param>
    public async Task SetAside(int intakeId, string code, string reason, CancellationToken cancel, int? round = null)
    {
        int batch;
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using (var change = await turn.Take(db, cancel))
        {
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            if (round is not null && (intake.Round != round || intake.State != IntakeState.Waiting))
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
            await change.Commit(cancel);
            batch = intake.BatchId;
        }
        measures.AddSetAside(code);
        events.Moved(batch);
    }

    /// <returns>False if it is not wanted any more.</returns>
    private async Task<bool> Store(int intakeId, int round, DocumentOutcome outcome, CancellationToken cancel)
    {
        int batch;
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using (var change = await turn.Take(db, cancel))
        {
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            // Put back to wait meanwhile: it is captured anew, by what was saved meanwhile. Or another service was thought dead, and was only slow.
            if (intake.Round != round || intake.State != IntakeState.Waiting)
                return false;
            await CapturedDocument.Keep(db, intake, outcome, clock.GetUtcNow().UtcDateTime, cancel);
            await change.Commit(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
        return true;
    }
}
