using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Works off the waiting documents in the background, as many at a time as there are processors.</summary>
/// <remarks>
/// A document waits until its result is stored in one transaction. A kill at any moment leaves it waiting or done, never
/// in between; at the next start whatever waits is queued again.
/// </remarks>
public sealed class CaptureWorker(
    CaptureQueue queue, DocumentCapture capture, IDbContextFactory<DaxlinDb> databases, ILogger<CaptureWorker> log)
    : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await using (var db = await databases.CreateDbContextAsync(stoppingToken))
        {
            var waiting = await db.Intakes.Where(intake => intake.State == IntakeState.Waiting)
                .OrderBy(intake => intake.Id).Select(intake => intake.Id).ToListAsync(stoppingToken);
            if (waiting.Count > 0)
                log.LogInformation("{Count} documents wait from before; going on with them", waiting.Count);
            foreach (var intake in waiting)
                queue.Add(intake);
        }
        await Task.WhenAll(Enumerable.Range(0, Environment.ProcessorCount).Select(_ => WorkOff(stoppingToken)));
    }

    private async Task WorkOff(CancellationToken cancel)
    {
        await foreach (var intake in queue.All(cancel))
        {
            try
            {
                await capture.Run(intake, cancel);
            }
            catch (OperationCanceledException) when (cancel.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error)
            {
                log.LogError(error, "Capturing the document of intake {Intake} failed", intake);
                await capture.SetAside(
                    intake, "failed", "Daxlin failed on this document; the log has the details. Its bytes are kept.", cancel);
            }
        }
    }
}
