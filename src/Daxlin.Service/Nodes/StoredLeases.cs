using System.Collections.Concurrent;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Nodes;

/// <summary>Leases in a database of PostgreSQL, by its server's clock: clocks of services may differ, or jump.</summary>
internal sealed class StoredLeases(IDbContextFactory<DaxlinDb> databases, ServiceSettings settings, TimeProvider clock, ILogger<StoredLeases> log) : Leases, IHostedService, IDisposable
{
    /// <summary>What a service has that died is free after so long.</summary>
    public const int Seconds = 30;

    private static readonly TimeSpan BetweenRenewals = TimeSpan.FromSeconds(Seconds / 6);

    /// <summary>What is worked on here. One that ended while the server was away is not among them, and so comes free.</summary>
    private readonly ConcurrentDictionary<(string Work, int Of), bool> held = [];

    private readonly CancellationTokenSource ends = new();
    private Task renewing = Task.CompletedTask;

    /// <remarks>What a service of this name had is free: it is dead, or this one would not have its folder.</remarks>
    public async Task StartAsync(CancellationToken cancellationToken)
    {
        await using var db = await databases.CreateDbContextAsync(cancellationToken);
        await db.Leases.Where(lease => lease.Node == settings.Node).ExecuteDeleteAsync(cancellationToken);
        renewing = Renew(ends.Token);
    }

    public async Task StopAsync(CancellationToken cancellationToken)
    {
        await ends.CancelAsync();
        await renewing;
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancellationToken);
            await db.Leases.Where(lease => lease.Node == settings.Node).ExecuteDeleteAsync(cancellationToken);
        }
        catch (Exception error) when (error is OperationCanceledException || StorageFaults.Of(error) is not null)
        {
            // They come free by themselves.
        }
    }

    public override async Task<bool> Take(string work, int of, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var isTaken = await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Leases" ("Work", "Of", "Node", "Until") VALUES ({work}, {of}, {settings.Node}, now() + make_interval(secs => {Seconds}))
            ON CONFLICT ("Work", "Of") DO UPDATE SET "Node" = excluded."Node", "Until" = excluded."Until" WHERE "Leases"."Until" <= now()
            """, cancel) == 1;
        if (isTaken)
            held[(work, of)] = true;
        return isTaken;
    }

    /// <summary>Takes the first document of the next batch that has one which waits and which nobody captures.</summary>
    /// <param name="after">The batch whose turn it was last.</param>
    /// <returns>Null if none of the batches after that one has any.</returns>
    public async Task<(int Batch, int Intake)?> TakeCapture(int after, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        // Two that look at once are kept apart by the row's lock; one that looked before and comes to the row after, by the lease that is there then.
        var taken = await db.Database.SqlQuery<TakenIntake>(
            $"""
            WITH next AS (
                SELECT "Id", "BatchId" FROM "Intakes" AS intake
                WHERE "State" = 'Waiting' AND "BatchId" > {after}
                    AND NOT EXISTS (SELECT 1 FROM "Leases" WHERE "Work" = {Capture} AND "Of" = intake."Id" AND "Until" > now())
                ORDER BY "BatchId", "Id" LIMIT 1 FOR UPDATE SKIP LOCKED),
            taken AS (
                INSERT INTO "Leases" ("Work", "Of", "Node", "Until") SELECT {Capture}, "Id", {settings.Node}, now() + make_interval(secs => {Seconds}) FROM next
                ON CONFLICT ("Work", "Of") DO UPDATE SET "Node" = excluded."Node", "Until" = excluded."Until" WHERE "Leases"."Until" <= now()
                RETURNING "Of")
            SELECT "Id", "BatchId" FROM next WHERE "Id" IN (SELECT "Of" FROM taken)
            """).ToListAsync(cancel);
        if (taken is not [var one])
            return null;
        held[(Capture, one.Id)] = true;
        return (one.BatchId, one.Id);
    }

    public override async Task End(string work, int of, CancellationToken cancel)
    {
        held.TryRemove((work, of), out _);
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.Leases.Where(lease => lease.Work == work && lease.Of == of && lease.Node == settings.Node).ExecuteDeleteAsync(cancel);
    }

    private async Task Renew(CancellationToken cancel)
    {
        using var timer = new PeriodicTimer(BetweenRenewals, clock);
        while (!cancel.IsCancellationRequested)
        {
            try
            {
                await timer.WaitForNextTickAsync(cancel);
                await using var db = await databases.CreateDbContextAsync(cancel);
                foreach (var (work, these) in held.Keys.GroupBy(one => one.Work).Select(group => (group.Key, group.Select(one => one.Of).ToArray())))
                {
                    await db.Database.ExecuteSqlAsync(
                        $"""UPDATE "Leases" SET "Until" = now() + make_interval(secs => {Seconds}) WHERE "Node" = {settings.Node} AND "Work" = {work} AND "Of" = ANY ({these})""", cancel);
                }
            }
            catch (OperationCanceledException)
            {
                // The service stops; what it has is free after a while.
            }
            catch (Exception error)
            {
                // While the server is away nobody else can take them either; what others have taken by then is stored once all the same.
                log.LogWarning(error, "The leases were not renewed");
            }
        }
    }

    public void Dispose() => ends.Dispose();

    private sealed record TakenIntake(int Id, int BatchId);
}
