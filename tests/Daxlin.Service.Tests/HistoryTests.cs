using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Whatever is done is told in one history, and what is changed in it later is found.</summary>
public class HistoryTests
{
    private static async Task<(ServiceUnderTest Service, JsonNode Invoice)> Worked()
    {
        var service = await ServiceUnderTest.StartAfter("one of a vendor corrected, handed over and approved", async service =>
        {
            await service.SaveTemplates(Repository.Samples);
            var batch = await service.OpenBatch("November");
            await service.Upload(batch, Repository.SampleInvoices("brinewood-chandlery"));
            await service.UntilDone(batch);
            var invoice = (await service.Invoices(batch)).First(one => (string?)one["state"] == "clear");
            await service.Decide(invoice["id"], "corrections", new() { ["act"] = "enter", ["of"] = "purchaseOrder", ["text"] = "KSF-7" });
            await service.Decide(invoice["id"], "hand-over", new() { ["to"] = "Mira", ["note"] = "Is this order ours?" });
            await service.Decide(invoice["id"], "approval");
        });
        return (service, (await service.Invoices(await service.FirstBatch())).First(one => (string?)one["state"] == "approved"));
    }

    private static Task<JsonNode> Verify(ServiceUnderTest service) => service.Get("history/verify");

    private static async Task Tamper(ServiceUnderTest service, string statement) => Assert.True(await StoreUnderTest.Change(service.Data, statement) > 0);

    [Fact]
    public async Task Every_act_is_told_with_who_and_what_and_the_whole_is_a_chain()
    {
        var (service, invoice) = await Worked();
        await using var running = service;
        await service.PostAll();
        var told = (await service.Get($"history?invoice={invoice["id"]}")).AsArray().Reverse().ToList();
        Assert.Equal(["captured", "corrected", "handedOver", "approved", "posted"], told.Select(entry => (string)entry!["act"]!));
        Assert.Equal(["Daxlin", .. Enumerable.Repeat(Environment.UserName, 4)], told.Select(entry => (string)entry!["by"]!));
        Assert.Equal(Enumerable.Range(1, 5), told.Select(entry => (int)entry!["number"]!));
        // What was approved is what was posted.
        Assert.Equal((string?)told[3]!["content"], (string?)told[4]!["content"]);
        Assert.Equal("KSF-7", (string?)told[1]!["after"]);
        var whole = await Verify(service);
        Assert.True((bool)whole["isWhole"]!);
        Assert.Equal((1, 1), ((int)whole["approved"]!, Math.Min(1, (int)whole["seals"]!)));
        var acts = (await service.All("history?limit=7")).Select(entry => (int)entry["id"]!).ToList();
        Assert.Equal(acts.Count, (int)whole["entries"]!);
        Assert.Equal(acts.OrderDescending(), acts);
        var lines = (await service.Http.GetStringAsync("history/export?act=takenIn")).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(Repository.SampleInvoices("brinewood-chandlery").Select(file => file.Name).Order(), lines.Select(line => (string)JsonNode.Parse(line)!["after"]!).Order());
        Assert.Empty((await service.Get("history?by=Nobody")).AsArray());
        Assert.Empty((await service.Get("history?to=2020-01-01")).AsArray());
        Assert.Equal(acts.Count, (await service.All("history?from=2020-01-01")).Count);
    }

    [Theory]
    [InlineData("""UPDATE "History" SET "By" = 'Nobody' WHERE "Act" = 'handedOver'""", "entry 3 of invoice/")]
    [InlineData("""DELETE FROM "History" WHERE "Act" = 'corrected'""", "entry 2 is gone")]
    [InlineData("""DELETE FROM "History" WHERE "Act" = 'takenIn' AND "Id" = (SELECT MAX("Id") FROM "History" WHERE "Act" = 'takenIn')""", "one was taken away or put in")]
    [InlineData("""UPDATE "InvoiceRecords" SET "Record" = REPLACE("Record", 'KSF-7', 'KSF-8') WHERE "Id" IN (SELECT "Id" FROM "Invoices" WHERE "State" = 'Posted')""", "are not those that")]
    public async Task What_is_changed_behind_its_back_is_named(string statement, string sentence)
    {
        var (service, _) = await Worked();
        await using var running = service;
        Assert.Equal(201, (await service.PostAll()).Status);
        await Tamper(service, statement);
        var broken = await Verify(service);
        Assert.False((bool)broken["isWhole"]!);
        Assert.Contains(sentence, (string?)broken["sentence"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_was_approved_is_posted_or_nothing()
    {
        var (service, invoice) = await Worked();
        await using var running = service;
        await Tamper(service, """UPDATE "InvoiceRecords" SET "Record" = REPLACE("Record", 'KSF-7', 'KSF-8') WHERE "Id" IN (SELECT "Id" FROM "Invoices" WHERE "State" = 'Approved')""");
        var (status, refused) = await service.PostAll();
        Assert.Equal((409, "altered-since-approved"), (status, (string?)refused["code"]));
        Assert.Contains($"invoice {invoice["id"]} ", (string?)refused["detail"], StringComparison.Ordinal);
        Assert.Empty((await service.Get("posting-runs")).AsArray());
    }

    [Fact]
    public async Task A_service_that_starts_with_a_broken_history_says_so()
    {
        var (service, _) = await Worked();
        await Tamper(service, """UPDATE "History" SET "Reason" = 'Other' WHERE "Act" = 'handedOver'""");
        await service.Terminate();
        await using var again = await ServiceUnderTest.Start(service.Data);
        JsonNode state;
        do
            state = await again.Get("state");
        while ((bool)state["isWell"]!);
        Assert.Equal("history-broken", (string?)state["code"]);
        Assert.Contains("invoice/", (string?)state["sentence"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task Decisions_of_a_release_before_there_was_a_history_are_taken_over_once_with_their_names()
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, "No such release knew a database server.");
        var (first, invoice) = await Worked();
        var id = (int)invoice["id"]!;
        await Tamper(first, "DELETE FROM History");
        await Tamper(first, "UPDATE Invoices SET ApprovedSha256 = ''");
        await Tamper(first, $"""
            CREATE TABLE Decisions (Id INTEGER PRIMARY KEY, InvoiceId INTEGER NOT NULL, At TEXT NOT NULL, By TEXT NOT NULL, What TEXT NOT NULL,
                Before TEXT NOT NULL, After TEXT NOT NULL, Reason TEXT NOT NULL, Letter TEXT NOT NULL DEFAULT '');
            INSERT INTO Decisions (InvoiceId, At, By, What, Before, After, Reason, Letter) VALUES
                ({id}, '2026-03-01 08:00:00', 'Ada', 'corrected purchase order', 'KSF-1', 'KSF-7', '', ''),
                ({id}, '2026-03-02 08:00:00', 'Ada', 'handed over to Mira', '', 'Mira', 'Is this order ours?', ''),
                ({id}, '2026-03-03 08:00:00', 'Mira', 'approved', 'held', 'approved', 'Agreed', '');
            """);
        Assert.Equal(0, await first.Terminate());
        var second = await ServiceUnderTest.Start(first.Data);
        var told = (await second.Get($"history?invoice={id}")).AsArray().Reverse().ToList();
        Assert.Equal(
            ["2026-03-01T08:00:00Z Ada corrected KSF-1 KSF-7 ", "2026-03-02T08:00:00Z Ada handedOver  Mira Is this order ours?", "2026-03-03T08:00:00Z Mira approved held approved Agreed"],
            told.Select(entry => $"{entry!["at"]} {entry["by"]} {entry["act"]} {entry["before"]} {entry["after"]} {entry["reason"]}"));
        Assert.True((bool)(await Verify(second))["isWhole"]!);
        // What was approved then is frozen as it is now, and is posted.
        Assert.Equal(201, (await second.PostAll()).Status);
        Assert.Equal(0, await second.Terminate());
        await using var third = await ServiceUnderTest.Start(first.Data);
        Assert.Equal(4, (await third.Get($"history?invoice={id}")).AsArray().Count);
        Assert.True((bool)(await Verify(third))["isWhole"]!);
    }
}
