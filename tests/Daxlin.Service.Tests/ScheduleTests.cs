using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What is done by itself at set times is done once for each, and what could not be done says so.</summary>
public class ScheduleTests
{
    private const string Evening = """{ "name": "evening", "at": "18:30", "posting": { "batches": "each" } }""";

    /// <summary>A time that has long passed, in the place of the next.</summary>
    private static async Task MakeDue(ServiceUnderTest service, string schedule, string at) =>
        Assert.Equal(1, await StoreUnderTest.Change(service.Data, $"""UPDATE "ScheduleStates" SET "NextAt" = '{at}' WHERE "Name" = '{schedule}' AND "NextAt" IS NOT NULL"""));

    private static async Task<(int Status, JsonNode Body)> Save(ServiceUnderTest service, string document)
    {
        using var answer = await service.Http.PostAsync("schedules", new StringContent(document, Encoding.UTF8, "application/json"));
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static async Task<JsonNode> Until(ServiceUnderTest service, string schedule, Func<JsonNode, bool> isSo)
    {
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
        {
            var one = (await service.Get("schedules")).AsArray().Single(row => (string?)row!["name"] == schedule)!;
            if (isSo(one))
                return one;
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), one.ToJsonString());
        }
    }

    /// <summary>A batch of approved invoices.</summary>
    private static async Task<int> Approved(ServiceUnderTest service, string name, string vendor)
    {
        var batch = await service.OpenBatch(name);
        await service.Upload(batch, Repository.SampleInvoices(vendor).Take(3));
        await service.UntilDone(batch);
        foreach (var invoice in await service.Invoices(batch))
            Assert.Equal(200, (await service.Decide(invoice["id"], "approval")).Status);
        return batch;
    }

    [Fact]
    public async Task What_is_due_is_posted_once_and_a_batch_that_does_not_agree_holds_up_itself_alone()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        await Approved(service, "Galley", "port-ellery-galley");
        var moorings = await Approved(service, "Moorings", "skerrow-sail-loft");
        Assert.Equal(200, (await BatchSheetTests.State(service, moorings, [new JsonObject { ["currency"] = "SEK", ["invoices"] = 1 }])).Status);
        Assert.Equal(201, (await Save(service, Evening)).Status);
        var waiting = await Until(service, "evening", one => one["nextAt"] is not null);
        Assert.Equal(("in-use", "Each day at 18:30", true), ((string?)waiting["state"], (string?)waiting["when"], waiting["last"] is null));

        await MakeDue(service, "evening", "2026-01-05 18:30:00");
        var done = await Until(service, "evening", one => one["last"] is not null);
        var last = done["last"]!;
        Assert.Equal(("trouble", "refused", "[1]"), ((string?)done["state"], (string?)last["outcome"], last["runs"]!.ToJsonString()));
        Assert.StartsWith("Posting run 1 was made, with 3 invoices. Batch “Moorings”: What is to be posted does not come to what was stated.", (string?)last["says"], StringComparison.Ordinal);
        Assert.Contains("It was due ", (string?)last["says"], StringComparison.Ordinal);
        Assert.True((DateTime)done["nextAt"]! > DateTime.UtcNow);
        var run = (await service.Get("posting-runs")).AsArray().Single()!;
        Assert.Equal("schedule: evening", (string?)run["by"]);
        Assert.Contains((await service.Get("operation"))["troubles"]!.AsArray(), one => ((string)one!).StartsWith("The schedule “evening” could not do its work, since ", StringComparison.Ordinal));

        // A person says why the other is posted all the same; then there is nothing left, and the schedule is in order.
        Assert.Equal(201, (await service.Post("posting-runs", new JsonObject { ["batch"] = moorings, ["despite"] = "The sheet was of last month" })).Status);
        Assert.Equal("There was nothing to post.", (string?)(await service.Post("schedules/evening/turn", new JsonObject())).Body["says"]);
        Assert.Equal("in-use", (string?)(await Until(service, "evening", _ => true))["state"]);
        Assert.Equal(["refused", "nothing"], (await service.Get("schedules/evening/turns")).AsArray().Select(turn => (string?)turn!["outcome"]).Reverse());

        // Paused, nothing is due; what passes meanwhile is not made up.
        Assert.Equal(204, (int)(await service.Http.PostAsync("schedules/evening/pause", new StringContent("{}", Encoding.UTF8, "application/json"))).StatusCode);
        Assert.Null((await Until(service, "evening", one => (string?)one["state"] == "paused"))["nextAt"]);
        Assert.Equal(204, (int)(await service.Http.PostAsync("schedules/evening/resumption", new StringContent("{}", Encoding.UTF8, "application/json"))).StatusCode);
        Assert.True((DateTime)(await Until(service, "evening", one => one["nextAt"] is not null))["nextAt"]! > DateTime.UtcNow);
    }

    [Fact]
    public async Task Times_that_pass_while_the_service_is_stopped_are_made_up_by_one_turn_and_a_clock_that_was_ahead_is_forgotten()
    {
        var service = await ServiceUnderTest.Start();
        try
        {
            await service.SaveTemplates(Repository.Samples);
            Assert.Equal(201, (await Save(service, Evening)).Status);
            await Until(service, "evening", one => one["nextAt"] is not null);
            await Approved(service, "Galley", "port-ellery-galley");
            await service.Terminate();
            var days = (DateTime.UtcNow - TimeSpan.FromDays(3)).ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture);
            await MakeDue(service, "evening", days);
            service = await ServiceUnderTest.Start(service.Data);
            var made = await Until(service, "evening", one => one["last"] is not null);
            Assert.StartsWith("Posting run 1 was made, with 3 invoices. It was due ", (string?)made["last"]!["says"], StringComparison.Ordinal);
            Assert.Single((await service.Get("schedules/evening/turns")).AsArray());

            await MakeDue(service, "evening", "2099-01-01 18:30:00");
            var soon = await Until(service, "evening", one => (DateTime)one["nextAt"]! < DateTime.UtcNow.AddDays(2));
            Assert.Equal((string?)made["nextAt"], (string?)soon["nextAt"]);
            Assert.Single((await service.Get("schedules/evening/turns")).AsArray());

            // The service that a backup was made of may post still: what is restored from it does not by itself.
            var (backup, restored) = (Path.Combine(service.Data, "backup"), Directory.CreateTempSubdirectory("daxlin-restored-").FullName);
            Assert.Equal(0, (await ServiceUnderTest.RunToEnd(["backup", backup, "--data", service.Data, .. await StoreUnderTest.Arguments(service.Data)])).ExitCode);
            Assert.Contains("schedules-paused", (await ServiceUnderTest.RunToEnd("restore", backup, "--data", restored)).Said, StringComparison.Ordinal);
            await using var now = await ServiceUnderTest.Start(restored, isOwnStore: true);
            Assert.Equal(("paused", 1), await Until(now, "evening", _ => true) is var kept ? ((string?)kept["state"], kept["last"]!["runs"]!.AsArray().Count) : default);
        }
        finally
        {
            await service.DisposeAsync();
        }
    }

    [Fact]
    public async Task A_digest_says_what_waits_goes_once_and_is_kept_back_when_nothing_does()
    {
        await using var post = new MailReceiver();
        await using var service = await ServiceUnderTest.Start();
        const string Digest = """{ "name": "morning", "at": ["07:30", "13:00"], "digest": { "receiver": "office" } }""";
        Assert.Equal((404, "There is no receiver “office”."), await Save(service, Digest) is var early ? (early.Status, (string?)early.Body["detail"]) : default);
        var way = post.Described(post.Port).Way;
        Assert.Equal(201, (await service.Post("receivers", new JsonObject { ["name"] = "office", ["mail"] = way["mail"]!.DeepClone() })).Status);
        Assert.Equal(201, (await service.Post("receivers", new JsonObject { ["name"] = "drive", ["folder"] = new JsonObject { ["path"] = service.Data } })).Status);
        Assert.Equal((409, "not-by-mail"), await Save(service, Digest.Replace("office", "drive", StringComparison.Ordinal)) is var wrong ? (wrong.Status, (string?)wrong.Body["code"]) : default);
        Assert.Equal(201, (await Save(service, Digest)).Status);
        Assert.Equal("Nothing waits for a person, so nobody was told.", (string?)(await service.Post("schedules/morning/turn", new JsonObject())).Body["says"]);

        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Galley");
        await service.Upload(batch, [.. Repository.SampleInvoices("port-ellery-galley").Take(6), ("broken.pdf", Encoding.ASCII.GetBytes("%PDF-1.7 and nothing more"))]);
        await service.UntilDone(batch);
        var invoices = await service.Invoices(batch);
        await service.Decide(invoices.First(one => (string?)one["state"] == "clear")["id"], "approval");
        await MakeDue(service, "morning", "2026-01-05 07:30:00");
        await Until(service, "morning", one => (string?)one["last"]?["mail"] == "sent");
        var message = Assert.Single(post.Messages);
        var held = Assert.Single(invoices, one => (string?)one["state"] == "held");
        Assert.Equal(("1 to look at, 1 to be posted", "auto-generated"), (message.Subject, message.Headers["Auto-Submitted"]));
        Assert.Equal(
            $"""
            1 invoice to look at:
            - {held["vendor"]} {held["invoiceNumber"]}, {decimal.Parse((string)held["total"]!, CultureInfo.InvariantCulture).ToString("N2", CultureInfo.InvariantCulture)} {held["currency"]}, in Galley: {(await service.Get($"invoices/{held["id"]}"))["findings"]![0]!["message"]}

            {invoices.Count - 2} invoices are clear and wait for approval. 1 invoice is approved and waits to be posted. 1 document could not be read.
            """,
            message.TextBody!.ReplaceLineEndings("\n").TrimEnd());

        // One that may have arrived when a service died is not sent again, and a person is told.
        Assert.Equal(1, await StoreUnderTest.Change(service.Data, """UPDATE "ScheduledTurns" SET "State" = 'Sending' WHERE "State" = 'Sent'"""));
        var lost = await Until(service, "morning", one => (string?)one["last"]?["mail"] == "given-up");
        Assert.Equal(("trouble", true), ((string?)lost["state"], ((string)lost["trouble"]!).Contains("Its Message-ID is schedule-", StringComparison.Ordinal)));
        Assert.Single(post.Messages);
    }

    [Fact]
    public async Task Whoever_may_not_post_has_nothing_posted_by_a_schedule()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Bodil Strand", "clerk");
        using var keeper = await administrator.Add(service, "Runa Vik", "administrator");
        using var auditor = await administrator.Add(service, "Nils Orme", "auditor");
        foreach (var other in new[] { keeper, auditor })
            Assert.Equal((403, "right-missing"), await other.Send(HttpMethod.Post, "schedules", JsonNode.Parse(Evening)) is var refused ? (refused.Status, (string?)refused.Body["code"]) : default);
        Assert.Equal(201, (await clerk.Send(HttpMethod.Post, "schedules", JsonNode.Parse(Evening))).Status);
        Assert.Equal((403, "right-missing"), await auditor.Send(HttpMethod.Post, "schedules/evening/turn", new JsonObject()) is var turn ? (turn.Status, (string?)turn.Body["code"]) : default);
        Assert.Equal("Bodil Strand", (string?)(await clerk.Send(HttpMethod.Post, "schedules/evening/turn", new JsonObject())).Body["by"]);
    }
}
