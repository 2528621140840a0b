using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What is backed up while a service works is all there again, in a file or on a server, whichever it came from.</summary>
public class BackupTests
{
    [Theory]
    [InlineData(false, true)]
    [InlineData(true, false)]
    public async Task All_that_was_stored_is_there_again_and_goes_on(bool isFromServer, bool isToServer)
    {
        await using var server = isFromServer || isToServer ? await PostgresServer.Start() : null;
        string[] from = isFromServer ? ["--store", await server!.Make("from")] : [], to = isToServer ? ["--store", await server!.Make("to")] : [];
        await using var service = await ServiceUnderTest.Start(arguments: from, isOwnStore: true);
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        foreach (var vendor in Repository.SampleVendors.Take(2))
            await service.Upload(batch, Repository.SampleInvoices(vendor));
        await service.UntilDone(batch);
        foreach (var one in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Take(3))
            Assert.Equal(200, (await service.Decide(one["id"], "approval")).Status);
        Assert.Equal(201, (await service.PostAll()).Status);
        using var kept = await service.Http.PutAsync(new Uri("secrets/ledger", UriKind.Relative), new StringContent("kittiwake"));
        Assert.True(kept.IsSuccessStatusCode);
        // What waits for a receiver that cannot be reached may reach it yet, but from one of the two only.
        var inbox = Path.Combine(service.Data, "inbox");
        using var receiver = await service.Http.PostAsync(new Uri("receivers", UriKind.Relative), new StringContent(new JsonObject { ["name"] = "ledger", ["folder"] = new JsonObject { ["path"] = inbox } }.ToJsonString()));
        Assert.True(receiver.IsSuccessStatusCode, await receiver.Content.ReadAsStringAsync());
        Assert.Equal(201, (await service.Post("posting-runs/1/deliveries", new JsonObject { ["receiver"] = "ledger" })).Status);
        await service.Http.GetStringAsync(new Uri("posting-runs/1/deliveries/events", UriKind.Relative));
        Assert.Equal("waiting", (string?)(await service.Get("posting-runs/1/deliveries"))[0]!["state"]);
        var before = await Shown(service);
        // It works on meanwhile.
        var more = service.Upload(await service.OpenBatch("December"), Repository.SampleInvoices(Repository.SampleVendors.Last()));
        var (backup, restored) = (Path.Combine(service.Data, "backup"), Directory.CreateTempSubdirectory("daxlin-restored-").FullName);
        var made = await Done("backup", backup, "--data", service.Data, from);
        await more;
        Assert.Empty(made["faults"]!.AsArray());
        var last = (await service.Get("operation"))["lastBackup"]!;
        Assert.Equal((backup, (int)made["documents"]!, (int)made["rows"]!["Invoices"]!), ((string?)last["folder"], (int)last["documents"]!, (int)last["invoices"]!));
        Assert.Contains("\"faults\":[]", (await ServiceUnderTest.RunToEnd("check-data", "--data", backup)).Said, StringComparison.Ordinal);

        var again = await Done("restore", backup, "--data", restored, to);
        Assert.Equal(["deliveries-waited"], again["faults"]!.AsArray().Select(fault => (string)fault!["code"]!));
        Assert.Equal(made["rows"]!.ToJsonString(), again["rows"]!.ToJsonString());
        await using var now = await ServiceUnderTest.Start(restored, arguments: to, isOwnStore: true);
        Assert.Equal(before, await Shown(now));
        // That a copy was made is said where it was made.
        Assert.Null((await now.Get("operation"))["lastBackup"]);
        Assert.True((bool)(await now.Get("history/verify"))["isWhole"]!);
        Assert.Contains("ledger", (await now.Get("secrets")).ToJsonString(), StringComparison.Ordinal);
        Directory.CreateDirectory(inbox);
        var delivery = (await now.Get("posting-runs/1/deliveries"))[0]!;
        Assert.Equal("given-up", (string?)delivery["state"]);
        Assert.StartsWith("It waited when the backup was made", (string?)delivery["says"], StringComparison.Ordinal);
        Assert.Equal(200, (await service.Post($"deliveries/{delivery["id"]}/retry", new JsonObject())).Status);
        await service.Http.GetStringAsync(new Uri("posting-runs/1/deliveries/events", UriKind.Relative));
        Assert.Equal("delivered", (string?)(await service.Get("posting-runs/1/deliveries"))[0]!["state"]);
        // Numbers go on where they were.
        var next = await now.OpenBatch("January");
        Assert.Equal(["taken"], (await now.Upload(next, Repository.SampleInvoices(Repository.SampleVendors.First()).Take(1))).Select(one => (string)one!["outcome"]!));
        await now.UntilDone(next);
        var clear = (await now.Invoices(batch)).First(one => (string?)one["state"] == "clear");
        Assert.Equal(200, (await now.Decide(clear["id"], "approval")).Status);
        Assert.Equal(2, (int)(await now.PostAll()).Body["number"]!);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task What_an_earlier_release_stored_is_backed_up_before_this_one_starts_on_it_and_restored_with_its_decisions(bool isToServer)
    {
        await using var server = isToServer ? await PostgresServer.Start() : null;
        string[] to = isToServer ? ["--store", await server!.Make("to")] : [];
        await using var service = await ServiceUnderTest.Start(isOwnStore: true);
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(2));
        await service.UntilDone(batch);
        var id = (int)(await service.Invoices(batch)).First(one => (string?)one["state"] == "clear")["id"]!;
        Assert.Equal(200, (await service.Decide(id, "approval")).Status);
        await service.Terminate();
        // As a release kept them that had no history, and none of the newest tables.
        await StoreUnderTest.ChangeFile(service.Data, $"""
            DELETE FROM "History"; UPDATE "Invoices" SET "ApprovedSha256" = '';
            CREATE TABLE Decisions (Id INTEGER PRIMARY KEY, InvoiceId INTEGER NOT NULL, At TEXT NOT NULL, By TEXT NOT NULL, What TEXT NOT NULL,
                Before TEXT NOT NULL, After TEXT NOT NULL, Reason TEXT NOT NULL, Letter TEXT NOT NULL DEFAULT '');
            INSERT INTO Decisions (InvoiceId, At, By, What, Before, After, Reason) VALUES ({id}, '2026-03-03 08:00:00.1234567', 'Mira', 'approved', 'clear', 'approved', '');
            DROP TABLE "Leases"; DELETE FROM "__EFMigrationsHistory" WHERE "MigrationId" LIKE '%Leases';
            """);
        var (backup, restored) = (Path.Combine(service.Data, "backup"), Directory.CreateTempSubdirectory("daxlin-restored-").FullName);
        Assert.Empty((await Done("backup", backup, "--data", service.Data, []))["faults"]!.AsArray());
        Assert.Empty((await Done("restore", backup, "--data", restored, to))["faults"]!.AsArray());
        await using var now = await ServiceUnderTest.Start(restored, arguments: to, isOwnStore: true);
        Assert.Equal("Mira", (string?)(await now.Get($"history?invoice={id}&act=approved"))[0]!["by"]);
        Assert.True((bool)(await now.Get("history/verify"))["isWhole"]!);
        Assert.Equal(201, (await now.PostAll()).Status);
    }

    [Fact]
    public async Task What_is_no_whole_backup_and_where_something_is_already_is_refused()
    {
        await using var service = await ServiceUnderTest.Start(isOwnStore: true);
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(2));
        await service.UntilDone(batch);
        var (backup, empty) = (Path.Combine(service.Data, "backup"), Directory.CreateTempSubdirectory("daxlin-restored-").FullName);
        // What the disk has lost is told, and the rest is copied.
        File.Delete(Directory.GetFiles(Path.Combine(service.Data, "documents"), "*", SearchOption.AllDirectories)[0]);
        var made = await Done("backup", backup, "--data", service.Data, []);
        Assert.Equal(["document-missing"], made["faults"]!.AsArray().Select(fault => (string)fault!["code"]!));

        Assert.Equal((2, $"There is something in {backup} already. A backup wants a folder of its own."), await Refused("backup", backup, service.Data));
        Assert.Equal((2, $"There is something in {backup} already, or in its database. A backup is restored into an empty folder and an empty database."), await Refused("restore", backup, backup));
        Assert.StartsWith("Another Daxlin service is running", (await Refused("restore", backup, service.Data)).Said, StringComparison.Ordinal);
        Assert.Equal((2, $"{service.Data} is no whole backup: it has no backup.json. One that was broken off is to be made again."), await Refused("restore", service.Data, empty));
        await using (var database = File.OpenWrite(Path.Combine(backup, "daxlin.db")))
        {
            database.Position = database.Length - 1;
            database.WriteByte(1);
        }
        Assert.Equal((2, $"The database in {backup} is not the one that was backed up: its bytes were changed since."), await Refused("restore", backup, empty));
        Assert.Empty(Directory.GetFiles(empty, "daxlin.db"));
        Directory.Delete(empty, recursive: true);
    }

    /// <summary>What a clerk sees of what was stored.</summary>
    private static async Task<string> Shown(ServiceUnderTest service)
    {
        var (batch, shown) = (await service.FirstBatch(), new List<string>());
        foreach (var one in await service.Invoices(batch))
            shown.Add((await service.Get($"invoices/{one["id"]}")).ToJsonString());
        foreach (var path in (string[])[$"batches/{batch}", $"batches/{batch}/documents", "posting-runs", "posting-runs/1/manifest"])
            shown.Add((await service.Get(path)).ToJsonString());
        shown.AddRange((await service.All("templates")).Select(one => $"{one["name"]} {one["version"]} {one["savedAt"]}"));
        shown.Add(await service.Http.GetStringAsync(new Uri("posting-runs/1/file", UriKind.Relative)));
        shown.Add(await service.Http.GetStringAsync(new Uri("history/export?act=approved", UriKind.Relative)));
        return string.Join('\n', shown);
    }

    private static async Task<JsonNode> Done(string act, string backup, string option, string data, string[] store)
    {
        var (code, said, complained) = await ServiceUnderTest.RunToEnd([act, backup, option, data, .. store]);
        Assert.True(code == 0, complained);
        return JsonNode.Parse(said)!;
    }

    private static async Task<(int ExitCode, string Said)> Refused(string act, string backup, string data)
    {
        var (code, _, complained) = await ServiceUnderTest.RunToEnd(act, backup, "--data", data);
        return (code, complained);
    }
}
