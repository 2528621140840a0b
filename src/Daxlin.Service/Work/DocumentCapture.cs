using Daxlin.Core.Capture;
using Daxlin.Reading;
using Daxlin.Service.Invoices;
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
                await Store(intakeId, await processes.Capture(intake.Sha256, facts, intake.Attempts > 0, cancel), cancel);
            }
            catch (UnreadableException error)
            {
                await SetAside(intakeId, error.Code, error.Message, cancel);
            }
            catch (ReaderDiedException) when (intake.Attempts + 1 < MostDeaths)
            {
                await CountDeath(intakeId, cancel);
            }
            catch (ReaderDiedException)
            {
                await SetAside(intakeId, ReaderDiedException.Code, ReaderDiedException.Sentence, cancel);
            }
        }
    }

    private async Task<(Intake Intake, DocumentFacts Facts)?> Waiting(int intakeId, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var intake = await db.Intakes.SingleOrDefaultAsync(row => row.Id == intakeId && row.State == IntakeState.Waiting, cancel);
        if (intake is null)
            return null;
        var batch = await db.Batches.Where(row => row.Id == intake.BatchId).Select(row => row.Name).SingleAsync(cancel);
        return (intake, new DocumentFacts(intake.FileName, batch, DateOnly.FromDateTime(intake.ReceivedAt)));
    }

    private async Task CountDeath(int intakeId, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.Intakes.Where(row => row.Id == intakeId).ExecuteUpdateAsync(set => set.SetProperty(row => row.Attempts, row => row.Attempts + 1), cancel);
    }

    public async Task SetAside(int intakeId, string code, string reason, CancellationToken cancel)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            (intake.State, intake.ReasonCode, intake.Reason) = (IntakeState.Unreadable, code, reason);
            // What was captured while the bytes were whole says nothing less now that the disk has lost them.
            if (code is not (DocumentStore.Missing or DocumentStore.Altered))
            {
                var gone = await Undecided(db, intakeId, cancel);
                db.Invoices.RemoveRange(gone);
                await db.SaveChangesAsync(cancel);
                foreach (var key in gone.Select(invoice => invoice.SeenKey).Distinct())
                    await Doubles.Refresh(db, key, cancel);
            }
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private async Task Store(int intakeId, DocumentOutcome outcome, CancellationToken cancel)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            var undecided = await Undecided(db, intakeId, cancel);
            var known = undecided.Select(row => row.Id).ToList();
            var decided = await db.Invoices.Where(row => row.IntakeId == intakeId && !known.Contains(row.Id)).ToListAsync(cancel);
            // Pages of a decided invoice are never captured over.
            foreach (var invoice in outcome.Invoices.Where(one => !decided.Any(row => row.FirstPage <= one.LastPage && row.LastPage >= one.FirstPage)))
            {
                var row = undecided.Find(row => row.FirstPage == invoice.FirstPage);
                if (row is null)
                {
                    var isFree = intake.InvoiceNumber > 0 && !await db.Invoices.AnyAsync(other => other.Id == intake.InvoiceNumber, cancel);
                    row = new Invoice
                    {
                        Id = isFree ? intake.InvoiceNumber : await InvoiceNumbers.Next(db, cancel),
                        CapturedAt = clock.GetUtcNow().UtcDateTime,
                        IntakeId = intakeId,
                        BatchId = intake.BatchId,
                    };
                    db.Invoices.Add(row);
                }
                undecided.Remove(row);
                var keyBefore = row.SeenKey;
                row.CapturedAt = clock.GetUtcNow().UtcDateTime;
                invoice.Fill(row);
                await Doubles.Refresh(db, row.SeenKey, cancel);
                if (keyBefore != row.SeenKey)
                    await Doubles.Refresh(db, keyBefore, cancel);
            }
            db.Invoices.RemoveRange(undecided);
            foreach (var key in undecided.Select(gone => gone.SeenKey).Distinct())
                await Doubles.Refresh(db, key, cancel);
            (intake.State, intake.Pages, intake.Attempts) = (IntakeState.Done, outcome.Pages, 0);
            (intake.Reason, intake.ReasonCode) = ("", "");
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private static Task<List<Invoice>> Undecided(DaxlinDb db, int intakeId, CancellationToken cancel) => db.Invoices
        .Where(invoice => invoice.IntakeId == intakeId
            && (invoice.State == InvoiceState.Unplaced || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Clear))
        .ToListAsync(cancel);
}
