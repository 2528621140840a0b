using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.History;

/// <summary>Looks through the history's chain when the service starts, and seals from time to time what it gained.</summary>
public sealed class HistoryWatch(IDbContextFactory<DaxlinDb> databases, WriteTurn turn, StorageState storage, TimeProvider clock, ILogger<HistoryWatch> log) : BackgroundService
{
    private static readonly TimeSpan BetweenSeals = TimeSpan.FromMinutes(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            try
            {
                await Verify(stoppingToken);
            }
            catch (Exception error) when (StorageFaults.Of(error) is var (code, _, _))
            {
                log.LogWarning("The history was not looked through: {Code}", code);
            }
            using var timer = new PeriodicTimer(BetweenSeals, clock);
            do
                await Seal(stoppingToken);
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops.
        }
    }

    private async Task Verify(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var verified = await HistoryVerification.Run(db, withRecords: false, cancel);
        if (verified.IsWhole)
            return;
        log.LogError("The history is broken at entry {Entry} of {Stream}", verified.Entry, verified.Stream);
        storage.Report("history-broken", $"{verified.Sentence} Nothing of it was changed now; find out who could write to the data folder.");
    }

    private async Task Seal(CancellationToken cancel)
    {
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var change = await turn.Take(db, cancel);
            await HistoryLog.Seal(db, clock.GetUtcNow().UtcDateTime, cancel);
            await change.Commit(cancel);
        }
        catch (Exception error) when (StorageFaults.Of(error) is var (code, _, _))
        {
            // What is wrong with the storage is said elsewhere; the next seal covers it all.
            log.LogWarning("The history was not sealed: {Code}", code);
        }
    }
}
