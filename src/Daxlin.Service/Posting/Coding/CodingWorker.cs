using Daxlin.Service.Invoices;
using Daxlin.Service.Nodes;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Codes open invoices anew when rules, lists or layouts have changed, some at a time, so that nobody waits long for the turn to write.</summary>
/// <remarks>Each invoice says by what it was coded last, so a kill loses nothing: the next start goes on. Approval asks by itself.</remarks>
public sealed class CodingWorker(IDbContextFactory<DaxlinDb> databases, WriteTurn turn, CodingEvents events, NodeMessages messages, TimeProvider clock, ILogger<CodingWorker> log) : BackgroundService
{
    private const int AtATime = 20;

    private readonly WakeCall call = new(messages, "coding");

    /// <summary>Something changed by which invoices are coded.</summary>
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
                    while (await CodeSome(stoppingToken) == AtATime)
                    {
                        // More are left.
                    }
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested)
                {
                    // What is not coded anew yet is when it is approved, or after the next change.
                    log.LogError(error, "Coding open invoices anew failed");
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The service stops; what is left is coded after the next start.
        }
    }

    private async Task<int> CodeSome(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        var coded = await StoreFindings.RefreshCoding(db, AtATime, clock.GetUtcNow().UtcDateTime, cancel);
        await change.Commit(cancel);
        events.Moved(CodingEvents.Work);
        return coded;
    }

    public override void Dispose()
    {
        call.Dispose();
        base.Dispose();
    }
}
