using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Schedules in the terminal: written, done at once, paused, and what came of them.</summary>
public sealed class ScheduleCommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

    [Fact]
    public async Task A_schedule_is_checked_added_done_at_once_paused_and_tells_what_came_of_it()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        async Task<(int ExitCode, string Said, string Complained)> Run(params string[] arguments)
        {
            var (code, said, complained) = await Client.Run(service.Address, ["schedule", .. arguments]);
            Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
            return (code, string.Join(' ', said.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)), complained);
        }

        Assert.Contains("No schedules yet", (await Run("list")).Said, StringComparison.Ordinal);
        var file = Path.Combine(scratch, "evening.schedule.json");
        await File.WriteAllTextAsync(file, """{ "name": "evening", "at": "6 pm", "posting": { "batches": "each" } }""");
        var (code, said, _) = await Run("check", file);
        Assert.Equal((1, true), (code, said.Contains("line 1, at: “6 pm” is no time of a day; one is written as 06:30.", StringComparison.Ordinal)));
        await File.WriteAllTextAsync(file, """{ "name": "evening", "at": "18:00", "dayOfMonth": "last", "posting": { "batches": "each" } }""");
        (code, said, _) = await Run("check", file);
        Assert.Equal((0, true), (code, said.Contains("On the last day of each month at 18:00, by the clock of the service's machine: All invoices", StringComparison.Ordinal)));
        Assert.Contains("evening, version 1 saved", (await Run("add", file)).Said, StringComparison.Ordinal);
        Assert.Equal("It has done nothing yet.", (await Run("turns", "evening")).Said);
        var nothing = $"◦ There was nothing to post. (by {Environment.UserName}, at once)";
        Assert.Equal((0, nothing), await Run("now", "evening") is var now ? (now.ExitCode, now.Said) : default);

        var batch = await service.OpenBatch("Galley");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(2));
        await service.UntilDone(batch);
        foreach (var invoice in await service.Invoices(batch))
            await service.Decide(invoice["id"], "approval");
        Assert.Equal(0, (await Client.Run(service.Address, ["period", "close", "2026-11-30"])).ExitCode);
        (code, said, _) = await Run("now", "evening");
        Assert.Equal((1, true), (code, said.StartsWith("▲ Batch “Galley”: All up to 2026-11-30 is closed, and 2 invoices are dated in that time", StringComparison.Ordinal)));
        (code, said, _) = await Run("list");
        Assert.Equal((1, true), (code, said.Contains("▲ to be looked at", StringComparison.Ordinal)));
        Assert.Contains(nothing, (await Run("turns", "evening")).Said, StringComparison.Ordinal);
        Assert.Equal("evening is paused", (await Run("pause", "evening", "--note", "stocktaking")).Said);
        (code, said, _) = await Run("list");
        Assert.Equal((0, true), (code, said.Contains("◦ paused", StringComparison.Ordinal)));
        Assert.Equal("evening goes on", (await Run("resume", "evening")).Said);
        Assert.Equal(0, (await Run("retire", "evening")).ExitCode);
        Assert.Equal((3, true), await Run("now", "evening") is var retired ? (retired.ExitCode, retired.Complained.Contains("is retired: it does nothing any more", StringComparison.Ordinal)) : default);
        Assert.Contains("\"dayOfMonth\": \"last\"", (await Run("show", "evening")).Said, StringComparison.Ordinal);
    }
}
