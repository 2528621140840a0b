using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Daxlin.Service.Operation;

/// <summary>A service that is stopping takes no new requests: whoever shares them out sends them to another.</summary>
internal sealed class StopHealth(IHostApplicationLifetime lifetime) : IHealthCheck
{
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
        Task.FromResult(lifetime.ApplicationStopping.IsCancellationRequested ? HealthCheckResult.Unhealthy("The service is stopping.") : HealthCheckResult.Healthy());
}
