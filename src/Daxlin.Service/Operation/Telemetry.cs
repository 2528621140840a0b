using Daxlin.Core.People;
using Daxlin.Service.People;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace Daxlin.Service.Operation;

/// <summary>Metrics to be fetched at <c>/metrics</c>, and metrics and traces sent to a collector if the environment names one.</summary>
internal static class Telemetry
{
    public const string MetricsPath = "/metrics";

    /// <summary>OpenTelemetry's own variable; the others of its specification work, too.</summary>
    private const string CollectorVariable = "OTEL_EXPORTER_OTLP_ENDPOINT";

    public static void Add(IServiceCollection services, ServiceSettings settings)
    {
        var isSent = !string.IsNullOrEmpty(Environment.GetEnvironmentVariable(CollectorVariable));
        var telemetry = services.AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("daxlin", serviceVersion: ThisProgram.Version, serviceInstanceId: settings.Node.Length > 0 ? settings.Node : Environment.MachineName))
            .WithMetrics(metrics =>
            {
                metrics.AddMeter(Measures.Name, "Microsoft.AspNetCore.Hosting", "System.Runtime").AddPrometheusExporter();
                if (isSent)
                    metrics.AddOtlpExporter();
            });
        if (isSent)
            telemetry.WithTracing(traces => traces.AddSource(Measures.Name, "Microsoft.AspNetCore").AddOtlpExporter());
    }

    /// <remarks>Figures tell of a company's business: who fetches them needs a key with the right to see.</remarks>
    public static void Map(WebApplication app) => app.MapPrometheusScrapingEndpoint(MetricsPath).RequireAuthorization(NeededRights.PolicyOf(Right.See)).NeedsAllGroups();
}
