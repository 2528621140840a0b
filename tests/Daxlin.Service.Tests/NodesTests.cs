using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Several services on one database server are, to whoever uses them, one.</summary>
public class NodesTests
{
    private sealed record Pair(PostgresServer Server, ServiceUnderTest One, ServiceUnderTest Two) : IAsyncDisposable
    {
        public static async Task<Pair> Start()
        {
            var server = await PostgresServer.Start();
            var (data, store) = (Directory.CreateTempSubdirectory("daxlin-nodes-").FullName, await server.Make("daxlin"));
            // Both make the database's tables, at once.
            var both = await Task.WhenAll(new[] { "one", "two" }.Select(node => ServiceUnderTest.Start(data, arguments: ["--store", store, "--node", node])));
            return new Pair(server, both[0], both[1]);
        }

        public async ValueTask DisposeAsync()
        {
            await Two.Terminate();
            await One.DisposeAsync();
            await Server.DisposeAsync();
        }
    }

    [Fact]
    public async Task What_one_takes_in_both_capture_and_show_and_each_invoice_is_approved_and_posted_once()
    {
        await using var nodes = await Pair.Start();
        await nodes.One.SaveTemplates(Repository.Samples);
        var batch = await nodes.One.OpenBatch("November");
        Assert.Equal(batch, await nodes.Two.OpenBatch("November"));
        var files = Repository.SampleVendors.SelectMany(Repository.SampleInvoices).ToList();
        var parts = files.Chunk((files.Count / 2) + 1).ToList();
        await Task.WhenAll(nodes.One.Upload(batch, parts[0]), nodes.Two.Upload(batch, parts[1]));
        // Who listens at one hears what the other does.
        await Task.WhenAll(nodes.One.UntilDone(batch), nodes.Two.UntilDone(batch));
        var invoices = await nodes.One.Invoices(batch);
        Assert.Equal(invoices.Select(one => one.ToJsonString()), (await nodes.Two.Invoices(batch)).Select(one => one.ToJsonString()));
        Assert.Equal(files.Count, (await nodes.Two.All($"batches/{batch}/documents")).Count(one => (string?)one["state"] == "done"));
        Assert.Equal(invoices.Count, invoices.Select(one => (string?)one["file"] + one["firstPage"]).Distinct().Count());
        Assert.Equal(0L, await nodes.Server.Ask("SELECT count(*) FROM \"Leases\"", "daxlin"));

        // The same decision at both at once is made once, and told to the other as made.
        var clear = invoices.Where(one => (string?)one["state"] == "clear").ToList();
        foreach (var one in clear)
        {
            var revision = (int)(await nodes.One.Get($"invoices/{one["id"]}"))["revision"]!;
            var said = await Task.WhenAll(nodes.One.Decide(one["id"], "approval", revision), nodes.Two.Decide(one["id"], "approval", revision));
            Assert.Equal([200, 412], said.Select(answer => answer.Status).Order());
        }
        var runs = (await Task.WhenAll(Enumerable.Range(0, 6).Select(at => (at % 2 == 0 ? nodes.One : nodes.Two).PostAll()))).Where(run => run.Status == 201).ToList();
        Assert.Equal(clear.Count, runs.Sum(run => (int)run.Body["invoices"]!));
        Assert.Equal(Enumerable.Range(1, runs.Count), runs.Select(run => (int)run.Body["number"]!).Order());
        Assert.True((bool)(await nodes.Two.Get("history/verify"))["isWhole"]!);
    }

    [Fact]
    public async Task A_template_that_is_saved_at_one_is_what_the_other_captures_by()
    {
        await using var nodes = await Pair.Start();
        var batch = await nodes.One.OpenBatch("November");
        await nodes.Two.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(2));
        await nodes.Two.UntilDone(batch);
        Assert.All(await nodes.One.Invoices(batch), one => Assert.Equal("unplaced", (string?)one["state"]));
        await nodes.One.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        await nodes.Two.UntilDone(batch);
        Assert.All(await nodes.Two.Invoices(batch), one => Assert.Equal("clear", (string?)one["state"]));
        // A document that comes now is captured by whichever of them is first.
        await nodes.Two.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Skip(2));
        await nodes.One.UntilDone(batch);
        Assert.All(await nodes.One.Invoices(batch), one => Assert.NotEqual("unplaced", (string?)one["state"]));
    }

    [Fact]
    public async Task A_receiver_gets_each_run_once_and_in_order_whichever_of_them_made_it()
    {
        await using var nodes = await Pair.Start();
        await using var receiver = new WebhookReceiver();
        var (way, secrets) = receiver.Described(receiver.Port);
        using (var kept = await nodes.One.Http.PutAsync(new Uri($"secrets/{secrets[0].Name}", UriKind.Relative), new StringContent(secrets[0].Value)))
            Assert.True(kept.IsSuccessStatusCode);
        (way["name"], way["atOnce"]) = ("ledger", true);
        using (var saved = await nodes.Two.Http.PostAsync(new Uri("receivers", UriKind.Relative), new StringContent(way.ToJsonString())))
            Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        await nodes.One.SaveTemplates(Repository.Samples);
        var batch = await nodes.One.OpenBatch("November");
        await nodes.One.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Concat(Repository.SampleInvoices("skerrow-sail-loft")));
        await nodes.One.UntilDone(batch);
        var runs = new List<JsonNode>();
        foreach (var (at, one) in (await nodes.One.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Index())
        {
            var (here, there) = at % 2 == 0 ? (nodes.One, nodes.Two) : (nodes.Two, nodes.One);
            await here.Decide(one["id"], "approval");
            runs.Add((await there.PostAll()).Body);
        }
        foreach (var run in runs)
            await nodes.One.Http.GetStringAsync(new Uri($"posting-runs/{run["number"]}/deliveries/events", UriKind.Relative));
        Assert.Equal(runs.Count, receiver.Sent.Count);
        Assert.All(receiver.Sent.Values, times => Assert.Equal(1, times));
        Assert.Empty(receiver.Faults);
        var delivered = (await nodes.Two.All("history?act=delivered")).OrderBy(entry => (int)entry["id"]!).Select(entry => (string)entry["stream"]!);
        Assert.Equal(runs.Select(run => $"posting-run/{run["number"]}"), delivered);
    }

    [Fact]
    public async Task What_one_had_that_died_is_captured_by_another_once_nobody_has_renewed_it_and_not_before()
    {
        await using var nodes = await Pair.Start();
        await nodes.One.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await nodes.One.OpenBatch("November");
        await nodes.Server.Ask("INSERT INTO \"Leases\" VALUES ('capture', 1, 'gone', now() + interval '6 seconds')", "daxlin");
        await nodes.One.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(3));
        await nodes.Two.UntilDone(batch);
        Assert.Equal(3, (await nodes.One.Invoices(batch)).Count);
        var times = (string)(await nodes.Server.Ask("""SELECT string_agg("IntakeId"::text, ' ' ORDER BY "CapturedAt") FROM "Invoices" """, "daxlin"))!;
        Assert.EndsWith(" 1", times, StringComparison.Ordinal);
        Assert.Equal(0L, await nodes.Server.Ask("SELECT count(*) FROM \"Leases\"", "daxlin"));
    }

    [Fact]
    public async Task Two_of_one_name_two_of_no_server_and_what_is_no_server_are_refused_in_a_sentence()
    {
        await using var nodes = await Pair.Start();
        Task<(int ExitCode, string Said)> Refused(params string[] said) => ServiceUnderTest.Refused(["--data", nodes.One.Data, "--port", "0", "--ends-with-input", "--without-sign-in", .. said]);
        Assert.Equal((2, $"Another Daxlin service is running as “one” on the data in {nodes.One.Data}. Give this one a name of its own with --node."), await Tidy(Refused("--store", nodes.Server.Reached("daxlin"), "--node", "one")));
        Assert.StartsWith("--node names one of several services", (await Refused("--node", "three")).Said, StringComparison.Ordinal);
        Assert.StartsWith("The store is named by how its server", (await Refused("--store", "daxlin.db")).Said, StringComparison.Ordinal);
        var (code, said) = await Refused("--store", nodes.Server.Reached("daxlin").Replace(PostgresServer.Password, "gannet", StringComparison.Ordinal), "--node", "three");
        Assert.Equal(4, code);
        Assert.StartsWith("The database server refuses Daxlin: password authentication failed", said, StringComparison.Ordinal);
        Assert.DoesNotContain("gannet", said, StringComparison.Ordinal);
        (code, said) = await Refused("--store", $"Host=127.0.0.1;Port={Programs.FreePort()};Database=daxlin;Username=daxlin", "--node", "three");
        Assert.Equal(4, code);
        Assert.StartsWith("The database server cannot be reached.", said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Each_tells_of_itself_and_one_that_is_away_is_shown_until_it_is_struck_out()
    {
        await using var nodes = await Pair.Start();
        await nodes.One.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await nodes.One.OpenBatch("November");
        await nodes.One.Upload(batch, Repository.SampleInvoices("port-ellery-galley"));
        await nodes.One.UntilDone(batch);
        // Its row comes once it has looked for the first time, by itself.
        JsonNode shown;
        do
            shown = await nodes.One.Get("operation");
        while (shown["nodes"]!.AsArray().Count < 2);
        Assert.Equal([("one", true, false), ("two", false, false)], shown["nodes"]!.AsArray().Select(node => ((string)node!["name"]!, (bool)node["isThis"]!, (bool)node["isAway"]!)));
        Assert.Equal("“daxlin” on 127.0.0.1 (PostgreSQL)", (string?)shown["storage"]!["database"]);
        Assert.True((long)shown["storage"]!["databaseBytes"]! > 1_000_000);
        async Task<(int Status, string? Code)> Forget(string name)
        {
            using var answer = await nodes.One.Http.DeleteAsync(new Uri($"operation/nodes/{name}", UriKind.Relative));
            return ((int)answer.StatusCode, answer.IsSuccessStatusCode ? null : (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["code"]);
        }
        Assert.Equal((409, "node-runs"), await Forget("two"));
        Assert.Equal((404, "not-there"), await Forget("three"));
        await nodes.Server.Ask("""INSERT INTO "Nodes" SELECT 'gone', "Version", "StartedAt", now() - interval '61 seconds', 2, 0, 7, 1, 0, '' FROM "Nodes" WHERE "Name" = 'two'""", "daxlin");
        Assert.Empty(shown["troubles"]!.AsArray());
        var without = await nodes.Two.Get("operation");
        var gone = Assert.Single(without["nodes"]!.AsArray(), node => (bool)node!["isAway"]!)!;
        Assert.Matches("^The service “gone” did not stop in order, and has not told of itself since [-0-9]{10} [0-9:]{5} UTC\\.$", (string?)Assert.Single(without["troubles"]!.AsArray()));
        Assert.Equal(("gone", 7, 1), ((string?)gone["name"], (int)gone["captured"]!, (int)gone["setAside"]!));
        Assert.Equal((204, null), await Forget("gone"));
        await nodes.Two.Terminate();
        Assert.Equal(["one"], (await nodes.One.Get("operation"))["nodes"]!.AsArray().Select(node => (string)node!["name"]!));
    }

    [Fact]
    public async Task A_server_that_goes_away_is_told_and_work_goes_on_when_it_is_back()
    {
        await using var nodes = await Pair.Start();
        await nodes.One.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await nodes.One.OpenBatch("November");
        await nodes.One.Upload(batch, Repository.SampleInvoices("port-ellery-galley"));
        await nodes.Server.Stop();
        using (var answer = await nodes.One.Http.GetAsync(new Uri("batches", UriKind.Relative)))
        {
            Assert.Equal(503, (int)answer.StatusCode);
            Assert.Equal("database-away", (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["code"]);
        }
        // It is not ready, and alive all the same: to kill it would mend nothing.
        Assert.Equal((503, 200), (await Health("ready"), await Health("live")));
        async Task<int> Health(string which)
        {
            using var answer = await nodes.One.Http.GetAsync(new Uri($"/health/{which}", UriKind.Relative));
            return (int)answer.StatusCode;
        }
        await nodes.Server.Restart();
        await nodes.One.UntilWell();
        await nodes.Two.UntilWell();
        Assert.Equal(0, (int)(await nodes.Two.UntilDone(batch))["waiting"]!);
        Assert.All(await nodes.One.Invoices(batch), one => Assert.NotEqual("unplaced", (string?)one["state"]));
    }

    [Fact]
    public async Task A_server_that_takes_no_changes_is_told_and_what_waits_is_captured_when_it_does()
    {
        await using var nodes = await Pair.Start();
        await nodes.One.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await nodes.One.OpenBatch("November");
        await nodes.Server.Ask("ALTER SYSTEM SET default_transaction_read_only = on");
        await nodes.Server.Ask("SELECT pg_reload_conf()");
        // Which of its sessions hears of it first, the server says to nobody.
        (int Status, JsonNode Body) said;
        for (var at = 0; (said = await nodes.Two.Post("batches", new JsonObject { ["name"] = $"B{at}" })).Status == 201; at++)
            Assert.True(at < 1_000);
        Assert.Equal((503, "database-read-only"), (said.Status, (string?)said.Body["code"]));
        while (!(await nodes.One.Http.GetAsync(new Uri("/health", UriKind.Relative))).StatusCode.Equals(System.Net.HttpStatusCode.ServiceUnavailable))
            await Task.Yield();
        await nodes.Server.Ask("ALTER SYSTEM RESET default_transaction_read_only");
        await nodes.Server.Ask("SELECT pg_reload_conf()");
        await nodes.One.UntilWell();
        await nodes.Two.UntilWell();
        await nodes.Two.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(3));
        await nodes.One.UntilDone(batch);
        Assert.Equal(3, (await nodes.One.Invoices(batch)).Count);
    }

    private static async Task<(int ExitCode, string Said)> Tidy(Task<(int ExitCode, string Said)> refused) => ((await refused).ExitCode, (await refused).Said.Trim());
}
