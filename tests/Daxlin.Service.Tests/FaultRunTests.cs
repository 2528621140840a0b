using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>
/// Kills and stops at moments drawn by a seed, during start, intake, capture, approval and posting. A checker that knows
/// what was acknowledged looks afterwards: nothing of it is lost, nothing is there twice, nothing is half done.
/// </summary>
/// <remarks><c>bench/faults</c> runs the same for long: DAXLIN_FAULT_ROUNDS says how many, DAXLIN_FAULT_SEED from where.</remarks>
public class FaultRunTests
{
    private static readonly int Rounds = Setting("DAXLIN_FAULT_ROUNDS", 8);
    private static readonly int Seed = Setting("DAXLIN_FAULT_SEED", 20261126);

    /// <summary>Files that a start makes one after the other.</summary>
    private static readonly string?[] MomentsOfStart = [null, "in-use", "daxlin.db", "daxlin.db-wal", "daxlin-*.log"];

    private readonly Random random = new(Seed);
    private readonly Dictionary<string, string> taken = [];
    private readonly HashSet<int> approved = [];
    private readonly Dictionary<int, int> runs = [];

    [Fact]
    public async Task Nothing_acknowledged_is_lost_and_nothing_is_done_twice_whenever_the_service_dies()
    {
        var files = Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal).ToList();
        var data = Directory.CreateTempSubdirectory("daxlin-faults-").FullName;
        var at = 0;
        for (var round = 0; round < Rounds; round++)
        {
            await ServiceUnderTest.KillWhileStarting(data, MomentsOfStart[random.Next(MomentsOfStart.Length)]);
            var service = await ServiceUnderTest.Start(data, apart: true);
            if (round == 0)
                await service.SaveTemplates(Repository.Samples);
            await Check(service);
            var acts = random.Next(2, 8);
            for (var act = 0; act < acts; act++)
                await Act(service, files, at++);
            // The last act is under way when the service dies; whether it was done, nobody was told.
            var last = Act(service, files, at++);
            if (random.Next(3) == 0)
                Assert.Equal(0, await service.Terminate());
            else
                await service.Kill();
            try
            {
                await last;
            }
            catch (Exception error) when (error is HttpRequestException or IOException or OperationCanceledException or System.Text.Json.JsonException)
            {
                // The answer was lost with the service.
            }
        }
        await using var settled = await ServiceUnderTest.Start(data);
        var batch = await settled.OpenBatch("Faults");
        await settled.UntilDone(batch);
        await Check(settled);
        Assert.All(await settled.All($"batches/{batch}/documents"), one => Assert.Equal("done", (string?)one["state"]));
        Assert.True(taken.Count > Rounds && approved.Count > 0 && runs.Count > 0, $"{taken.Count} files taken, {approved.Count} approved, {runs.Count} runs");
    }

    private async Task Act(ServiceUnderTest service, List<string> files, int at)
    {
        var batch = await service.OpenBatch("Faults");
        switch (random.Next(4))
        {
            case 0 or 1:
                // Each file is one of its own: what follows the end of a PDF belongs to nothing.
                var file = files[at % files.Count];
                var name = $"{at}-{Path.GetFileName(file)}";
                var answer = await service.Upload(batch, [(name, [.. await File.ReadAllBytesAsync(file), .. System.Text.Encoding.ASCII.GetBytes($"\n%{at}\n")])]);
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

    private async Task Check(ServiceUnderTest service)
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

    private static int Setting(string name, int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : usual;
}
