using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Versions of a template: nothing is lost, and nobody changes what he has not seen.</summary>
public class TemplateHistoryTests
{
    private static readonly string Vendor = Path.Combine(Repository.Samples, "brinewood-chandlery");
    private const string Name = "brinewood-standard";

    private static JsonObject Template() => JsonNode.Parse(File.ReadAllText(Path.Combine(Vendor, "brinewood.template.json")))!.AsObject();

    private static byte[] Pdf(int number) => File.ReadAllBytes(Path.Combine(Vendor, $"brinewood-chandlery-0{number}.pdf"));

    private static async Task<(int Status, JsonNode Body)> Act(ServiceUnderTest service, string name, string act, JsonObject body, int seen)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"templates/{name}/{act}") { Content = JsonContent.Create(body) };
        request.Headers.Add("If-Match", $"\"{seen}\"");
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    [Fact]
    public async Task An_older_version_becomes_the_current_one_again_and_all_of_them_stay()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Vendor);
        var changed = Template();
        changed["fields"]!["total"]!["where"] = new JsonObject { ["beside"] = "Summe" };
        await service.SaveTemplate(changed.ToJsonString());
        var difference = Assert.Single(await service.All($"templates/{Name}/comparison?from=1&to=2"));
        Assert.Equal(("fields.total.where", "{\"beside\":\"Summe\"}"), ((string?)difference["place"], (string?)difference["after"]));

        var (status, saved) = await Act(service, Name, "return", new() { ["version"] = 1, ["note"] = "They print it as before" }, seen: 2);
        Assert.Equal((200, 3), (status, (int)saved["version"]!));
        Assert.Empty(await service.All($"templates/{Name}/comparison?from=1&to=3"));
        var versions = await service.All($"templates/{Name}/versions");
        Assert.Equal([3, 2, 1], versions.Select(one => (int)one["version"]!));
        Assert.Equal("They print it as before", (string?)versions[0]["note"]);
        Assert.Equal("{\"beside\":\"Summe\"}", (await service.Get($"templates/{Name}?version=2"))["document"]!["fields"]!["total"]!["where"]!.ToJsonString());
    }

    [Fact]
    public async Task A_retired_template_recognises_nothing_until_it_is_brought_back()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Vendor);
        Assert.Equal(200, (await Act(service, Name, "retirement", new() { ["note"] = "Another form now" }, seen: 1)).Status);
        Assert.Equal((409, "already-retired"), Coded(await Act(service, Name, "retirement", [], seen: 2)));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, ("a.pdf", Pdf(1)));
        await service.UntilDone(batch);
        Assert.Equal("unplaced", (string?)(await service.Invoices(batch))[0]["state"]);
        Assert.True((bool)(await service.All("templates"))[0]["isRetired"]!);

        var (_, back) = await Act(service, Name, "comeback", [], seen: 2);
        Assert.Equal(1, (int)back["recaptured"]!);
        await service.UntilDone(batch);
        Assert.Equal("clear", (string?)(await service.Invoices(batch))[0]["state"]);
        Assert.Equal((409, "not-retired"), Coded(await Act(service, Name, "comeback", [], seen: 3)));
    }

    [Fact]
    public async Task A_renamed_template_knows_the_invoices_of_its_old_name()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Vendor);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, ("a.pdf", Pdf(1)));
        await service.UntilDone(batch);
        Assert.Equal((422, "name-faulty"), Coded(await Act(service, Name, "renaming", new() { ["name"] = "Brine Wood" }, seen: 1)));
        Assert.Equal((409, "name-taken"), Coded(await Act(service, Name, "renaming", new() { ["name"] = Name }, seen: 1)));
        Assert.Equal(200, (await Act(service, Name, "renaming", new() { ["name"] = "brinewood-chandlery" }, seen: 1)).Status);

        var renamed = await service.Get("templates/brinewood-chandlery");
        Assert.Equal(("brinewood-chandlery", Name), ((string?)renamed["document"]!["name"], (string?)renamed["formerly"]));
        Assert.Equal((int)(await service.Invoices(batch))[0]["id"]!, (int)renamed["lastInvoice"]!);
        Assert.Equal(Name, (string?)(await service.Get($"invoices/{renamed["lastInvoice"]}"))["template"]);
        var (_, begun) = await service.Post("rehearsals", new JsonObject { ["template"] = renamed["document"]!.ToJsonString() });
        Assert.Equal(1, (int)begun["documents"]!);
        await service.Upload(batch, ("b.pdf", Pdf(2)));
        await service.UntilDone(batch);
        Assert.Equal("brinewood-chandlery", (string?)(await service.Get($"invoices/{(await service.Invoices(batch)).Single(one => (string?)one["file"] == "b.pdf")["id"]}"))["template"]);
    }

    [Fact]
    public async Task Acts_on_a_version_that_is_the_newest_no_more_are_refused_with_who_saved_the_newer()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Vendor);
        var changed = Template();
        changed["fields"]!.AsObject().Remove("dueDate");
        await service.SaveTemplate(changed.ToJsonString());
        foreach (var (act, body) in new (string, JsonObject)[] { ("retirement", []), ("comeback", []), ("renaming", new() { ["name"] = "other" }), ("return", new() { ["version"] = 1 }) })
        {
            var (status, problem) = await Act(service, Name, act, body, seen: 1);
            Assert.Equal((412, "changed-since"), (status, (string?)problem["code"]));
            Assert.Contains($"version 2 was saved by {Environment.UserName}", (string?)problem["detail"], StringComparison.Ordinal);
            Assert.Equal(428, (await service.Post($"templates/{Name}/{act}", body.DeepClone())).Status);
        }
        Assert.Equal((404, "not-there"), Coded(await Act(service, Name, "return", new() { ["version"] = 9 }, seen: 2)));
        Assert.Equal((422, "note-faulty"), Coded(await Act(service, Name, "retirement", new() { ["note"] = new string('x', 501) }, seen: 2)));
        Assert.Equal(2, (await service.All($"templates/{Name}/versions")).Count);
    }

    [Fact]
    public async Task A_draft_is_kept_as_it_is_typed_and_two_people_see_each_others_changes()
    {
        await using var service = await ServiceUnderTest.Start();
        Assert.Equal(404, await Status(HttpMethod.Get, null, null));
        Assert.Equal(200, await Keep("{ \"vendor\": \"Skerrow Sail Loft\", half typed", null));
        Assert.Equal(428, await Keep("unseen", null));
        Assert.Equal(200, await Keep("{ \"vendor\": \"Skerrow Sail Loft\" }", 1));
        Assert.Equal(412, await Keep("of the first revision", 1));
        var draft = await service.Get("template-drafts/invoice-7");
        Assert.Equal(("{ \"vendor\": \"Skerrow Sail Loft\" }", 2, 7), ((string?)draft["template"], (int)draft["revision"]!, (int)draft["invoice"]!));
        var listed = Assert.Single(await service.All("template-drafts"));
        Assert.Equal(("invoice-7", "Skerrow Sail Loft"), ((string?)listed["key"], (string?)listed["vendor"]));
        Assert.Equal(204, await Status(HttpMethod.Delete, null, null));
        Assert.Equal(412, await Keep("of a draft that is gone", 2));
        Assert.Empty(await service.All("template-drafts"));

        Task<int> Keep(string text, int? seen) => Status(HttpMethod.Put, new JsonObject { ["template"] = text, ["invoice"] = 7 }, seen);

        async Task<int> Status(HttpMethod method, JsonObject? body, int? seen)
        {
            using var request = new HttpRequestMessage(method, "template-drafts/invoice-7") { Content = body is null ? null : JsonContent.Create(body) };
            if (seen is { } revision)
                request.Headers.Add("If-Match", $"\"{revision}\"");
            using var answer = await service.Http.SendAsync(request);
            return (int)answer.StatusCode;
        }
    }

    [Fact]
    public async Task A_template_whose_vendor_changes_the_layout_says_so_with_the_invoice_that_shows_it()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplate("""
            {
              "name": "slipway", "vendor": "Slipway Paints", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Slipway Paints"] },
              "fields": {
                "invoiceNumber": { "where": { "beside": "Invoice" } }, "invoiceDate": { "where": { "beside": "Date" } },
                "dueDate": { "where": { "beside": "Pay by" } }, "total": { "where": { "beside": "Total" } }
              },
              "blocks": []
            }
            """);
        var batch = await service.OpenBatch("November");
        foreach (var number in Enumerable.Range(1, 13))
        {
            (double, double, string)[] due = number <= 10 ? [(50, 660, "Pay by 01.12.2026")] : [(50, 660, "Payable within 14 days")];
            await service.Upload(batch, ($"{number:00}.pdf", TinyPdf.OnePage(TinyPdf.Text(
                [(50, 760, "Slipway Paints"), (50, 700, $"Invoice SP-{number}"), (50, 680, "Date 01.11.2026"), .. due, (50, 600, "Total 10.00")]))));
        }
        await service.UntilDone(batch);
        var sign = Assert.Single(await service.All("templates/slipway/drift"), one => (string?)one["about"] == "dueDate");
        Assert.Equal("The due date was found on 10 of 10 invoices; on the last 3 it is not.", (string?)sign["says"]);
        Assert.Equal("11.pdf", (string?)sign["file"]);
        Assert.Contains(await service.All($"batches/{batch}/drift"), one => (string?)one["about"] == "dueDate");
        Assert.NotEmpty((await service.All("templates"))[0]["drift"]!.AsArray());
    }

    [Fact]
    public async Task An_invoice_that_is_being_captured_while_its_template_is_saved_is_captured_by_it()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        foreach (var round in Enumerable.Range(1, 20))
        {
            await service.Upload(batch, ($"{round}.pdf", TinyPdf.OnePage(TinyPdf.Text((50, 760, $"Slipway Yard {round} Ltd"), (50, 700, "Invoice SP-1"), (50, 600, "Total 10.00")))));
            await service.SaveTemplate($$"""
                {
                  "name": "slipway-{{round}}", "vendor": "Slipway", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
                  "recognise": { "must": ["Slipway Yard {{round}} Ltd"] }, "fields": { "invoiceNumber": { "where": { "beside": "Invoice" } }, "total": { "where": { "beside": "Total" } } }, "blocks": []
                }
                """);
            await service.UntilDone(batch);
        }
        Assert.All(await service.Invoices(batch), invoice => Assert.Equal("held", (string?)invoice["state"]));
    }

    private static (int, string?) Coded((int Status, JsonNode Body) answer) => (answer.Status, (string?)answer.Body["code"]);
}
