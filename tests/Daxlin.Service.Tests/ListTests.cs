using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Lists come in parts that, put together, are the list: each entry once, in its order.</summary>
public class ListTests
{
    [Fact]
    public async Task Parts_of_every_list_make_up_the_list()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var files = Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal).ToList();
        var batch = await service.OpenBatch("November");
        foreach (var name in new[] { "A", "B", "C" })
            await service.OpenBatch(name);
        await service.Upload(batch, files.Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Take(5))
        {
            await service.Decide(invoice["id"], "approval");
            await service.PostAll();
        }
        foreach (var (path, key, count) in new[] { ("batches", "id", 4), ("templates", "name", 4), ("posting-runs", "number", 5), ($"batches/{batch}/invoices", "id", 24), ($"batches/{batch}/documents", "id", 24) })
        {
            var whole = (await service.Get(path)).AsArray().Select(one => one![key]!.ToString()).ToList();
            Assert.Equal((path, count), (path, whole.Distinct().Count()));
            foreach (var limit in new[] { 1, 3, 24 })
                Assert.Equal(whole, await Parts(service, path, key, limit));
        }
        var states = (await service.Get($"batches/{batch}/invoices")).AsArray().Select(one => (string?)one!["state"]).ToList();
        Assert.Equal(["held", "clear", "posted"], states.Distinct());
    }

    private static async Task<List<string>> Parts(ServiceUnderTest service, string path, string key, int limit)
    {
        var all = new List<string>();
        for (var next = $"/api/v1/{path}?limit={limit}"; next is not null;)
        {
            using var answer = await service.Http.GetAsync(new Uri(next, UriKind.Relative));
            var part = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray();
            Assert.InRange(part.Count, 1, limit);
            all.AddRange(part.Select(one => one![key]!.ToString()));
            next = answer.Headers.TryGetValues("Link", out var link) ? link.Single()[1..link.Single().IndexOf('>', StringComparison.Ordinal)] : null;
        }
        return all;
    }
}
