using Daxlin.Core.Capture;
using Daxlin.Core.History;
using Daxlin.Core.Recognition;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

/// <summary>Takes files into a batch: keeps their bytes, and has them captured.</summary>
public sealed class BatchIntake(DaxlinDb db, DocumentStore documents, WriteTurn turn, CaptureQueue queue, BatchEvents events, TimeProvider clock)
{
    /// <summary>
    /// So many files of an upload are written at once and taken in by one transaction: waiting for the disk is most of an
    /// upload's time, and the first of two thousand should not wait for the last to be captured.
    /// </summary>
    private const int FilesAtOnce = 16;

    /// <param name="files">Each with the name it came by, and how to read it.</param>
    /// <param name="who">Who brings them.</param>
    /// <param name="template">The template that they are sent for; empty for none.</param>
    public async Task<List<FileTaken>> Take(int batch, IReadOnlyList<(string Name, Func<Stream> Open)> files, string who, CancellationToken cancel, string template = "")
    {
        var taken = new List<FileTaken>();
        foreach (var some in files.Chunk(FilesAtOnce))
        {
            var kept = await Task.WhenAll(some.Select(file => Keep(file.Name, file.Open, cancel)));
            taken.AddRange(await TakeIn(batch, kept, who, template, cancel));
        }
        events.Moved(batch);
        return taken;
    }

    /// <returns>Without a hash if it is too large to be kept.</returns>
    private async Task<KeptFile> Keep(string fileName, Func<Stream> open, CancellationToken cancel)
    {
        var name = FileName.Of(fileName);
        try
        {
            await using var content = open();
            var (sha256, size) = await documents.Keep(content, cancel);
            return new KeptFile(name, sha256, size);
        }
        catch (TooLargeException)
        {
            return new KeptFile(name, "", 0);
        }
    }

    /// <summary>Takes kept files into the batch, all in one change: each has its row once its answer is on the way.</summary>
    private async Task<List<FileTaken>> TakeIn(int batch, IReadOnlyList<KeptFile> files, string who, string template, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var taken = await AddWithin(db, batch, files, who, "took in a document", template, cancel);
        await change.Commit(cancel);
        return taken;
    }

    /// <summary>The same within a change that is under way, with whatever else it stores.</summary>
    /// <param name="what">What was done, for the history.</param>
    /// <param name="template">As of <see cref="Take"/>; of a document that the batch holds already, nothing is changed by it.</param>
    internal async Task<List<FileTaken>> AddWithin(DaxlinDb within, int batch, IReadOnlyList<KeptFile> files, string who, string what, string template, CancellationToken cancel)
    {
        var (taken, waiting) = (new List<FileTaken>(), new List<Intake>());
        var number = await InvoiceNumbers.Next(within, cancel);
        foreach (var (name, sha256, size) in files)
        {
            if (sha256.Length == 0)
            {
                taken.Add(new FileTaken(name, "refused", new TooLargeException().Message, ""));
                continue;
            }
            var rows = await within.Intakes.Where(row => row.Sha256 == sha256).ToListAsync(cancel);
            // The bytes that the disk had lost or altered are there again, in whichever batch they are wanted.
            var mended = rows.FindAll(row => row is
            { State: IntakeState.Unreadable, ReasonCode: DocumentStore.Missing or DocumentStore.Altered });
            foreach (var row in mended)
                row.Again();
            waiting.AddRange(mended);
            if (rows.Find(row => row.BatchId == batch) is { } same)
            {
                taken.Add(new FileTaken(name, "already-here", mended.Contains(same)
                    ? $"The batch holds this document as {same.FileName}; its bytes are mended." : $"The batch holds the same document as {same.FileName}.", sha256));
                continue;
            }
            var intake = new Intake
            {
                BatchId = batch,
                Sha256 = sha256,
                FileName = name,
                Size = size,
                ReceivedAt = clock.GetUtcNow().UtcDateTime,
                InvoiceNumber = number++,
            };
            within.Intakes.Add(intake);
            await within.SaveChangesAsync(cancel);
            if (template.Length > 0)
            {
                within.TemplateChoices.Add(new TemplateChoice { IntakeId = intake.Id, FirstPage = 1, LastPage = SaidTemplate.ToTheEnd, Template = template, At = intake.ReceivedAt, By = who });
                await within.SaveChangesAsync(cancel);
            }
            waiting.Add(intake);
            taken.Add(new FileTaken(name, "taken", "", sha256));
        }
        await HistoryLog.Record(
            within,
            [
                .. taken.Where(file => file.Outcome == "taken").Select(file => new Deed(HistoryStreams.Batch(batch), clock.GetUtcNow().UtcDateTime, who, HistoryActs.TakenIn, what)
                {
                    After = file.File,
                    Content = file.Sha256,
                }),
            ],
            cancel);
        await within.SaveChangesAsync(cancel);
        foreach (var intake in waiting)
            within.Then(() => queue.Add(intake.BatchId, intake.Id));
        return taken;
    }
}
