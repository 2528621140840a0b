using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Electronic invoices through the service: beside the print they hold what differs, alone they are invoices without a template.</summary>
public class ElectronicTests
{
    private static async Task<(string Name, byte[] Bytes)> Sample(string name) => (name, await File.ReadAllBytesAsync(Repository.Path(Path.Combine("docs", "electronic", name))));

    private static List<string> Messages(JsonNode invoice) => [.. invoice["findings"]!.AsArray().Select(one => (string)one!["message"]!)];

    private static JsonObject Enter(string name, string text) => new() { ["act"] = "enter", ["of"] = name, ["text"] = text };

    [Fact]
    public async Task What_the_electronic_invoice_states_otherwise_holds_the_invoice_also_when_it_was_corrected()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, await Sample("skerrow-carrying.pdf"), await Sample("skerrow-carrying-otherwise.pdf"));
        await service.UntilDone(batch);
        var invoices = await service.Invoices(batch);
        var alike = await service.Get($"invoices/{invoices.Single(one => (string?)one["state"] == "clear")["id"]}");
        Assert.Matches("^The electronic invoice invoice.xml \\(UBL\\) states 2\\d of these figures, all alike.$", (string)alike["electronic"]![0]!["says"]!);
        var id = invoices.Single(one => (string?)one["state"] == "held")["id"];
        var other = await service.Get($"invoices/{id}");
        Assert.Equal("Row 2, quantity: the electronic invoice invoice.xml states 47; the page states 46 (1 less).", Messages(other)[0]);
        Assert.All(other["findings"]!.AsArray(), one => Assert.Equal(("electronic-differs", "tie", "forReason"), ((string?)one!["code"], (string?)one["origin"], (string?)one["passing"])));
        var stated = other["electronic"]![0]!["lines"]![1]!.AsArray().Single(one => (string?)one!["name"] == "quantity")!;
        Assert.Equal("47", (string?)stated["value"]);

        // A person's value is held against it as the captured one was; taken back, all is as before.
        var (_, corrected) = await service.Decide(id, "corrections", Enter("lines[2].quantity", "47"));
        Assert.DoesNotContain(Messages(corrected), message => message.StartsWith("Row 2, quantity", StringComparison.Ordinal));
        Assert.Contains("Line 2: 47 × 343.44 EUR comes to 16,141.68 EUR; the invoice states 15,798.24 EUR (343.44 EUR less).", Messages(corrected));
        var (_, worse) = await service.Decide(id, "corrections", Enter("invoiceNumber", "26/1"));
        Assert.Contains(
            "The electronic invoice invoice.xml is number 26/2425 over 38,687.11 EUR; the page says 26/1. One of the two is not meant for this invoice.", Messages(worse));
        await service.Decide(id, "corrections", new JsonObject { ["act"] = "undo" });
        var (_, back) = await service.Decide(id, "corrections", new JsonObject { ["act"] = "undo" });
        Assert.Equal(Messages(other), Messages(back));
        Assert.Equal(409, (await service.Decide(id, "approval")).Status);
        var (status, approved) = await service.Decide(id, "approval", new JsonObject { ["despite"] = "The vendor confirmed 46 by telephone." });
        Assert.Equal((200, "approved"), (status, (string?)approved["state"]));
        // Capturing again finds the same of the other one.
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{alike["id"]}"))["state"]);
    }

    [Fact]
    public async Task A_plain_electronic_invoice_is_captured_corrected_coded_and_posted_without_a_template()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        var (name, bytes) = await Sample("corrigan-rope-walk.xml");
        await service.Upload(batch, (name, bytes), ("prices.xml", "<prices/>"u8.ToArray()), ("cut.xml", bytes[..900]));
        var done = await service.UntilDone(batch);
        Assert.Equal(2, (int)done["unreadable"]!);
        var invoice = await service.Get($"invoices/{Assert.Single(await service.Invoices(batch))["id"]}");
        Assert.Equal(
            ("clear", "electronic invoice", "Corrigan Rope Walk", "CRW-4404", "11563.46", 6),
            ((string?)invoice["state"], (string?)invoice["template"], (string?)invoice["vendor"], (string?)invoice["fields"]!["invoiceNumber"]!["value"], (string?)invoice["fields"]!["total"]!["value"], invoice["lines"]!.AsArray().Count));
        var id = invoice["id"];

        // It is shown on pages of its own, and every value stands on them where it is said to.
        var pages = (await service.Get($"documents/{invoice["document"]!["sha256"]}/pages")).AsArray();
        Assert.Equal((int)invoice["pages"]!, pages.Count);
        var total = invoice["fields"]!["total"]!;
        Assert.Contains(pages[(int)total["page"]! - 1]!["words"]!.AsArray(), word => (string?)word!["text"] == "11563.46" && word["box"]!.ToJsonString() == total["box"]!.ToJsonString());
        using var document = await service.Http.GetAsync(new Uri($"documents/{invoice["document"]!["sha256"]}", UriKind.Relative));
        Assert.Equal(("application/xml", "sandbox; default-src 'none'"), (document.Content.Headers.ContentType!.MediaType, document.Headers.GetValues("Content-Security-Policy").Single()));
        Assert.Equal(bytes, await document.Content.ReadAsByteArrayAsync());

        Assert.Equal("electronic", (string?)(await service.Decide(id, "template", new JsonObject { ["template"] = "any" })).Body["code"]);
        var (_, held) = await service.Decide(id, "corrections", Enter("lines[1].amount", "1071.30"));
        Assert.Equal("held", (string?)held["state"]);
        var proposals = await service.Get($"invoices/{id}/proposals");
        Assert.Contains("1071.20", proposals.ToJsonString(), StringComparison.Ordinal);
        var (_, mended) = await service.Decide(id, "corrections", new JsonObject { ["act"] = "undo" });
        Assert.Equal("clear", (string?)mended["state"]);
        Assert.Equal(200, (await service.Decide(id, "approval")).Status);
        var (status, run) = await service.PostAll();
        Assert.Equal((201, 1), (status, (int)run["number"]!));

        // The same number on paper is the same invoice, and another file of it, too.
        var again = await service.OpenBatch("December");
        await service.Upload(again, ("again.xml", [.. bytes, .. "<!-- sent again -->"u8]));
        await service.UntilDone(again);
        var twice = await service.Get($"invoices/{Assert.Single(await service.Invoices(again))["id"]}");
        Assert.Equal(("held", "seen-before"), ((string?)twice["state"], (string?)twice["findings"]![0]!["code"]));
    }
}
