using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Text.RegularExpressions;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Whoever keeps a service running sees how it is: on a page, and by programs that watch.</summary>
public partial class OperationTests
{
    [Fact]
    public async Task What_was_captured_set_aside_decided_and_posted_is_counted_alike_on_the_page_and_in_the_metrics()
    {
        // Services within one process would measure together.
        await using var service = await ServiceUnderTest.Start(apart: true);
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        var files = Repository.SampleInvoices("port-ellery-galley").ToList();
        await service.Upload(batch, [.. files, ("broken.pdf", "%PDF-1.7 nothing more"u8.ToArray())]);
        await service.UntilDone(batch);
        var clear = (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").ToList();
        foreach (var one in clear.Take(2))
            Assert.Equal(200, (await service.Decide(one["id"], "approval")).Status);
        var shown = await service.Get("operation");
        var own = Assert.Single(shown["nodes"]!.AsArray())!;
        Assert.Equal((true, false, files.Count, 1, 0, 0), ((bool)own["isThis"]!, (bool)own["isAway"]!, (int)own["captured"]!, (int)own["setAside"]!, (int)own["deaths"]!, (int)own["reading"]!));
        Assert.Equal((2, clear.Count - 2), ((int)shown["waiting"]!["invoices"]!["approved"]!, (int)shown["waiting"]!["invoices"]!["clear"]!));
        Assert.Equal((0, files.Count + 1), ((int)shown["waiting"]!["documents"]!, (int)shown["storage"]!["documents"]!));
        Assert.Equal(files.Sum(file => file.Item2.Length) + 21, (long)shown["storage"]!["documentBytes"]!);
        Assert.True((long)shown["storage"]!["freeBytes"]! > 0);

        var metrics = await Metrics(service);
        Assert.Equal(files.Count, metrics["""daxlin_documents_total outcome="captured" """.Trim()]);
        Assert.Equal(1, metrics.Where(one => one.Key.StartsWith("daxlin_documents_total", StringComparison.Ordinal) && !one.Key.Contains("captured", StringComparison.Ordinal)).Sum(one => one.Value));
        Assert.Equal(files.Count + 1, metrics["daxlin_capture_duration_seconds_count step=\"read\""]);
        Assert.Equal(files.Count, metrics["daxlin_capture_duration_seconds_count step=\"store\""]);
        Assert.True(metrics["daxlin_capture_duration_seconds_sum step=\"read\""] > 0);
        Assert.Equal(0, metrics["daxlin_storage_trouble"]);
        Assert.Contains(metrics.Keys, one => one.StartsWith("http_server_request_duration_seconds_count", StringComparison.Ordinal) && one.Contains("/api/v1/batches", StringComparison.Ordinal));
        // What waits is looked at every some seconds.
        for (var patience = Stopwatch.StartNew(); patience.Elapsed < TimeSpan.FromSeconds(60) && metrics.GetValueOrDefault("daxlin_invoices state=\"approved\"") != 2;)
            metrics = await Metrics(service);
        Assert.Equal(2, metrics["daxlin_invoices state=\"approved\""]);
    }

    [Fact]
    public async Task Figures_are_for_those_who_may_see_them_and_whether_it_is_well_is_for_everybody()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var administrators = administrator;
        using var clerk = await administrator.Add(service, "Mira", "clerk");
        async Task<int> Ask(string path, string? key = null)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, new Uri(service.Address + path));
            request.Headers.Authorization = key is null ? null : new AuthenticationHeaderValue("Bearer", key);
            using var answer = await service.Http.SendAsync(request);
            return (int)answer.StatusCode;
        }
        Assert.Equal((200, 200, 200), (await Ask("/health"), await Ask("/health/ready"), await Ask("/health/live")));
        Assert.Equal((401, 401), (await Ask("/metrics"), await Ask("/api/v1/operation")));
        var key = await clerk.MakeKey();
        Assert.Equal((200, 403), (await Ask("/metrics", key), await Ask("/api/v1/operation", key)));
        Assert.Equal(200, await Ask("/api/v1/operation", await administrator.MakeKey()));
    }

    /// <summary>The lines of the metrics by their names and labels, but for those that tell which program it is.</summary>
    private static async Task<Dictionary<string, double>> Metrics(ServiceUnderTest service)
    {
        var text = await service.Http.GetStringAsync(new Uri(service.Address + "/metrics"));
        return text.Split('\n').Where(line => line.Length > 0 && line[0] != '#').Select(line => Line().Match(line)).Where(match => match.Success)
            .GroupBy(match => $"{match.Groups["name"].Value} {Scope().Replace(match.Groups["labels"].Value, "").Trim(',')}".Trim())
            .ToDictionary(alike => alike.Key, alike => double.Parse(alike.Last().Groups["value"].Value, CultureInfo.InvariantCulture));
    }

    [GeneratedRegex("""^(?<name>\w+)(\{(?<labels>[^}]*)\})? (?<value>\S+)""")]
    private static partial Regex Line();

    [GeneratedRegex("""otel_scope_\w+="[^"]*",?""")]
    private static partial Regex Scope();
}
