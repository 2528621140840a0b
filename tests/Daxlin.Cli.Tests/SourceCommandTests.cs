using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Sources in the terminal: written, tried, paused, and what came from them.</summary>
public sealed class SourceCommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

    [Fact]
    public async Task A_source_is_checked_added_tried_paused_and_tells_what_came()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        Task<(int ExitCode, string Said, string Complained)> Run(params string[] arguments) => Client.Run(service.Address, ["source", .. arguments]);
        static string Flat(string said) => string.Join(' ', said.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

        Assert.Contains("No sources yet", (await Run("list")).Said, StringComparison.Ordinal);
        var (folder, file) = (Path.Combine(scratch, "office"), Path.Combine(scratch, "office.source.json"));
        Directory.CreateDirectory(folder);
        foreach (var arriving in Directory.GetFiles(Path.Combine(Repository.Samples, "arriving")))
            File.Copy(arriving, Path.Combine(folder, Path.GetFileName(arriving)));
        await File.WriteAllTextAsync(file, $$"""{ "name": "office", "batch": "Office", "folder": { "path": "{{folder}}", "settle": 1 } }""");
        var (code, said, _) = await Run("check", file);
        Assert.Equal((1, true), (code, Flat(said).Contains("line 1, folder.settle: The key “settle” is unknown here", StringComparison.Ordinal)));
        await File.WriteAllTextAsync(file, $$"""{ "name": "office", "batch": "Office", "totals": { "cover": ["cover.csv"] }, "folder": { "path": "{{folder}}", "settleSeconds": 1 } }""");
        (code, said, _) = await Run("check", file);
        Assert.Equal((0, true), (code, Flat(said).Contains("once they have not changed for 1 second.", StringComparison.Ordinal)));
        Assert.Contains("office, version 1 saved", (await Run("add", file)).Said, StringComparison.Ordinal);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); (await Client.Json(service.Address, "source", "items", "office")).AsArray().Count < 3;)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), (await Run("try", "office")).Said);
        (code, said, _) = await Run("items", "office");
        Assert.Equal(0, code);
        foreach (var part in new[] { "invoice PE78710.eml → Office", "■ PE78710", "◦ sign.png: It is a picture within the message's text.", "■ skerrow/sail-01.pdf", "◦ skerrow/cover.csv: It states 3 invoices over 173,073.52 EUR.", "◦ list of moorings.zip: It is a file of another kind" })
            Assert.Contains(part, Flat(said), StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        // The vendors' templates take what came, as they take what is brought by hand.
        var batch = (int)(await service.Get("batches"))[0]!["id"]!;
        Assert.Equal(3, (int)(await service.UntilDone(batch))["invoices"]!["clear"]!);
        var sheet = await Client.Run(service.Address, ["batch", "sheet", $"{batch}"]);
        Assert.Equal(1, sheet.ExitCode);
        Assert.Contains("spring.zip: 2 invoices over 170,574.02 EUR ▲ 3 invoices in EUR were stated, 2 captured (1 less); 173,073.52 EUR were stated, the invoices come to 170,574.02 EUR (2,499.50 EUR less).", Flat(sheet.Out), StringComparison.Ordinal);

        Assert.Contains("office is paused", (await Run("pause", "office", "--note", "stocktaking")).Said, StringComparison.Ordinal);
        Assert.Contains("paused", (await Run("list")).Said, StringComparison.Ordinal);
        Assert.Contains("is looked at again", (await Run("resume", "office")).Said, StringComparison.Ordinal);
        Directory.Move(folder, folder + "-away");
        (code, said, _) = await Run("try", "office");
        Assert.Equal((1, true), (code, Flat(said).StartsWith($"The folder {folder} is not there.", StringComparison.Ordinal)));
        (code, said, _) = await Run("list");
        Assert.Equal((1, true), (code, Flat(said).Contains("▲ cannot be looked at", StringComparison.Ordinal)));
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Equal(0, (await Run("retire", "office")).ExitCode);
        Assert.Equal(3, (await Run("try", "office")).ExitCode);
        (code, _, said) = await Run("show", "offce");
        Assert.Equal((3, true), (code, said.Contains("There is no source “offce”.", StringComparison.Ordinal)));
    }
}
