using System.Diagnostics;
using System.Globalization;
using Daxlin.Testing;
using Spectre.Console;

namespace Daxlin.ServiceBench;

/// <summary>Documents a second, from upload to stored result over HTTP, of one service and of two that share a database server.</summary>
internal static class NodesBench
{
    public static async Task Run(string folder)
    {
        var batch = Directory.GetFiles(folder, "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))).ToList();
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumns($"{batch.Count} documents", "documents / s", "÷ one on one core");
        await using var server = await PostgresServer.Start();
        async Task<double> On(bool isFile, params int?[] cores)
        {
            string[] store = isFile ? [] : ["--store", await server.Make($"bench-{Guid.NewGuid():N}")];
            return await Rate(batch, store, cores);
        }
        var one = await On(false, 0);
        foreach (var (name, rate) in new (string, double)[]
        {
            ("one service, a file, both cores", await On(true, default(int?))),
            ("one service, a server, both cores", await On(false, default(int?))),
            ("one service, a server, one core", one),
            ("two services, a server, one core each", await On(false, 0, 1)),
        })
        {
            table.AddRow(name, rate.ToString("F1", CultureInfo.InvariantCulture), (rate / one).ToString("F2", CultureInfo.InvariantCulture));
        }
        AnsiConsole.Write(table);
    }

    private static async Task<double> Rate(List<(string Name, byte[] Bytes)> batch, string[] store, int?[] cores)
    {
        var (data, nodes) = (Directory.CreateTempSubdirectory("daxlin-bench-").FullName, new List<ServiceUnderTest>());
        foreach (var (at, core) in cores.Index())
            nodes.Add(await ServiceUnderTest.Start(data, apart: true, isOwnStore: true, core: core, arguments: store.Length == 0 ? [] : [.. store, "--node", $"node-{at}"]));
        await nodes[0].SaveTemplates(Repository.Samples);
        var samples = Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))).ToList();
        // Each compiles what it needs before anything is measured.
        foreach (var (node, name) in nodes.SelectMany(node => new[] { (node, "Warm"), (node, "Warmer") }))
        {
            var warm = await node.OpenBatch($"{name} {nodes.IndexOf(node)}");
            await node.Upload(warm, samples);
            await node.UntilDone(warm);
        }
        var id = await nodes[0].OpenBatch("Bench");
        var watch = Stopwatch.StartNew();
        await Task.WhenAll(nodes.Select(async (node, at) =>
        {
            foreach (var part in batch.Where((_, index) => index % nodes.Count == at).Chunk(25))
                await node.Upload(id, part);
        }));
        var done = await nodes[0].UntilDone(id);
        var rate = batch.Count / watch.Elapsed.TotalSeconds;
        if ((int)done["documents"]! != batch.Count || (int)done["unreadable"]! > 0)
            throw new InvalidOperationException(done.ToJsonString());
        foreach (var node in nodes.Skip(1))
            await node.Terminate();
        await nodes[0].DisposeAsync();
        return rate;
    }
}
