using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>No document keeps others waiting or takes the service's memory, however it is built.</summary>
public class LimitsTests
{
    [Fact]
    public async Task Documents_built_to_take_all_time_and_memory_take_neither_from_others()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var (heavy, light) = (await service.OpenBatch("Heavy"), await service.OpenBatch("Light"));
        var files = Directory.GetFiles(Path.Combine(Repository.Cases, "limits"), "*.pdf").Order(StringComparer.Ordinal);
        await service.Upload(heavy, files.Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.Upload(light, Directory.GetFiles(Path.Combine(Repository.Samples, "port-ellery-galley"), "*.pdf").Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        Assert.Equal(6, (int)(await service.UntilDone(light))["invoices"]!["total"]!);
        var done = await service.UntilDone(heavy);
        Assert.Equal((2, 0), ((int)done["documents"]!, (int)done["waiting"]!));
        // Captured or set aside with a reason; nothing in between.
        Assert.All((await service.Get($"batches/{heavy}/documents")).AsArray(), document =>
            Assert.True((string?)document!["state"] == "done" || ((string?)document["reason"])!.EndsWith('.'), document.ToJsonString()));
        Assert.True(service.HighestMemory < 300, $"the service took {service.HighestMemory} MB");
    }
}
