using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Sums of approved and posted invoices, each with the rows behind it.</summary>
public class SumTests
{
    private const string Rules = """
        { "rules": [ { "of": "lines", "when": "description contains 'line'", "account": "6100", "shares": [{ "part": 1, "costCentre": "410" }, { "part": 2, "costCentre": "420" }] },
                     { "of": "the rest", "when": "quantity > 0", "account": "6200" } ] }
        """;

    private static decimal Amount(JsonNode? node) => decimal.Parse((string)node!["amount"]!, CultureInfo.InvariantCulture);

    [Fact]
    public async Task Sums_come_to_what_their_rows_and_the_posting_run_come_to()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, new[] { "brinewood-chandlery", "halvard-marine-diesel" }.SelectMany(vendor => new[] { 1, 2, 3 }.Select(at => Path.Combine(Repository.Samples, vendor, $"{vendor}-{at:00}.pdf")))
            .Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        using var saved = await service.Http.PostAsync(new Uri("coding-rules", UriKind.Relative), new StringContent(Rules));
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        await service.Http.GetStringAsync("coding-rules/events");
        Assert.Empty((await service.Get("sums"))["groups"]!.AsArray());
        foreach (var one in await service.Invoices(batch))
            Assert.Equal(200, (await service.Decide(one["id"], "approval")).Status);

        // By vendor they are what the run comes to; by code what the lines come to.
        var run = (await service.Post("posting-runs/rehearsal", new JsonObject { ["allBatches"] = true })).Body;
        var byVendor = await service.Get("sums?by=vendor");
        foreach (var total in byVendor["totals"]!.AsArray())
            Assert.Equal(decimal.Parse((string)run["sums"]![(string)total!["currency"]!]!, CultureInfo.InvariantCulture), Amount(total));
        Assert.Equal(["Brinewood Chandlery", "Halvard Marine Diesel Ltd"], byVendor["groups"]!.AsArray().Select(group => (string?)group!["key"]));
        var lines = new List<decimal>();
        foreach (var one in await service.Invoices(batch))
            lines.AddRange((await service.Get($"invoices/{one["id"]}"))["lines"]!.AsArray().Select(line => decimal.Parse((string)line!["cells"]!["amount"]!["value"]!, CultureInfo.InvariantCulture)));
        foreach (var by in new[] { "account", "costCentre", "project", "taxCode" })
        {
            var sums = await service.Get($"sums?by={by}");
            Assert.Equal(lines.Sum(), sums["totals"]!.AsArray().Sum(Amount));
            foreach (var group in sums["groups"]!.AsArray())
            {
                var parts = (await service.Get($"sums/parts?by={by}&key={group!["key"]}&currency={group["currency"]}")).AsArray();
                Assert.Equal(Amount(group), parts.Sum(Amount));
                Assert.Equal((int)group["invoices"]!, parts.Select(part => (int)part!["invoice"]!).Distinct().Count());
            }
        }
        var accounts = (await service.Get("sums?by=account"))["groups"]!.AsArray().Select(group => (string)group!["key"]!).ToHashSet();
        Assert.Superset(new HashSet<string> { "6200" }, accounts);

        // Narrowed by state and day; nothing is lost between two halves.
        Assert.Empty((await service.Get("sums?by=vendor&state=posted"))["groups"]!.AsArray());
        var (early, late) = (await service.Get("sums?by=month&to=2026-06-30"), await service.Get("sums?by=month&from=2026-07-01"));
        Assert.Equal(byVendor["totals"]!.AsArray().Sum(Amount), early["totals"]!.AsArray().Concat(late["totals"]!.AsArray()).Sum(Amount));
        Assert.All(early["groups"]!.AsArray(), group => Assert.True(string.CompareOrdinal((string?)group!["key"], "2026-06") <= 0));
        var table = await service.Http.GetStringAsync("sums/table?by=vendor");
        Assert.StartsWith("vendor,invoices,amount,currency\r\nBrinewood Chandlery,3,", table, StringComparison.Ordinal);
        foreach (var (path, code) in new[] { ("sums?by=colour", "sum-unknown"), ("sums?state=held", "state-unknown"), ("sums?batch=99", "not-there"), ("sums/table?as=pdf", "form-unknown") })
        {
            using var answer = await service.Http.GetAsync(new Uri(path, UriKind.Relative));
            Assert.Equal(code, (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["code"]);
        }
    }
}
