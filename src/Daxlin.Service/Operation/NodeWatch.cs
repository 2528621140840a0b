using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Operation;

/// <summary>Looks at what waits, and tells the other services on the database how this one is, every some seconds.</summary>
internal sealed class NodeWatch(
    IDbContextFactory<DaxlinDb> databases, ServiceSettings settings, Measures measures, StorageState storage, TimeProvider clock, ILogger<NodeWatch> log) : BackgroundService
{
    /// <summary>A service that has not told of itself for so long is away.</summary>
    public const int SecondsUntilAway = 60;

    private static readonly TimeSpan BetweenLooks = TimeSpan.FromSeconds(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(BetweenLooks, clock);
        var began = clock.GetTimestamp();
        try
        {
            do
            {
                try
                {
                    await using var db = await databases.CreateDbContextAsync(stoppingToken);
                    measures.IsInTrouble = storage.Current is not null;
                    measures.Backlog = await Backlog.Of(db, clock.GetUtcNow().UtcDateTime, stoppingToken);
                    if (settings.Store.Length > 0)
                        await Tell(db, clock.GetElapsedTime(began), stoppingToken);
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested)
                {
                    measures.IsInTrouble = true;
                    log.LogWarning(error, "What waits was not looked at");
                }
            }
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // The service stops.
        }
    }

    /// <remarks>Times are the server's: clocks of services may differ.</remarks>
    private Task<int> Tell(DaxlinDb db, TimeSpan up, CancellationToken cancel) => db.Database.ExecuteSqlAsync(
        $"""
        INSERT INTO "Nodes" ("Name", "Version", "StartedAt", "SeenAt", "Readers", "Reading", "Captured", "SetAside", "Deaths", "Trouble")
        VALUES ({settings.Node}, {ThisProgram.Version}, now() - make_interval(secs => {up.TotalSeconds}), now(), {Environment.ProcessorCount}, {measures.Reading}, {measures.Captured}, {measures.SetAside}, {measures.Deaths}, {storage.Current?.Sentence ?? ""})
        ON CONFLICT ("Name") DO UPDATE SET "Version" = excluded."Version", "StartedAt" = excluded."StartedAt", "SeenAt" = excluded."SeenAt", "Readers" = excluded."Readers",
            "Reading" = excluded."Reading", "Captured" = excluded."Captured", "SetAside" = excluded."SetAside", "Deaths" = excluded."Deaths", "Trouble" = excluded."Trouble"
        """, cancel);

    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        if (settings.Store.Length == 0)
            return;
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancellationToken);
            await db.Nodes.Where(node => node.Name == settings.Node).ExecuteDeleteAsync(cancellationToken);
        }
        catch (Exception error) when (error is OperationCanceledException || StorageFaults.Of(error) is not null)
        {
            // It is shown as away until an administrator forgets it.
        }
    }
}
