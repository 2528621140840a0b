using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Vendors are records, and what they say holds the invoices that say otherwise.</summary>
public class VendorTests
{
    private const string Brinewood = "brinewood-chandlery";
    private const string OwnAccount = "DE10 0000 0000 0041 8226 00";
    private const string OtherAccount = "GB83 HVMD 0000 0061 2084 10";

    private static async Task<(int Status, JsonNode Body)> Act(ServiceUnderTest service, HttpMethod method, string path, JsonObject body, int? revision = null, string? person = null)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        if (revision is not null)
            request.Headers.Add("If-Match", $"\"{revision}\"");
        if (person is not null)
            request.Headers.Add("Daxlin-Person", Uri.EscapeDataString(person));
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static async Task<JsonNode> Vendor(ServiceUnderTest service, string search) =>
        await service.Get($"vendors/{(await service.Get($"vendors?search={Uri.EscapeDataString(search)}")).AsArray().Single()!["id"]}");

    private static async Task<(int Status, JsonNode Body)> OfVendor(ServiceUnderTest service, string search, string act, JsonObject body, string? person = null)
    {
        var vendor = await Vendor(service, search);
        return await Act(service, act.Length == 0 ? HttpMethod.Put : HttpMethod.Post, $"vendors/{vendor["id"]}{act}", body, (int)vendor["revision"]!, person);
    }

    private static string[] Codes(JsonNode invoice) => [.. invoice["findings"]!.AsArray().Select(finding => (string)finding!["code"]!)];

    [Fact]
    public async Task Another_account_is_a_stop_that_only_two_persons_lift()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var clear = (await service.Invoices(batch)).First(invoice => (string?)invoice["state"] == "clear");
        // The record says another account than the invoices bear, confirmed by two.
        var (status, vendor) = await OfVendor(service, "Brinewood", "/accounts", new() { ["iban"] = OtherAccount, ["reason"] = "Asked by telephone" }, "Mira");
        Assert.Equal(200, status);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{clear["id"]}"))["state"]);
        var (same, sentence) = await OfVendor(service, "Brinewood", "/accounts/confirmation", new() { ["iban"] = OtherAccount, ["reason"] = "Asked by telephone" }, "mira");
        Assert.Equal(409, same);
        Assert.Equal("second-person-needed", (string?)sentence["code"]);
        var (second, confirmed) = await OfVendor(service, "Brinewood", "/accounts/confirmation", new() { ["iban"] = OtherAccount, ["reason"] = "Seen on the contract" }, "Tomás Ø");
        Assert.Equal(200, second);
        Assert.Equal("Tomás Ø", (string?)confirmed["accounts"]![0]!["confirmedBy"]);
        Assert.True((int)confirmed["movedInvoices"]! > 0);

        var held = await service.Get($"invoices/{clear["id"]}");
        Assert.Equal(["account-changed"], Codes(held));
        Assert.Contains(OwnAccount, (string?)held["findings"]![0]!["message"], StringComparison.Ordinal);
        // Neither letting it pass nor any reason lifts it.
        var finding = held["findings"]![0]!;
        var (passing, _) = await service.Decide(clear["id"], "corrections", new() { ["act"] = "accept", ["code"] = "account-changed", ["message"] = (string?)finding["message"], ["reason"] = "It is right" });
        Assert.Equal(422, passing);
        var (despite, refused) = await service.Decide(clear["id"], "approval", new() { ["despite"] = "The vendor wrote so" });
        Assert.Equal((409, "second-person-needed"), (despite, (string?)refused["code"]));

        await OfVendor(service, "Brinewood", "/accounts", new() { ["iban"] = OwnAccount, ["reason"] = "A second account, by letter" }, "Tomás Ø");
        await OfVendor(service, "Brinewood", "/accounts/confirmation", new() { ["iban"] = OwnAccount, ["reason"] = "Asked by telephone" }, "Mira");
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{clear["id"]}"))["state"]);
        // One person alone ends accounts, and by that no other comes to count.
        foreach (var iban in new[] { OtherAccount, OwnAccount })
            Assert.Equal(200, (await OfVendor(service, "Brinewood", "/accounts/end", new() { ["iban"] = iban, ["reason"] = "Closed by the bank" }, "Mira")).Status);
        Assert.Contains("all accounts of its record were ended", (string?)(await service.Get($"invoices/{clear["id"]}"))["findings"]![0]!["message"], StringComparison.Ordinal);
        await OfVendor(service, "Brinewood", "/accounts", new() { ["iban"] = OwnAccount, ["reason"] = "It was not closed" }, "Mira");
        await OfVendor(service, "Brinewood", "/accounts/confirmation", new() { ["iban"] = OwnAccount, ["reason"] = "Asked by telephone" }, "Tomás Ø");
        var (approved, _) = await service.Decide(clear["id"], "approval");
        Assert.Equal(200, approved);
    }

    [Fact]
    public async Task An_account_that_no_invoice_of_the_vendor_bore_before_holds_without_any_record()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var two = (await service.Invoices(batch)).Where(invoice => (string?)invoice["state"] == "clear").Take(2).ToList();
        var (status, changed) = await service.Decide(two[1]["id"], "corrections", new() { ["act"] = "enter", ["of"] = "iban", ["text"] = OtherAccount });
        Assert.Equal(200, status);
        Assert.Equal(["account-changed"], Codes(changed));
        Assert.Contains("its invoices before bear DE10", (string?)changed["findings"]![0]!["message"], StringComparison.Ordinal);
        var seen = (await Vendor(service, "Brinewood"))["accountsSeen"]!.AsArray();
        Assert.Contains(seen, one => (string?)one!["iban"] == OtherAccount && (int)one["invoices"]! == 1);
        var (_, back) = await service.Decide(two[1]["id"], "corrections", new() { ["act"] = "undo" });
        Assert.Equal("clear", (string?)back["state"]);
    }

    [Fact]
    public async Task What_the_record_says_holds_open_invoices_and_may_pass_with_what_was_seen()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var clear = (await service.Invoices(batch)).First(invoice => (string?)invoice["state"] == "clear");
        var (status, vendor) = await OfVendor(
            service, "Brinewood", "", new() { ["name"] = "Brinewood Chandlery", ["currency"] = "SEK", ["terms"] = new JsonObject { ["days"] = 3, ["fromMonthEnd"] = false }, ["ledgerAccount"] = "6300" }, "Mira");
        Assert.Equal(200, status);
        Assert.Equal("6300", (string?)vendor["ledgerAccount"]);
        var held = await service.Get($"invoices/{clear["id"]}");
        Assert.Equal("held", (string?)held["state"]);
        Assert.Contains("currency-unusual", Codes(held));
        foreach (var finding in held["findings"]!.AsArray())
        {
            var act = new JsonObject { ["act"] = "accept", ["code"] = (string?)finding!["code"], ["message"] = (string?)finding["message"] };
            if ((string?)finding["passing"] == "forReason")
            {
                Assert.Equal(422, (await service.Decide(clear["id"], "corrections", act.DeepClone().AsObject())).Status);
                act["reason"] = "Billed in euros once";
            }
            Assert.Equal(200, (await service.Decide(clear["id"], "corrections", act)).Status);
        }
        var passed = await service.Get($"invoices/{clear["id"]}");
        Assert.Equal("clear", (string?)passed["state"]);
        Assert.Contains(passed["accepted"]!.AsArray(), one => (string?)one!["code"] == "currency-unusual" && (string?)one["reason"] == "Billed in euros once");
        var (_, undone) = await service.Decide(clear["id"], "corrections", new() { ["act"] = "undo" });
        Assert.Equal("held", (string?)undone["state"]);
        // Two who change one record: the second sees it.
        var seen = await Vendor(service, "Brinewood");
        Assert.Equal(200, (await Act(service, HttpMethod.Put, $"vendors/{seen["id"]}", new() { ["name"] = "Brinewood Chandlery" }, (int)seen["revision"]!)).Status);
        Assert.Equal(412, (await Act(service, HttpMethod.Put, $"vendors/{seen["id"]}", new() { ["name"] = "Brinewood" }, (int)seen["revision"]!)).Status);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{clear["id"]}"))["state"]);
    }

    [Fact]
    public async Task The_same_amount_of_the_same_day_under_another_number_is_held_and_harms_the_first_never()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var first = (await service.Invoices(batch)).First(invoice => (string?)invoice["state"] == "clear");
        var file = Repository.SampleInvoices(Brinewood).Single(one => one.Item1 == (string?)first["file"]);
        var again = await service.OpenBatch("December");
        // The same invoice printed again: other bytes.
        await service.Upload(again, ("again.pdf", [.. file.Item2, (byte)'\n']));
        await service.UntilDone(again);
        var second = (await service.Invoices(again)).Single();
        Assert.Equal(["seen-before"], Codes(await service.Get($"invoices/{second["id"]}")));
        var (status, other) = await service.Decide(second["id"], "corrections", new() { ["act"] = "enter", ["of"] = "invoiceNumber", ["text"] = "BC-99999" });
        Assert.Equal(200, status);
        Assert.Equal(["like-before"], Codes(other));
        Assert.Contains($"as {first["invoiceNumber"]}: invoice {first["id"]} in the batch “November” (clear)", (string?)other["findings"]![0]!["message"], StringComparison.Ordinal);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{first["id"]}"))["state"]);
        // The very same file is told as that.
        await service.Upload(again, file);
        await service.UntilDone(again);
        var same = (await service.Invoices(again)).Single(invoice => (string?)invoice["file"] == file.Item1);
        Assert.Equal(["same-file"], Codes(await service.Get($"invoices/{same["id"]}")));
        var (aside, _) = await service.Decide(same["id"], "set-aside", new() { ["reason"] = $"The same file as invoice {first["id"]}" });
        Assert.Equal(200, aside);
    }

    [Fact]
    public async Task A_year_that_cannot_be_is_held_and_may_pass()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var clear = (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").ToList();
        var (_, misread) = await service.Decide(clear[0]["id"], "corrections", new() { ["act"] = "enter", ["of"] = "invoiceDate", ["text"] = "2062-03-01" });
        var finding = misread["findings"]!.AsArray().Single(one => (string?)one!["code"] == "date-range")!;
        Assert.StartsWith("The invoice is dated 2062-03-01, ", (string?)finding["message"], StringComparison.Ordinal);
        var (_, passed) = await service.Decide(clear[0]["id"], "corrections", new() { ["act"] = "accept", ["code"] = "date-range", ["message"] = (string?)finding["message"] });
        Assert.DoesNotContain(passed["findings"]!.AsArray(), one => (string?)one!["code"] == "date-range");
    }

    [Fact]
    public async Task A_tax_rounded_another_way_than_on_the_approved_invoices_is_held_and_may_pass()
    {
        var (service, batch) = await ServiceUnderTest.StartWith([.. Repository.SampleVendors]);
        await using var running = service;
        // Invoices on which a tax would be another one if it were rounded on each line.
        var telling = new List<(JsonNode Invoice, JsonNode Tax, decimal ByLine)>();
        foreach (var id in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Select(one => one["id"]))
        {
            var invoice = await service.Get($"invoices/{id}");
            // Freight and discount may have been taxed in several ways: such an invoice tells nothing.
            if (invoice["fields"]!["freight"] is not null || invoice["fields"]!["discount"] is not null)
                continue;
            foreach (var tax in invoice["taxes"]!.AsArray())
            {
                decimal Of(JsonNode row, string column) => decimal.Parse((string?)row["cells"]![column]?["value"] ?? "0", System.Globalization.CultureInfo.InvariantCulture);
                var lines = invoice["lines"]!.AsArray().Where(line => Of(line!, "taxRate") == Of(tax!, "rate")).Select(line => Of(line!, "amount")).ToList();
                var byLine = lines.Sum(amount => Math.Round(amount * Of(tax!, "rate") / 100, 2, MidpointRounding.AwayFromZero));
                if (lines.Sum() == Of(tax!, "base") && byLine != Of(tax!, "amount"))
                {
                    telling.Add((invoice, tax!, byLine));
                    break;
                }
            }
        }
        var (first, second) = telling.GroupBy(one => (string?)one.Invoice["vendor"]).Where(group => group.Count() > 1).Select(group => (group.First(), group.Last())).First();
        async Task<JsonNode> Rounded((JsonNode Invoice, JsonNode Tax, decimal ByLine) one)
        {
            decimal Number(JsonNode? value) => decimal.Parse((string)value!["value"]!, System.Globalization.CultureInfo.InvariantCulture);
            var more = one.ByLine - Number(one.Tax["cells"]!["amount"]);
            var now = one.Invoice;
            foreach (var (of, value) in new[] { ($"taxes[{one.Tax["number"]}].amount", one.Tax["cells"]!["amount"]), ("tax", one.Invoice["fields"]!["tax"]), ("total", one.Invoice["fields"]!["total"]) })
            {
                if (value is not null)
                    (_, now) = await service.Decide(one.Invoice["id"], "corrections", new() { ["act"] = "enter", ["of"] = of, ["text"] = (Number(value) + more).ToString(System.Globalization.CultureInfo.InvariantCulture) });
            }
            return now;
        }
        // While nothing of the vendor is approved, either way is right.
        Assert.Equal("clear", (string?)(await Rounded(second))["state"]);
        Assert.Equal(200, (await service.Decide(first.Invoice["id"], "approval")).Status);
        var held = await Rounded(second);
        var finding = held["findings"]!.AsArray().Single(one => (string?)one!["code"] == "tax-rounding-unusual")!;
        Assert.StartsWith("The tax comes out only if it is rounded on each line; on all approved invoices of ", (string?)finding["message"], StringComparison.Ordinal);
        var (_, passed) = await service.Decide(second.Invoice["id"], "corrections", new() { ["act"] = "accept", ["code"] = "tax-rounding-unusual", ["message"] = (string?)finding["message"] });
        Assert.Equal("clear", (string?)passed["state"]);
    }

    [Fact]
    public async Task Another_spelling_makes_two_vendors_one_with_all_their_invoices()
    {
        var (service, batch) = await ServiceUnderTest.StartWith(Brinewood);
        await using var running = service;
        var template = (await File.ReadAllTextAsync(Directory.GetFiles(Path.Combine(Repository.Samples, Brinewood), "*.template.json").Single()))
            .Replace("\"vendor\": \"Brinewood Chandlery\"", "\"vendor\": \"Brinewood Ship Stores\"", StringComparison.Ordinal);
        // From now on the template calls the vendor by another name, so the same invoice is one of another vendor.
        Assert.Equal(201, (await service.SaveTemplate(template)).Status);
        var first = (await service.Invoices(batch)).First(invoice => (string?)invoice["state"] == "clear");
        var again = await service.OpenBatch("December");
        await service.Upload(again, ("again.pdf", [.. Repository.SampleInvoices(Brinewood).Single(one => one.Item1 == (string?)first["file"]).Item2, (byte)'\n']));
        await service.UntilDone(again);
        var second = (await service.Invoices(again)).Single();
        Assert.Equal(["vendor-name-differs"], Codes(await service.Get($"invoices/{second["id"]}")));
        var (status, one) = await OfVendor(service, "Brinewood Ship Stores", "", new() { ["name"] = "Brinewood Ship Stores", ["otherNames"] = new JsonArray("Brinewood Chandlery") });
        Assert.Equal(200, status);
        Assert.Equal(["Brinewood Chandlery"], one["otherNames"]!.AsArray().Select(name => (string)name!));
        Assert.Single(one["templates"]!.AsArray());
        Assert.Single((await service.Get("vendors?search=Brinewood")).AsArray());
        Assert.Equal(["seen-before"], Codes(await service.Get($"invoices/{second["id"]}")));
        // The template needs the name, so it cannot go.
        var (gone, sentence) = await OfVendor(service, "Brinewood", "", new() { ["name"] = "Brinewood" });
        Assert.Equal((409, "name-in-use"), (gone, (string?)sentence["code"]));
    }

    [Fact]
    public async Task A_file_of_vendors_comes_back_as_it_went_and_confirms_no_account()
    {
        await using var service = await ServiceUnderTest.Start();
        async Task<JsonArray> Import(string csv)
        {
            using var answer = await service.Http.PostAsync("vendors/import", new StringContent(csv, Encoding.UTF8, "text/csv"));
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync()) as JsonArray ?? throw new InvalidOperationException(await answer.Content.ReadAsStringAsync());
        }
        var rows = await Import(
            "name,otherNames,taxIds,currency,termsDays,termsFromMonthEnd,ledgerAccount,taxCode,accounts\r\n"
            + $"Brinewood Chandlery,Brinewood Ship Stores | Brinewood Ltd,DE 136 695 976,eur,30,no,=6300,V19,{OwnAccount}\r\n"
            + "\"Skerrow, Sail & Loft\",,,EUR,14,yes,6310,,\r\n"
            + "Faulty Ltd,,DE 136 695 975,,,,,,\r\n");
        Assert.Equal(["added", "added", "refused"], rows.Select(row => (string)row!["outcome"]!));
        Assert.Contains("DE 136 695 975", (string?)rows[2]!["reason"], StringComparison.Ordinal);
        Assert.Equal("waiting", (string?)(await Vendor(service, "Brinewood"))["accounts"]![0]!["state"]);
        var file = await service.Http.GetStringAsync("vendors/export");
        Assert.Contains("'=6300", file, StringComparison.Ordinal);
        Assert.All(await Import(file), row => Assert.Equal("same", (string?)row!["outcome"]));
        Assert.Equal(file, await service.Http.GetStringAsync("vendors/export"));
        using var unknown = await service.Http.PostAsync("vendors/import", new StringContent("name,colour\r\nA,b\r\n", Encoding.UTF8, "text/csv"));
        Assert.Equal("column-unknown", (string?)JsonNode.Parse(await unknown.Content.ReadAsStringAsync())!["code"]);
        // Everything that was taken is told, with both sides.
        var history = (await service.Get($"history?vendor={(await Vendor(service, "Brinewood"))["id"]}")).AsArray();
        Assert.Contains(history, entry => ((string)entry!["after"]!).Contains("terms: 30 days net", StringComparison.Ordinal) && ((string)entry["before"]!).Contains("terms: nothing", StringComparison.Ordinal));
    }
}
