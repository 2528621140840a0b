using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Daxlin.Service.Operation;

/// <summary>What is counted and timed while the service works, for <c>/metrics</c>, traces and the operator's page.</summary>
/// <remarks>Names and units follow OpenTelemetry's conventions. A number that is asked for between two looks at the database is that of the last look.</remarks>
public sealed class Measures
{
    /// <summary>Of the meter and of the source of spans.</summary>
    public const string Name = "Daxlin";

    /// <summary>Spans: <c>capture document</c> with <c>read</c> and <c>store</c> in it.</summary>
    internal static ActivitySource Spans { get; } = new(Name);

    private readonly Counter<long> documents;
    private readonly Counter<long> deaths;
    private readonly Histogram<double> durations;
    private long captured;
    private long setAside;
    private long died;
    private int reading;

    public Measures(IMeterFactory meters)
    {
        var meter = meters.Create(Name);
        documents = meter.CreateCounter<long>("daxlin.documents", "{document}", "Documents that were captured or set aside, by the reason that they were set aside for.");
        deaths = meter.CreateCounter<long>("daxlin.reader.deaths", "{process}", "Reading processes that died on a document.");
        durations = meter.CreateHistogram("daxlin.capture.duration", "s", "What a document took, by step: read (reading, recognising, capturing, checking) and store.", advice: new InstrumentAdvice<double>
        {
            HistogramBucketBoundaries = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60],
        });
        meter.CreateObservableGauge("daxlin.readers.busy", () => Reading, "{process}", "Reading processes that are at work at the moment.");
        meter.CreateObservableGauge("daxlin.documents.waiting", () => Backlog.Documents, "{document}", "Documents that wait for their capture, in all services on the database.");
        meter.CreateObservableGauge("daxlin.documents.oldest", () => Backlog.OldestSeconds, "s", "How long the document has waited that waits longest.");
        meter.CreateObservableGauge("daxlin.invoices", () => Backlog.Invoices.Select(one => new Measurement<long>(one.Value, new KeyValuePair<string, object?>("state", one.Key))), "{invoice}", "Invoices, by their state.");
        meter.CreateObservableGauge("daxlin.deliveries", () => Backlog.Deliveries.Select(one => new Measurement<long>(one.Value, new KeyValuePair<string, object?>("state", one.Key))), "{delivery}", "Deliveries of posting runs, by their state.");
        meter.CreateObservableGauge("daxlin.storage.trouble", () => IsInTrouble ? 1 : 0, "1", "1 while something is wrong with the storage; /health says what.");
    }

    public long Captured => Interlocked.Read(ref captured);

    public long SetAside => Interlocked.Read(ref setAside);

    public long Deaths => Interlocked.Read(ref died);

    /// <summary>How many reading processes are at work at the moment.</summary>
    public int Reading => Volatile.Read(ref reading);

    /// <summary>What waited at the last look.</summary>
    internal Backlog Backlog { get; set; } = Backlog.None;

    internal bool IsInTrouble { get; set; }

    /// <summary>Times a step of a document's way, as a span and as a duration.</summary>
    internal async Task<T> Step<T>(string step, Func<Task<T>> work)
    {
        using var span = Spans.StartActivity(step);
        var began = Stopwatch.GetTimestamp();
        try
        {
            return await work();
        }
        finally
        {
            durations.Record(Stopwatch.GetElapsedTime(began).TotalSeconds, new KeyValuePair<string, object?>("step", step));
        }
    }

    internal void AddCaptured()
    {
        Interlocked.Increment(ref captured);
        documents.Add(1, new KeyValuePair<string, object?>("outcome", "captured"));
    }

    /// <param name="code">Why: a stable word.</param>
    internal void AddSetAside(string code)
    {
        Interlocked.Increment(ref setAside);
        documents.Add(1, new KeyValuePair<string, object?>("outcome", code));
    }

    internal void BeginReading() => Interlocked.Increment(ref reading);

    internal void EndReading() => Interlocked.Decrement(ref reading);

    internal void AddDeath()
    {
        Interlocked.Increment(ref died);
        deaths.Add(1);
    }
}
