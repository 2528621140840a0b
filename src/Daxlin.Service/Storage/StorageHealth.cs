using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Daxlin.Service.Storage;

/// <summary>Says that the database answers from each of its tables, and that nothing is wrong with the disk.</summary>
internal sealed class StorageHealth(IDbContextFactory<DaxlinDb> databases, StorageState state) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        if (state.Current is { } trouble)
            return HealthCheckResult.Unhealthy(trouble.Sentence);
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancellationToken);
            await db.Batches.OrderBy(row => row.Id).FirstOrDefaultAsync(cancellationToken);
            await db.Intakes.OrderByDescending(row => row.Id).FirstOrDefaultAsync(cancellationToken);
            await db.Invoices.OrderByDescending(row => row.Id).Select(row => row.State).FirstOrDefaultAsync(cancellationToken);
            await db.Templates.OrderByDescending(row => row.Id).Select(row => row.Name).FirstOrDefaultAsync(cancellationToken);
            return HealthCheckResult.Healthy();
        }
        catch (Exception error) when (StorageFaults.Of(error) is var (_, _, sentence))
        {
            return HealthCheckResult.Unhealthy(sentence);
        }
    }
}
