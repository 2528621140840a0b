using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Runs that reach ledgers by themselves: on each way, whatever breaks, the receiver sees each run once.</summary>
public class DeliveryTests
{
    private const string Layout = """
        { "name": "daybook", "tables": [
          { "name": "Headers", "records": "invoices", "columns": [
            "invoiceNumber", "invoiceDate", { "heading": "total", "value": "total", "proves": "total" }, "currency", { "heading": "credit \"note\"", "value": "kind = 'credit note'" }] } ],
          "file": { "name": "run-{run}" } }
        """;

    /// <summary>A service with approved invoices and a layout.</summary>
    private static Task<ServiceUnderTest> Approved(bool apart = false) => ServiceUnderTest.StartAfter("two of two vendors approved, and a layout", async service =>
    {
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, new[] { "port-ellery-galley", "skerrow-sail-loft" }.SelectMany(vendor => new[] { "01", "02" }.Select(number => Path.Combine(Repository.Samples, vendor, $"{vendor}-{number}.pdf")))
            .Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear"))
            await service.Decide(invoice["id"], "approval");
        await Created(service, "posting-layouts", Layout);
    }, apart);

    private static async Task<JsonNode> Created(ServiceUnderTest service, string path, string json)
    {
        using var answer = await service.Http.PostAsync(path, new StringContent(json, Encoding.UTF8, "application/json"));
        var said = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, said);
        return JsonNode.Parse(said)!;
    }

    private static async Task Keep(ServiceUnderTest service, string name, string secret)
    {
        using var answer = await service.Http.PutAsync($"secrets/{name}", new StringContent(secret));
        Assert.Equal(204, (int)answer.StatusCode);
    }

    private static async Task<JsonNode> SaveReceiver(ServiceUnderTest service, JsonObject way, params (string Name, string Value)[] secrets)
    {
        foreach (var (name, value) in secrets)
            await Keep(service, name, value);
        var document = new JsonObject { ["name"] = "ledger", ["layout"] = "daybook", ["atOnce"] = true };
        foreach (var (key, value) in way)
            document[key] = value?.DeepClone();
        return await Created(service, "receivers", document.ToJsonString());
    }

    /// <summary>A run of all invoices that are approved; or one that takes them back, if they are posted.</summary>
    private static async Task<JsonNode> NextRun(ServiceUnderTest service, JsonNode? before)
    {
        var (status, run) = before is not null && before["reverses"] is null
            ? await service.Post($"posting-runs/{before["number"]}/withdrawal", new JsonObject { ["reason"] = "once more for the test" })
            : await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = "daybook" });
        Assert.True(status == 201, run.ToJsonString());
        return run;
    }

    /// <summary>The delivery of a run, once it is not being tried any more.</summary>
    private static async Task<JsonNode> Tried(ServiceUnderTest service, JsonNode run)
    {
        await service.Http.GetStringAsync($"posting-runs/{run["number"]}/deliveries/events");
        return (await service.Get($"posting-runs/{run["number"]}/deliveries")).AsArray()[^1]!;
    }

    private static string State(JsonNode delivery) => (string)delivery["state"]!;

    private static async Task<JsonNode> Retried(ServiceUnderTest service, JsonNode run, JsonNode delivery)
    {
        var (status, body) = await service.Post($"deliveries/{delivery["id"]}/retry", new JsonObject());
        Assert.True(status == 200, body.ToJsonString());
        return await Tried(service, run);
    }

    [Fact]
    public async Task A_folder_gets_each_run_at_once_with_the_bytes_that_the_run_has_and_what_takes_it_back_behind_it()
    {
        await using var service = await Approved();
        var inbox = Directory.CreateTempSubdirectory("daxlin-in-").FullName;
        await SaveReceiver(service, new() { ["folder"] = new JsonObject { ["path"] = inbox } });
        // Who is to have a run and cannot is told before the run is made.
        JsonObject Wanted(string? layout, string receiver) => new() { ["allBatches"] = true, ["layout"] = layout, ["deliver"] = new JsonArray(receiver) };
        Assert.Equal("not-there", (string)(await service.Post("posting-runs", Wanted("daybook", "ledgr"))).Body["code"]!);
        Assert.Equal("other-layout", (string)(await service.Post("posting-runs", Wanted(null, "ledger"))).Body["code"]!);
        Assert.Empty((await service.Get("posting-runs")).AsArray());
        // One that gets each run at once and is named gets it once.
        var (_, first) = await service.Post("posting-runs", Wanted("daybook", "ledger"));
        var delivered = await Tried(service, first);
        Assert.Single((await service.Get("posting-runs/1/deliveries")).AsArray());
        Assert.Equal(("delivered", $"In {inbox}: run-1.csv."), (State(delivered), (string)delivered["says"]!));
        var second = await NextRun(service, first);
        Assert.Equal("delivered", State(await Tried(service, second)));
        foreach (var run in new[] { first, second })
        {
            var file = (await service.Get($"posting-runs/{run["number"]}/manifest"))["files"]![0]!;
            Assert.Equal((string)file["sha256"]!, Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(Path.Combine(inbox, (string)file["name"]!)))));
        }
        Assert.Equal(["run-1.csv", "run-2.csv"], Directory.GetFiles(inbox).Select(Path.GetFileName).Order());

        // A file of the same name that came from elsewhere stays as it is, and the ledger is told by nobody but its clerk.
        var stranger = Path.Combine(inbox, "run-3.csv");
        File.WriteAllText(stranger, "not ours");
        var third = await NextRun(service, second);
        var waits = await Tried(service, third);
        Assert.Equal(("waiting", 1, "not ours"), (State(waits), waits["attempts"]!.GetValue<int>(), File.ReadAllText(stranger)));
        Assert.Contains("is not from this delivery", (string)waits["says"]!, StringComparison.Ordinal);
        // What takes the run back does not overtake it.
        var fourth = await NextRun(service, third);
        Assert.Equal(("waiting", 0), (State(await Tried(service, fourth)), (await Tried(service, fourth))["attempts"]!.GetValue<int>()));
        File.Delete(stranger);
        Assert.Equal("delivered", State(await Retried(service, third, waits)));
        Assert.Equal("delivered", State(await Tried(service, fourth)));
        Assert.True(File.GetCreationTimeUtc(Path.Combine(inbox, "run-3.csv")) <= File.GetCreationTimeUtc(Path.Combine(inbox, "run-4.csv")));

        // Once more only for a reason, and a run of another layout not at all.
        Assert.Equal("delivered-already", (string)(await service.Post($"posting-runs/{fourth["number"]}/deliveries", new JsonObject { ["receiver"] = "ledger" })).Body["code"]!);
        File.Delete(Path.Combine(inbox, "run-4.csv"));
        Assert.Equal(201, (await service.Post($"posting-runs/{fourth["number"]}/deliveries", new JsonObject { ["receiver"] = "ledger", ["again"] = "the ledger lost it" })).Status);
        Assert.Equal("delivered", State(await Tried(service, fourth)));
        Assert.True(File.Exists(Path.Combine(inbox, "run-4.csv")));
        var history = await service.All("history?run=4");
        Assert.Equal(["delivered", "deliveryAsked", "delivered", "withdrawn"], history.Select(deed => (string)deed["act"]!));
        Directory.Delete(inbox, recursive: true);
    }

    /// <summary>What a death between two steps leaves behind, made by hand: the database's row, the files, and the ledger that has taken one.</summary>
    [Theory]
    [InlineData("made ready, not begun", false, true, false)]
    [InlineData("begun, not renamed", true, true, false)]
    [InlineData("renamed", true, false, true)]
    [InlineData("renamed and taken by the ledger", true, false, false)]
    public async Task A_death_between_two_steps_puts_a_file_into_a_folder_neither_twice_nor_never(string moment, bool isBegun, bool hasPart, bool hasTarget)
    {
        await using var service = await Approved();
        var inbox = Directory.CreateTempSubdirectory("daxlin-in-").FullName;
        await SaveReceiver(service, new() { ["folder"] = new JsonObject { ["path"] = inbox } });
        var run = await NextRun(service, null);
        var delivery = await Tried(service, run);
        await service.Terminate();
        var target = Path.Combine(inbox, "run-1.csv");
        var content = File.ReadAllBytes(target);
        if (hasPart)
            File.Copy(target, Path.Combine(inbox, $".run-1.csv.{delivery["key"]}.part"));
        if (!hasTarget)
            File.Delete(target);
        await StoreUnderTest.Change(service.Data, $"UPDATE \"Deliveries\" SET \"State\" = 'Waiting', \"IsBegun\" = {(isBegun ? "TRUE" : "FALSE")}, \"EndedAt\" = NULL");
        await using var next = await ServiceUnderTest.Start(service.Data);
        Assert.Equal("delivered", State(await Tried(next, run)));
        Assert.True(File.Exists(target) == (hasPart || hasTarget), moment);
        if (File.Exists(target))
            Assert.Equal(content, File.ReadAllBytes(target));
        Assert.Empty(Directory.GetFiles(inbox, ".*"));
        Directory.Delete(inbox, recursive: true);
    }

    [Theory]
    [InlineData("webhook")]
    [InlineData("mail")]
    [InlineData("sftp")]
    [InlineData("postgresql")]
    public async Task A_line_that_is_cut_or_a_death_at_any_moment_lets_the_receiver_see_a_run_once(string way)
    {
        await using var receiver = await ReceiverOf(way);
        await using var line = new CuttingProxy(receiver.Port);
        var service = await Approved(apart: true);
        try
        {
            var (document, secrets) = receiver.Described(line.Port);
            await SaveReceiver(service, document, secrets);
            var (reached, said) = await Reached(service);
            Assert.True(reached, said);
            JsonNode? run = null;
            // All moments where there are few; every third in a short run, and death at few of them. bench/faults goes through all, twice.
            var isLong = Environment.GetEnvironmentVariable("DAXLIN_FAULT_ROUNDS") is not null;
            var hasFew = way is "webhook" or "mail";
            var pieces = Enumerable.Range(1, int.MaxValue / 4);
            var moments = isLong ? pieces.SelectMany(piece => new[] { (piece, false), (piece, true) })
                : hasFew ? pieces.Select(piece => (piece, piece % 2 == 0)) : pieces.Select(at => (at * 3 - 2, at is 2 or 4));
            var (cuts, deaths) = (0, 0);
            foreach (var (piece, isDeath) in moments)
            {
                var dead = false;
                line.CutAt(piece, !isDeath ? null : async () =>
                {
                    dead = true;
                    await service.Kill();
                });
                run = await NextRun(service, run);
                JsonNode delivery;
                try
                {
                    delivery = await Tried(service, run);
                }
                catch (Exception error) when (dead && error is HttpRequestException or IOException)
                {
                    delivery = run;
                }
                var hasCut = line.HasCut;
                line.CutAt();
                if (dead)
                {
                    service = await ServiceUnderTest.Start(service.Data, apart: true);
                    delivery = await Tried(service, run);
                }
                if (State(delivery) == "given-up")
                {
                    // Only a mail server cannot be asked; a person looks, and says how to go on.
                    Assert.Equal(("mail", true), (way, ((string)delivery["says"]!).Contains("Message-ID", StringComparison.Ordinal)));
                    if (await receiver.TimesOf(run) > 0)
                        Assert.Equal(200, (await service.Post($"deliveries/{delivery["id"]}/settlement", new JsonObject { ["reason"] = "it stands in the inbox" })).Status);
                    else
                        await Retried(service, run, delivery);
                }
                else if (State(delivery) == "waiting")
                {
                    await Retried(service, run, delivery);
                }
                Assert.Equal((piece, true, 1), (piece, State(await Tried(service, run)) is "delivered" or "settled", await receiver.TimesOf(run)));
                if (!hasCut)
                    break;
                (cuts, deaths) = dead ? (cuts, deaths + 1) : (cuts + 1, deaths);
            }
            Assert.True(cuts > 0 && deaths > 0, $"{cuts} cuts and {deaths} deaths");
            if (receiver is WebhookReceiver web)
                Assert.Empty(web.Faults);
        }
        finally
        {
            await service.DisposeAsync();
        }
    }

    private static async Task<(bool IsReached, string Says)> Reached(ServiceUnderTest service)
    {
        var (_, said) = await service.Post("receivers/ledger/reach", new JsonObject());
        return ((bool)said["isReached"]!, (string)said["says"]!);
    }

    private static async Task<ITestReceiver> ReceiverOf(string way) => way switch
    {
        "webhook" => new WebhookReceiver(),
        "mail" => new MailReceiver(),
        "sftp" => await SftpReceiver.Start(),
        _ => await DatabaseReceiver.Start(),
    };

    [Fact]
    public async Task What_is_sent_says_all_of_the_run_and_holds_its_files()
    {
        await using var web = new WebhookReceiver();
        await using var mail = new MailReceiver();
        await using var tables = await DatabaseReceiver.Start();
        await using var service = await Approved();
        foreach (var (name, receiver) in new (string, ITestReceiver)[] { ("web", web), ("mail", mail), ("tables", tables) })
        {
            var (document, secrets) = receiver.Described(receiver.Port);
            foreach (var (secret, value) in secrets)
                await Keep(service, secret, value);
            document["name"] = name;
            document["layout"] = "daybook";
            await Created(service, "receivers", document.ToJsonString());
        }
        var run = await NextRun(service, null);
        var file = await service.Http.GetByteArrayAsync("posting-runs/1/file");
        Assert.Empty((await service.Get("posting-runs/1/deliveries")).AsArray());
        foreach (var name in new[] { "web", "mail", "tables" })
        {
            Assert.Equal(201, (await service.Post("posting-runs/1/deliveries", new JsonObject { ["receiver"] = name })).Status);
            Assert.Equal("delivered", State(await Tried(service, run)));
        }
        var sent = Assert.Single(web.Taken.Values)["data"]!;
        Assert.Equal(file, Convert.FromBase64String((string)sent["files"]![0]!["content"]!));
        Assert.Equal(run["sums"]!.ToJsonString(), sent["sums"]!.ToJsonString());
        var message = Assert.Single(mail.Messages);
        var attached = Assert.IsAssignableFrom<MimeKit.MimePart>(Assert.Single(message.Attachments));
        using var content = new MemoryStream();
        await attached.Content!.DecodeToAsync(content, TestContext.Current.CancellationToken);
        Assert.Equal("run-1.csv", attached.FileName);
        Assert.Equal(file, content.ToArray());
        // Numbers are numbers, dates are dates, and they come to the control totals.
        foreach (var (currency, sum) in run["sums"]!.AsObject())
            Assert.Equal(decimal.Parse((string)sum!, System.Globalization.CultureInfo.InvariantCulture), await tables.Ask($"SELECT sum(total) FROM daxlin.\"Headers\" WHERE currency = '{currency}' AND \"invoiceDate\" > date '2000-01-01' AND \"credit \"\"note\"\"\" IS NOT NULL"));
        Assert.Equal(run["sums"]!.ToJsonString(), JsonNode.Parse((string)(await tables.Ask("SELECT sums::text FROM daxlin.daxlin_runs"))!)!.ToJsonString());
    }

    [Fact]
    public async Task What_stands_in_the_way_is_told_and_given_up_after_a_day_and_mended_by_a_new_version()
    {
        await using var web = new WebhookReceiver { Answer = 503 };
        await using var service = await Approved();
        var (document, secrets) = web.Described(web.Port);
        await SaveReceiver(service, document);
        Assert.Equal(["ledger-hook"], (await service.Get("receivers/ledger"))["secretsMissing"]!.AsArray().Select(one => (string)one!));
        var run = await NextRun(service, null);
        var delivery = await Tried(service, run);
        Assert.Equal("The secret “ledger-hook” is not kept here yet; keep it on the receiver's page, or by ./daxlin secret keep ledger-hook.", (string)delivery["says"]!);
        // Whatever is mended is tried at once, and not at its next hour.
        await Keep(service, secrets[0].Name, secrets[0].Value);
        for (var attempt = 2; attempt <= Core.Posting.Receivers.DeliveryPatience.MostAttempts; attempt++)
        {
            delivery = await Tried(service, run);
            Assert.Equal((attempt, "http://127.0.0.1:" + web.Port + "/daxlin answered 503."), (delivery["attempts"]!.GetValue<int>(), (string)delivery["says"]!));
            if (State(delivery) == "waiting")
                await Keep(service, "another", "one");
        }
        Assert.Equal("given-up", State(delivery));
        Assert.Equal([1], (await service.All("receivers")).Select(one => one["givenUp"]!.GetValue<int>()));
        Assert.Equal([(int)delivery["id"]!], (await service.All("deliveries?state=given-up")).Select(one => (int)one["id"]!));
        Assert.Equal("asked-already", (string)(await service.Post("posting-runs/1/deliveries", new JsonObject { ["receiver"] = "ledger" })).Body["code"]!);
        web.Answer = 200;
        Assert.Equal("delivered", State(await Retried(service, run, delivery)));
        // However often it was sent, it was sent under one id.
        Assert.Equal((1, 1, Core.Posting.Receivers.DeliveryPatience.MostAttempts), (web.Sent.Count, web.Taken.Count, web.Sent.Values.Single()));
        // A secret stands in no answer, and in no file that others can read.
        var kept = new FileInfo(Path.Combine(service.Data, "secrets", "ledger-hook"));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, kept.UnixFileMode);
        foreach (var path in new[] { "secrets", "receivers", "receivers/ledger", "deliveries", "history" })
            Assert.DoesNotContain(secrets[0].Value, await service.Http.GetStringAsync(path), StringComparison.Ordinal);
    }
}
