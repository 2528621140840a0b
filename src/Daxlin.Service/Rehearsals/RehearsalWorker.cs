using Daxlin.Service.Nodes;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Rehearsals;

/// <summary>Works off rehearsals in the background, one after the other. What runs is in the database, so a start goes on with it.</summary>
public sealed class RehearsalWorker(
    RehearsalWork work, StorageState storage, IDbContextFactory<DaxlinDb> databases, NodeMessages messages, Leases leases, ILogger<RehearsalWorker> log) : BackgroundService
{
    private readonly WakeCall call = new(messages, "rehearsals");

    /// <summary>Says that a rehearsal has been begun.</summary>
    public void Wake() => call.Wake();

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (true)
            {
                await call.Wait(stoppingToken);
                try
                {
                    while (await First(stoppingToken) is { } id && await leases.Take(Leases.Rehearsal, id, stoppingToken))
                    {
                        await Run(id, stoppingToken);
                        await leases.End(Leases.Rehearsal, id, stoppingToken);
                    }
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested && StorageFaults.Of(error) is not null)
                {
                    log.LogWarning(error, "Rehearsals wait for the database");
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops; what runs is in the database.
        }
    }

    private async Task<int?> First(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Rehearsals.Where(row => row.State == RehearsalState.Running).OrderBy(row => row.Id).Select(row => (int?)row.Id).FirstOrDefaultAsync(cancel);
    }

    private async Task Run(int id, CancellationToken cancel)
    {
        try
        {
            var others = await work.OfOtherTemplates(cancel);
            while (await work.Next(id, others, cancel))
                continue;
        }
        catch (Exception error) when (!cancel.IsCancellationRequested && StorageFaults.IsFull(error))
        {
            await storage.UntilThereIsRoom(cancel);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested && StorageFaults.Of(error) is { Code: "database-busy" })
        {
            // Another program's lock passes; the same documents are taken again.
        }
        catch (Exception error) when (!cancel.IsCancellationRequested)
        {
            log.LogError(error, "The rehearsal {Id} failed", id);
            await work.Fail(id, StorageFaults.Of(error)?.Sentence ?? "Daxlin failed on this rehearsal; the log has the details. No invoice was changed.", cancel);
        }
    }

    public override void Dispose()
    {
        call.Dispose();
        base.Dispose();
    }
}
