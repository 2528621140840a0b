using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What is held is found over all batches, in the order that a clerk wants, and goes back to the vendor or to a colleague.</summary>
public class ReviewTests
{
    private static Task<ServiceUnderTest> Started() => ServiceUnderTest.StartAfter("a batch of each vendor", async service =>
    {
        await service.SaveTemplates(Repository.Samples);
        foreach (var vendor in Repository.SampleVendors)
        {
            // A batch for each vendor, so that the queue has several.
            var batch = await service.OpenBatch(vendor);
            await service.Upload(batch, Repository.SampleInvoices(vendor));
            await service.UntilDone(batch);
        }
    });

    [Theory]
    [InlineData("clear", "due")]
    [InlineData("clear", "amount")]
    [InlineData("clear", "vendor")]
    [InlineData("clear", "age")]
    [InlineData("held", "due")]
    public async Task The_queue_comes_part_by_part_in_its_order_with_each_invoice_once(string state, string order)
    {
        await using var service = await Started();
        var whole = (await service.Get($"review?state={state}&order={order}&limit=1000")).AsArray().Select(one => one!).ToList();
        Assert.Equal(whole.Count, (await service.All("batches")).Sum(batch => (int)batch["invoices"]![state]!));
        Assert.Equal(
            whole.Select(one => (int)one["id"]!), (await service.All($"review?state={state}&order={order}&limit=3")).Select(one => (int)one["id"]!));
        Comparison<JsonNode> wanted = order switch
        {
            "due" => (a, b) => string.CompareOrdinal(Due(a), Due(b)),
            "amount" => (a, b) => Total(b).CompareTo(Total(a)),
            "vendor" => (a, b) => string.CompareOrdinal((string?)a["vendor"], (string?)b["vendor"]),
            _ => (a, b) => ((int)a["id"]!).CompareTo((int)b["id"]!),
        };
        Assert.All(whole.Zip(whole.Skip(1)), pair => Assert.True(wanted(pair.First, pair.Second) <= 0, $"{pair.First} stands before {pair.Second}"));
    }

    private static string Due(JsonNode invoice) => (string)invoice["dueDate"]! is { Length: > 0 } due ? due : "9999-12-31";

    private static decimal Total(JsonNode invoice) => decimal.Parse((string)invoice["total"]!, System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public async Task A_queue_is_narrowed_and_what_is_no_queue_is_refused()
    {
        await using var service = await Started();
        var held = (await service.Get("review")).AsArray();
        Assert.Equal(4, held.Count);
        var one = held[1]!;
        foreach (var search in new[] { (string)one["invoiceNumber"]!, ((string)one["vendor"]!).ToUpperInvariant(), (string)one["total"]! })
            Assert.Contains((await service.Get($"review?search={Uri.EscapeDataString(search)}")).AsArray(), found => (int)found!["id"]! == (int)one["id"]!);
        Assert.Empty((await service.Get("review?search=%25_%25")).AsArray());
        var (vendor, word) = ((string)one["vendor"]!, ((string)one["vendor"]!).Split(' ')[0]);
        async Task<int> Found(string search) => (await service.Get($"review?{search}")).AsArray().Count(found => (string?)found!["vendor"] == vendor);
        Assert.True(await Found($"search={word}&matchCase=true&wholeWords=true") > 0);
        Assert.True(await Found($"search={word.ToUpperInvariant()}&wholeWords=true") > 0);
        Assert.Equal(0, await Found($"search={word.ToUpperInvariant()}&matchCase=true"));
        Assert.Equal(0, await Found($"search={word.ToUpperInvariant()}&matchCase=true&wholeWords=true"));
        Assert.Equal(0, await Found($"search={word[..^1]}&wholeWords=true"));
        Assert.True(await Found($"search={Uri.EscapeDataString((string)one["invoiceNumber"]!)}&wholeWords=true") > 0);
        Assert.All((await service.Get($"review?vendor={Uri.EscapeDataString((string)one["vendor"]!)}")).AsArray(), found => Assert.Equal((string?)one["vendor"], (string?)found!["vendor"]));
        foreach (var (query, code) in new[] { ("state=held,clear", "state-unknown"), ("state=1", "state-unknown"), ("order=mood", "order-unknown") })
        {
            using var answer = await service.Http.GetAsync($"review?{query}");
            Assert.Equal((422, code), ((int)answer.StatusCode, (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["code"]));
        }
    }

    [Fact]
    public async Task An_invoice_goes_to_a_colleague_and_back_to_its_vendor_with_its_figures()
    {
        await using var service = await Started();
        var held = (await service.Get("review")).AsArray()[0]!;
        var (_, handed) = await service.Decide(held["id"], "hand-over", new JsonObject { ["to"] = "Mira", ["note"] = "Is this price agreed?" });
        Assert.Equal("Mira", (string?)handed["handedTo"]);
        Assert.Equal((int)held["id"]!, (int)Assert.Single((await service.Get("review?handedTo=Mira")).AsArray())!["id"]!);

        var letter = (string)(await service.Get($"invoices/{held["id"]}/letter?reason=The%20price%20is%20not%20agreed"))["text"]!;
        Assert.Contains((string)held["invoiceNumber"]!, letter, StringComparison.Ordinal);
        Assert.Contains((string)held["firstFinding"]!, letter, StringComparison.Ordinal);
        var (refused, problem) = await service.Decide(held["id"], "return", new JsonObject { ["reason"] = "..." });
        Assert.Equal((422, "reason-missing"), (refused, (string?)problem["code"]));
        var (status, returned) = await service.Decide(held["id"], "return", new JsonObject { ["reason"] = "The price is not agreed", ["letter"] = letter });
        Assert.Equal((200, "returned"), (status, (string?)returned["state"]));
        Assert.Equal(["handed over to Mira", "returned to the vendor"], returned["decisions"]!.AsArray().Select(one => (string)one!["what"]!));
        Assert.Equal(letter, (string?)returned["decisions"]![1]!["letter"]);
        Assert.DoesNotContain((await service.Get("review")).AsArray(), one => (int)one!["id"]! == (int)held["id"]!);
        foreach (var (act, body) in new (string, JsonObject)[]
        {
            ("hand-over", new() { ["to"] = "Ole" }), ("return", new() { ["reason"] = "The price is wrong" }), ("corrections", new() { ["act"] = "enter", ["of"] = "total", ["text"] = "1.00" }),
        })
        {
            var (again, told) = await service.Decide(held["id"], act, body);
            Assert.Equal((409, "already-decided"), (again, (string?)told["code"]));
        }
    }
}
