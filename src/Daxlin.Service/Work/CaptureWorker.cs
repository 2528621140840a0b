using Daxlin.Service.Storage;

namespace Daxlin.Service.Work;

/// <summary>Works off the waiting documents in the background, as many at a time as there are processors.</summary>
/// <remarks>
/// A document waits until its result is stored in one transaction. A kill at any moment leaves it waiting or done, never
/// in between; at the next start whatever waits is queued again. On a full disk the work stands still until there is room.
/// </remarks>
public sealed class CaptureWorker(
    CaptureQueue queue, DocumentCapture capture, StorageState storage, TimeProvider clock, ILogger<CaptureWorker> log)
    : BackgroundService
{
    private static readonly TimeSpan BetweenTries = TimeSpan.FromSeconds(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            if (await queue.Begin(stoppingToken) is > 0 and var waiting)
                log.LogInformation("{Count} documents wait from before; going on with them", waiting);
            await Task.WhenAll(Enumerable.Range(0, Environment.ProcessorCount).Select(_ => WorkOff(stoppingToken)));
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops; what waits is in the database.
        }
    }

    private async Task WorkOff(CancellationToken cancel)
    {
        while (true)
        {
            var intake = 0;
            var batch = 0;
            try
            {
                (batch, intake) = await queue.Next(cancel);
                using (log.BeginScope(new Dictionary<string, object> { ["Batch"] = batch, ["Intake"] = intake }))
                    await capture.Run(intake, cancel);
            }
            catch (Exception error) when (!cancel.IsCancellationRequested)
            {
                await Settle(batch, intake, error, cancel);
            }
            if (intake > 0)
                await End(intake, cancel);
        }
    }

    private async Task End(int intake, CancellationToken cancel)
    {
        try
        {
            await queue.End(intake, cancel);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested && StorageFaults.Of(error) is not null)
        {
            // It comes free by itself.
        }
    }

    /// <summary>What is the storage's fault is tried again; what is the document's is set aside.</summary>
    private async Task Settle(int batch, int intake, Exception error, CancellationToken cancel)
    {
        if (StorageFaults.IsFull(error))
        {
            log.LogWarning("The disk is full; the document of intake {Intake} waits for room", intake);
            await storage.UntilThereIsRoom(cancel);
            queue.Add(batch, intake);
            return;
        }
        if (StorageFaults.Of(error) is { Code: "database-busy" })
        {
            // SQLite has waited already as long as it does; another program's lock passes.
            queue.Add(batch, intake);
            return;
        }
        if (StorageFaults.Of(error) is var (_, code, sentence))
        {
            // Said once, and not each second that a server is away.
            if (storage.Current?.Code != code)
                log.LogError(error, "Capturing waits for the storage: {Code}", code);
            // The document has done nothing: it waits in the database until the storage is mended and, where that is a file, the service started
            // anew. A server is asked for it again by whoever comes first.
            storage.Report(code, sentence);
            await Task.Delay(BetweenTries, clock, cancel);
            return;
        }
        log.LogError(error, "Capturing the document of intake {Intake} failed", intake);
        try
        {
            await capture.SetAside(
                intake, "failed", "Daxlin failed on this document; the log has the details. Its bytes are kept.", cancel);
        }
        catch (Exception second) when (!cancel.IsCancellationRequested && StorageFaults.Of(second) is not null)
        {
            await Settle(batch, intake, second, cancel);
        }
    }
}
