using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Acts of a clerk, drawn by a seed, and a checker that knows what was acknowledged of them.</summary>
internal sealed class FaultRun
{
    public static readonly int Rounds = Setting("DAXLIN_FAULT_ROUNDS", 3);

    private readonly List<string> files = [.. Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal)];
    private readonly ConcurrentDictionary<string, string> taken = [];
    private readonly ConcurrentBag<int> approved = [];
    private readonly ConcurrentDictionary<int, int> runs = [];
    private int at;

    public Random Random { get; } = new(Setting("DAXLIN_FAULT_SEED", 20261126));

    /// <summary>Takes a file in, approves some invoices, or makes a posting run.</summary>
    public async Task Act(ServiceUnderTest service)
    {
        // Drawn before anything is waited for, so that a seed draws the same though two act at once.
        var (number, act) = (at++, Random.Next(4));
        var batch = await service.OpenBatch("Faults");
        switch (act)
        {
            case 0 or 1:
                // Each file is one of its own: what follows the end of a PDF belongs to nothing.
                var file = files[number % files.Count];
                var name = $"{number}-{Path.GetFileName(file)}";
                var answer = await service.Upload(batch, [(name, [.. await File.ReadAllBytesAsync(file), .. System.Text.Encoding.ASCII.GetBytes($"\n%{number}\n")])]);
                if ((string?)answer[0]!["outcome"] == "taken")
                    taken[name] = (string)answer[0]!["sha256"]!;
                break;
            case 2:
                await service.UntilDone(batch);
                foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] is "clear" or "held").Take(3))
                {
                    if ((await service.Decide(invoice["id"], "approval", new JsonObject { ["despite"] = "Looked at on paper." })).Status == 200)
                        approved.Add((int)invoice["id"]!);
                }
                break;
            default:
                var (status, run) = await service.PostAll();
                if (status == 201)
                    runs[(int)run["number"]!] = (int)run["invoices"]!;
                break;
        }
    }

    /// <summary>The same, when something dies under it: whether it was done, nobody was told.</summary>
    public async Task ActInVain(ServiceUnderTest service)
    {
        try
        {
            await Act(service);
        }
        catch (Exception error) when (error is HttpRequestException or IOException or OperationCanceledException or System.Text.Json.JsonException or InvalidOperationException or NullReferenceException)
        {
            // The answer was lost, or says that it cannot be done now.
        }
    }

    /// <summary>Nothing acknowledged is lost, nothing is there twice, nothing is half done.</summary>
    public async Task Check(ServiceUnderTest service)
    {
        var batch = await service.OpenBatch("Faults");
        var documents = (await service.All($"batches/{batch}/documents")).ToDictionary(one => (string)one["file"]!, one => (string?)one["sha256"]);
        Assert.All(taken, file => Assert.Equal(file.Value, documents.GetValueOrDefault(file.Key)));
        var invoices = await service.Invoices(batch);
        Assert.Equal(invoices.Count, invoices.Select(one => (string?)one["file"]).Distinct().Count());
        Assert.All(approved, id => Assert.Contains((string?)invoices.Single(one => (int)one["id"]! == id)["state"], new[] { "approved", "posted" }));
        var posted = (await service.All("posting-runs")).ToDictionary(run => (int)run["number"]!, run => (int)run["invoices"]!);
        Assert.All(runs, run => Assert.Equal(run.Value, posted.GetValueOrDefault(run.Key)));
        // What the runs hold together is what is posted: none twice, no run by half.
        Assert.Equal(posted.Values.Sum(), invoices.Count(one => (string?)one["state"] == "posted"));
        foreach (var number in posted.Keys)
        {
            var csv = await service.Http.GetStringAsync(new Uri($"posting-runs/{number}/file", UriKind.Relative));
            Assert.EndsWith("\r\n", csv, StringComparison.Ordinal);
        }
    }

    /// <summary>Everything that was taken in comes to its end, and all is as it was acknowledged.</summary>
    public async Task Settle(ServiceUnderTest service)
    {
        var batch = await service.OpenBatch("Faults");
        await service.UntilDone(batch);
        await Check(service);
        Assert.All(await service.All($"batches/{batch}/documents"), one => Assert.Equal("done", (string?)one["state"]));
        Assert.True((bool)(await service.Get("history/verify"))["isWhole"]!);
        Assert.True(taken.Count > Rounds && !approved.IsEmpty && !runs.IsEmpty, $"{taken.Count} files taken, {approved.Count} approved, {runs.Count} runs");
    }

    private static int Setting(string name, int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : usual;
}
