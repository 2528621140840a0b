using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What a batch comes to is added up from its invoices, and held against what the clerk states.</summary>
public class BatchSheetTests
{
    private static async Task<(ServiceUnderTest Service, int Batch)> Started()
    {
        var service = await ServiceUnderTest.StartAfter("two vendors and scrap", async service =>
        {
            await service.SaveTemplates(Repository.Samples);
            var batch = await service.OpenBatch("November");
            foreach (var vendor in new[] { "brinewood-chandlery", "halvard-marine-diesel" })
                await service.Upload(batch, Repository.SampleInvoices(vendor));
            await service.Upload(batch, ("scrap.pdf", "no PDF"u8.ToArray()));
            await service.UntilDone(batch);
        });
        return (service, await service.FirstBatch());
    }

    internal static async Task<(int Status, JsonNode Body)> State(ServiceUnderTest service, int batch, JsonArray totals, int? revision = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, $"batches/{batch}/control-totals") { Content = JsonContent.Create(new JsonObject { ["totals"] = totals }) };
        request.Headers.Add("If-Match", $"\"{revision ?? (int)(await service.Get($"batches/{batch}/sheet"))["revision"]!}\"");
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static decimal Number(JsonNode? node) => decimal.Parse((string)node!, CultureInfo.InvariantCulture);

    [Fact]
    public async Task The_sheet_is_the_sum_of_its_invoices_and_says_what_is_held_and_why()
    {
        var (service, batch) = await Started();
        await using var running = service;
        var invoices = await service.Invoices(batch);
        var sheet = await service.Get($"batches/{batch}/sheet");
        foreach (var total in sheet["controlTotals"]!.AsArray())
        {
            var own = invoices.Where(invoice => (string?)invoice["currency"] == (string?)total!["currency"]).ToList();
            Assert.Equal((own.Count, own.Sum(invoice => Number(invoice["total"]))), ((int)total!["invoices"]!, Number(total["sum"])));
            Assert.Equal("", (string?)total["says"]);
        }
        Assert.Equal(invoices.Count, sheet["states"]!.AsArray().Sum(total => (int)total!["invoices"]!));
        Assert.Equal(sheet["controlTotals"]!.AsArray().Sum(total => Number(total!["sum"])), sheet["vendors"]!.AsArray().Sum(total => Number(total!["sum"])));
        var held = invoices.Where(invoice => (string?)invoice["state"] == "held").ToList();
        Assert.Equal(held.Select(invoice => (int)invoice["id"]!).Order(), sheet["held"]!.AsArray().Select(one => (int)one!["id"]!).Order());
        var codes = new List<string>();
        foreach (var invoice in held)
            codes.AddRange((await service.Get($"invoices/{invoice["id"]}"))["findings"]!.AsArray().Where(finding => (string?)finding!["severity"] == "hold").Select(finding => (string)finding!["code"]!).Distinct());
        Assert.Equal(codes.GroupBy(code => code).Select(group => $"{group.Key} {group.Count()}").Order(), sheet["reasons"]!.AsArray().Select(reason => $"{reason!["code"]} {reason["invoices"]}").Order());
        Assert.Equal("scrap.pdf", (string?)sheet["unreadable"]![0]!["file"]);

        // What a person touches has not gone through by itself any more.
        var clear = invoices.First(invoice => (string?)invoice["state"] == "clear");
        await service.Decide(clear["id"], "corrections", new() { ["act"] = "enter", ["of"] = "purchaseOrder", ["text"] = "KSF-9" });
        var after = await service.Get($"batches/{batch}/sheet");
        int Untouched(JsonNode of) => of["vendors"]!.AsArray().Sum(total => (int)total!["untouched"]!);
        Assert.Equal(Untouched(sheet) - 1, Untouched(after));
        var figures = await service.Get("figures");
        Assert.Equal((invoices.Count, Untouched(after)), ((int)figures["weeks"]![0]!["invoices"]!, (int)figures["weeks"]![0]!["untouched"]!));
        Assert.Equal(DayOfWeek.Monday, DateOnly.Parse((string)figures["weeks"]![0]!["monday"]!, CultureInfo.InvariantCulture).DayOfWeek);
        Assert.Equal(invoices.Sum(invoice => Number(invoice["total"])), figures["months"]!.AsArray().Sum(month => Number(month!["sum"])));
        Assert.Empty((await service.Get("figures?from=2200-01-01"))["weeks"]!.AsArray());
    }

    [Fact]
    public async Task Stated_totals_that_do_not_agree_are_told_in_figures_and_kept_on_record()
    {
        var (service, batch) = await Started();
        await using var running = service;
        var sum = Number((await service.Get($"batches/{batch}/sheet"))["controlTotals"]!.AsArray().Single(total => (string?)total!["currency"] == "EUR")!["sum"]);
        var (status, sheet) = await State(service, batch, [
            new JsonObject { ["currency"] = "eur", ["invoices"] = 6, ["sum"] = (sum + 36).ToString(CultureInfo.InvariantCulture) },
            new JsonObject { ["currency"] = "SEK", ["invoices"] = 1 },
        ]);
        Assert.Equal(200, status);
        var says = sheet["controlTotals"]!.AsArray().ToDictionary(total => (string)total!["currency"]!, total => (string)total!["says"]!);
        Assert.Equal($"{(sum + 36).ToString("N2", CultureInfo.InvariantCulture)} EUR were stated, the invoices come to {sum.ToString("N2", CultureInfo.InvariantCulture)} EUR (36.00 EUR less).", says["EUR"]);
        Assert.Equal("1 invoice in SEK was stated, 0 captured (1 less).", says["SEK"]);
        Assert.Equal("", says["GBP"]);
        Assert.Contains("36.00 EUR less", await service.Http.GetStringAsync($"batches/{batch}/sheet/printable"), StringComparison.Ordinal);
        // Set aside, an invoice counts no more.
        var invoice = (await service.Invoices(batch)).First(one => (string?)one["currency"] == "EUR");
        await service.Decide(invoice["id"], "set-aside", new() { ["reason"] = "Not for this month" });
        Assert.Contains("6 invoices in EUR were stated, 5 captured (1 less)", (string?)(await service.Get($"batches/{batch}/sheet"))["controlTotals"]!.AsArray().Single(total => (string?)total!["currency"] == "EUR")!["says"], StringComparison.Ordinal);

        Assert.Equal(412, (await State(service, batch, [], revision: 1)).Status);
        foreach (var faulty in new[] { new JsonObject { ["currency"] = "EURO" }, new JsonObject { ["currency"] = "EUR", ["sum"] = "1.204,50" }, new JsonObject { ["currency"] = "EUR", ["invoices"] = -1 } })
            Assert.Equal(422, (await State(service, batch, [faulty])).Status);
        Assert.Equal(200, (await State(service, batch, [])).Status);
        var told = (await service.Get("history?act=totalsStated")).AsArray();
        Assert.Equal(2, told.Count);
        Assert.StartsWith("6 invoices over ", (string?)told[0]!["before"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_batch_that_does_not_come_to_what_was_stated_is_posted_only_for_a_reason()
    {
        var (service, batch) = await Started();
        await using var running = service;
        var clear = (await service.Invoices(batch)).First(one => (string?)one["state"] == "clear");
        await service.Decide(clear["id"], "approval");
        await State(service, batch, [new JsonObject { ["currency"] = "SEK", ["invoices"] = 1 }]);
        foreach (var request in new JsonObject[] { new() { ["batch"] = batch }, new() { ["allBatches"] = true }, new() { ["batch"] = batch, ["despite"] = "…" } })
        {
            var (status, problem) = await service.Post("posting-runs", request);
            Assert.Equal((409, "totals-differ"), (status, (string?)problem["code"]));
            Assert.Contains("“November”: 1 invoice in SEK was stated, 0 captured (1 less).", (string?)problem["detail"], StringComparison.Ordinal);
        }
        Assert.Equal("approved", (string?)(await service.Get($"invoices/{clear["id"]}"))["state"]);
        Assert.Equal(201, (await service.Post("posting-runs", new JsonObject { ["batch"] = batch, ["despite"] = "The cover sheet was of October" })).Status);
        var told = Assert.Single((await service.Get("history?act=posted")).AsArray(), entry => ((string)entry!["reason"]!).Length > 0)!;
        Assert.Equal("The cover sheet was of October (“November”: 1 invoice in SEK was stated, 0 captured (1 less).)", (string?)told["reason"]);
        // Stated as it is, nothing is asked.
        await State(service, batch, []);
        var other = (await service.Invoices(batch)).First(one => (string?)one["state"] == "clear");
        await service.Decide(other["id"], "approval");
        Assert.Equal(201, (await service.PostAll()).Status);
    }

    [Fact]
    public async Task A_name_cannot_put_markup_into_the_page_to_print()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("<script>alert(1)</script>");
        var page = await service.Http.GetStringAsync($"batches/{batch}/sheet/printable");
        Assert.DoesNotContain("<script", page, StringComparison.Ordinal);
        Assert.Contains("&lt;script&gt;", page, StringComparison.Ordinal);
    }
}
