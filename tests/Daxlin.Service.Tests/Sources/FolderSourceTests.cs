using System.IO.Compression;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Sources;

/// <summary>Files that are put into a watched folder are taken once each, whatever they are and whatever dies meanwhile.</summary>
public class FolderSourceTests
{
    private static string NewFolder() => Directory.CreateTempSubdirectory("daxlin-share-").FullName;

    private static async Task Save(ServiceUnderTest service, string folder, bool moves = true, string batch = "Share", bool subfolders = true) =>
        Assert.Equal(201, (await service.Post("sources", new JsonObject
        {
            ["name"] = "share",
            ["batch"] = batch,
            ["folder"] = new JsonObject { ["path"] = folder, ["subfolders"] = subfolders, ["settleSeconds"] = 1, ["after"] = moves ? "move" : "leave" },
        })).Status);

    /// <summary>Looks until nothing waits to settle.</summary>
    internal static async Task<JsonNode> Look(ServiceUnderTest service)
    {
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
        {
            var (status, said) = await service.Post("sources/share/look", new JsonObject());
            Assert.True(status == 200, said.ToJsonString());
            if ((int)said["waiting"]! == 0)
                return said;
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), said.ToJsonString());
        }
    }

    private static async Task<List<JsonNode>> Items(ServiceUnderTest service) => [.. (await service.All("sources/share/items")).OrderBy(item => (string?)item["name"], StringComparer.Ordinal)];

    private static string[] Below(string folder) => [.. Directory.GetFiles(folder, "*", SearchOption.AllDirectories).Select(file => Path.GetRelativePath(folder, file)).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task Files_archives_and_messages_are_taken_by_what_they_are_and_put_away_with_notes()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var (folder, invoices) = (NewFolder(), Repository.SampleInvoices("port-ellery-galley").ToList());
        Directory.CreateDirectory(Path.Combine(folder, "galley"));
        await File.WriteAllBytesAsync(Path.Combine(folder, "galley", "one.pdf"), invoices[0].Bytes);
        await File.WriteAllBytesAsync(Path.Combine(folder, "letter.eml"), Letters.Bytes(Letters.With("Invoices", Letters.File("invoice.dat", invoices[1].Bytes, "application/octet-stream"), Letters.Logo())));
        await using (var archive = await ZipFile.OpenAsync(Path.Combine(folder, "several.zip"), ZipArchiveMode.Create))
        {
            foreach (var (name, bytes) in new[] { ("november/three.pdf", invoices[2].Bytes), ("november/read me.txt", "Not an invoice."u8.ToArray()), ("again.pdf", invoices[0].Bytes) })
            {
                await using var entry = await archive.CreateEntry(name).OpenAsync();
                await entry.WriteAsync(bytes);
            }
        }
        await File.WriteAllTextAsync(Path.Combine(folder, "no.pdf"), "MZ: a program that is called a PDF");
        await File.WriteAllTextAsync(Path.Combine(folder, "list.csv"), "of nobody's pattern");
        await File.WriteAllBytesAsync(Path.Combine(folder, "half.pdf.part"), invoices[3].Bytes);
        await Save(service, folder, batch: "{folder}");
        await Look(service);

        var items = await Items(service);
        Assert.Equal(["galley/one.pdf 1 0 galley", $"letter.eml 1 1 {Path.GetFileName(folder)}", "no.pdf 0 1 ", $"several.zip 2 1 {Path.GetFileName(folder)}"],
            items.Select(item => $"{item["name"]} {item["documents"]} {item["leftOut"]} {item["batch"]}"));
        Assert.Equal(["november/three.pdf taken", "again.pdf taken", "november/read me.txt left-out"], items[3]["parts"]!.AsArray().Select(part => $"{part!["name"]} {part["outcome"]}"));
        Assert.Equal("It is a picture within the message's text.", (string?)items[1]["parts"]![1]!["reason"]);
        Assert.Equal(
            ["half.pdf.part", "list.csv", "set-aside/no.pdf", "set-aside/no.pdf.note.txt", "taken-in/galley/one.pdf", "taken-in/letter.eml", "taken-in/letter.eml.note.txt", "taken-in/several.zip", "taken-in/several.zip.note.txt"],
            Below(folder));
        Assert.Contains("no.pdf: left out. It is a file of another kind", await File.ReadAllTextAsync(Path.Combine(folder, "set-aside/no.pdf.note.txt")), StringComparison.Ordinal);
        // The message is kept as it came, beside what was attached to it.
        Assert.Equal(await File.ReadAllBytesAsync(Path.Combine(folder, "taken-in/letter.eml")), await service.Http.GetByteArrayAsync($"sources/share/items/{items[1]["id"]}/original"));
        var batches = (await service.Get("batches")).AsArray().ToDictionary(batch => (string)batch!["name"]!, batch => (int)batch!["id"]!);
        Assert.Equal(1, (int)(await service.UntilDone(batches["galley"]))["invoices"]!["total"]!);
        Assert.Equal(3, (int)(await service.UntilDone(batches[Path.GetFileName(folder)]))["invoices"]!["total"]!);
        Assert.Contains((await service.Get("history?act=takenIn")).AsArray(), entry => ((string)entry!["what"]!).Contains("the source “share”", StringComparison.Ordinal));
        Assert.Contains("\"faults\":[]", (await ServiceUnderTest.RunToEnd(["check-data", "--data", service.Data, .. await StoreUnderTest.Arguments(service.Data)])).Said, StringComparison.Ordinal);

        // The same file once more is put away, and taken in by nobody; another one of its name is.
        await File.WriteAllBytesAsync(Path.Combine(folder, "galley", "one.pdf"), invoices[0].Bytes);
        await Look(service);
        await File.WriteAllBytesAsync(Path.Combine(folder, "galley", "one.pdf"), invoices[4].Bytes);
        await Look(service);
        Assert.Equal(5, (await Items(service)).Count);
        Assert.Equal(["taken-in/galley/one (2).pdf", "taken-in/galley/one (3).pdf", "taken-in/galley/one.pdf"], Below(folder).Where(file => file.Contains("galley", StringComparison.Ordinal)));
    }

    [Fact]
    public async Task Outside_of_its_hours_a_source_rests_until_somebody_looks()
    {
        await using var service = await ServiceUnderTest.Start();
        var folder = NewFolder();
        await File.WriteAllBytesAsync(Path.Combine(folder, "one.pdf"), TinyPdf.OnePage("BT /F1 10 Tf 50 700 Td (One) Tj ET"));
        JsonObject Source(string name, params int[] days) => new()
        {
            ["name"] = name,
            ["batch"] = name,
            ["hours"] = new JsonObject { ["from"] = "00:00", ["to"] = "00:00", ["days"] = new JsonArray([.. days.Select(day => JsonValue.Create(DateTime.Now.AddDays(day).DayOfWeek.ToString().ToLowerInvariant()))]) },
            ["folder"] = new JsonObject { ["path"] = folder, ["settleSeconds"] = 1, ["after"] = "leave" },
        };
        // In case it is about to be midnight: neither today nor tomorrow, and both of them.
        Assert.Equal(201, (await service.Post("sources", Source("share", 2))).Status);
        Assert.Equal(201, (await service.Post("sources", Source("other", 0, 1))).Status);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); (await service.All("sources/other/items")).Count == 0;)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1));
        Assert.Equal(["other watched True", "share resting False"], (await service.Get("sources")).AsArray().Select(one => $"{one!["name"]} {one["state"]} {one["lookedAt"] is not null}"));
        Assert.Empty(await Items(service));
        await Look(service);
        Assert.Equal("one.pdf", (string?)Assert.Single(await Items(service))["name"]);
    }

    [Fact]
    public async Task A_file_that_is_still_written_waits_and_a_share_that_goes_away_loses_nothing()
    {
        await using var service = await ServiceUnderTest.Start();
        var (folder, invoices) = (NewFolder(), Repository.SampleInvoices("port-ellery-galley").ToList());
        await Save(service, folder, moves: false);
        var bytes = invoices[0].Bytes;
        // As a slow copy does it: each look finds more of it, and whatever it has so far is of nobody's batch.
        await using (var file = new FileStream(Path.Combine(folder, "slow.pdf"), FileMode.Create, FileAccess.Write, FileShare.ReadWrite))
        {
            foreach (var part in bytes.Chunk(bytes.Length / 4))
            {
                await file.WriteAsync(part);
                await file.FlushAsync();
                Assert.Equal((0, 1), await service.Post("sources/share/look", new JsonObject()) is var (_, said) ? ((int)said["taken"]!, (int)said["waiting"]!) : default);
            }
        }
        await Look(service);
        var item = Assert.Single(await Items(service));
        Assert.Equal((long)bytes.Length, (long)item["size"]!);
        Assert.Equal(bytes, await service.Http.GetByteArrayAsync($"sources/share/items/{item["id"]}/original"));
        Assert.Equal(["slow.pdf"], Below(folder));

        Directory.Move(folder, folder + "-away");
        var (status, away) = await service.Post("sources/share/look", new JsonObject());
        Assert.Equal((200, false), (status, (bool)away["isReached"]!));
        Assert.Equal($"The folder {folder} is not there. Where it is of another machine, that one or the line to it may be down; it is looked at again by itself.", (string?)away["says"]);
        Assert.Equal("trouble", (string?)(await service.Get("sources"))[0]!["state"]);
        // Whoever keeps the service running is told, too.
        Assert.Contains($"cannot be looked at since {DateTime.UtcNow:yyyy-MM-dd}", (string?)Assert.Single((await service.Get("operation"))["troubles"]!.AsArray()), StringComparison.Ordinal);
        await File.WriteAllBytesAsync(Path.Combine(folder + "-away", "meanwhile.pdf"), invoices[1].Bytes);
        Directory.Move(folder + "-away", folder);
        // Renamed while it was away: the same bytes at another place are another file, and the batch has them already.
        File.Move(Path.Combine(folder, "slow.pdf"), Path.Combine(folder, "renamed.pdf"));
        await Look(service);
        Assert.Equal(["meanwhile.pdf 1", "renamed.pdf 0", "slow.pdf 1"], (await Items(service)).Select(one => $"{one["name"]} {one["documents"]}"));
        Assert.Equal("watched", (string?)(await service.Get("sources"))[0]!["state"]);
        Assert.Equal(2, (int)(await service.Get("batches"))[0]!["documents"]!);

        // What stays is remembered over a stop, without being read again.
        await service.Terminate();
        await using var again = await ServiceUnderTest.Start(service.Data);
        await Look(again);
        Assert.Equal(3, (await Items(again)).Count);
        Assert.Equal(204, (int)(await again.Http.PostAsync("sources/share/pause", System.Net.Http.Json.JsonContent.Create(new JsonObject()))).StatusCode);
        Assert.Equal("paused", (string?)(await again.Get("sources"))[0]!["state"]);
        Assert.Equal(["sourcePaused", "sourceSaved"], (await again.Get("history")).AsArray().Where(entry => (string?)entry!["stream"] == "source/share").Select(entry => (string?)entry!["act"]));
    }

    [Fact]
    public async Task A_kill_at_any_moment_takes_no_file_twice_and_loses_none()
    {
        var (data, folder, chance) = (Directory.CreateTempSubdirectory("daxlin-test-").FullName, NewFolder(), new Random(20261201));
        var files = Enumerable.Range(0, 40).Select(number => ($"{number:00}.pdf", TinyPdf.OnePage($"BT /F1 10 Tf 50 700 Td (Invoice {number}) Tj ET"))).ToList();
        var service = await ServiceUnderTest.Start(data, apart: true);
        await Save(service, folder);
        foreach (var some in files.Chunk(8))
        {
            foreach (var (name, bytes) in some)
                await File.WriteAllBytesAsync(Path.Combine(folder, name), bytes);
            // Until some have been taken: the rest is under way.
            var wanted = chance.Next(1, 8);
            while (Directory.Exists(Path.Combine(folder, "taken-in")) is false || Directory.GetFiles(Path.Combine(folder, "taken-in")).Length % 8 < wanted && Directory.GetFiles(folder).Length > 0)
                await service.Post("sources/share/look", new JsonObject());
            await service.Kill();
            service = await ServiceUnderTest.Start(data, apart: true);
        }
        await Look(service);
        Assert.Equal(files.Select(file => $"taken-in/{file.Item1}"), Below(folder));
        var items = await Items(service);
        Assert.Equal(files.Select(file => $"{file.Item1} 1"), items.Select(item => $"{item["name"]} {item["documents"]}"));
        Assert.Equal(files.Count, (await service.All($"batches/{await service.FirstBatch()}/documents")).Count);
        await service.DisposeAsync();
    }

    [Fact]
    public async Task A_mail_server_that_never_answers_holds_up_no_folder()
    {
        await using var service = await ServiceUnderTest.Start();
        using var silent = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        silent.Start();
        await service.Http.PutAsync("secrets/post", new StringContent("puffin"));
        Assert.Equal(201, (await service.Post("sources", new JsonObject
        {
            ["name"] = "post",
            ["batch"] = "Post",
            ["mailbox"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = ((System.Net.IPEndPoint)silent.LocalEndpoint).Port, ["encryption"] = "none", ["user"] = "a", ["password"] = "post" },
        })).Status);
        // The service is at it, and waits for a first word that never comes.
        using var asked = await silent.AcceptSocketAsync();
        var folder = NewFolder();
        await Save(service, folder);
        await File.WriteAllBytesAsync(Path.Combine(folder, "one.pdf"), TinyPdf.OnePage("BT /F1 10 Tf 50 700 Td (Invoice) Tj ET"));
        while (!File.Exists(Path.Combine(folder, "taken-in", "one.pdf")))
            Assert.True((await service.Get("sources/post"))["lookedAt"] is null, "The folder waited for the mail server.");
        Assert.Equal(1, (int)(await Items(service))[0]["documents"]!);
    }

    [Theory]
    [InlineData("""{ "name": "share", "batch": "Share", "folder": { "path": "srv/in" } }""", "line 1, folder.path: A folder is named from the root on")]
    [InlineData("""{ "name": "share", "batch": "Share {week}", "folder": { "path": "/srv/in" } }""", "batch: “{week}” is not known here; there are {day}, {month}, {folder}.")]
    [InlineData("""{ "name": "share", "batch": "Share" }""", "The way is missing: “folder” or “mailbox”.")]
    [InlineData("""{ "name": "share", "batch": "Share", "folder": { "path": "/srv/in", "wait": 3 } }""", "folder.wait")]
    [InlineData("""{ "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "encryption": "none", "user": "a", "password": "b" } }""", "A password is never sent in the open")]
    [InlineData("""{ "name": "post", "batch": "Post {folder}", "mailbox": { "host": "mail.kestrel.example", "user": "a", "password": "b" } }""", "a message stands in none")]
    [InlineData("""{ "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "user": "a", "password": "b", "token": "c" } }""", "One of “password”, “token” and “renewal” is wanted")]
    [InlineData("""{ "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "user": "a", "renewal": { "url": "http://login.example/token", "client": "c", "refresh": "d" } } }""", "The web address of the token endpoint is wanted here, over https")]
    [InlineData("""{ "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "user": "a", "password": "b", "rules": [{ "take": false, "batch": "X" }] } }""", "mailbox.rules[0].batch: What is left alone goes into no batch.")]
    [InlineData("""{ "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "user": "a", "password": "b", "answer": { "host": "mail.kestrel.example", "from": "a@b.example", "text": "{sum}" } } }""", "mailbox.answer.text: “{sum}” is not known here; there are {subject}, {list}, {counts}.")]
    public async Task A_faulty_source_is_refused_with_its_place(string document, string says)
    {
        await using var service = await ServiceUnderTest.Start();
        var (status, body) = await service.Post("sources", JsonNode.Parse(document)!);
        Assert.Equal((422, "source-faulty"), (status, (string?)body["code"]));
        Assert.Contains(says, (string?)body["detail"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_data_folder_is_no_source()
    {
        await using var service = await ServiceUnderTest.Start();
        await Save(service, Path.Combine(service.Data, "documents"));
        var (_, said) = await service.Post("sources/share/look", new JsonObject());
        Assert.Contains("a source is a folder of its own", (string?)said["says"], StringComparison.Ordinal);
    }
}
