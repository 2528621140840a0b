using System.Text.Json.Nodes;
using Daxlin.Testing;
using UglyToad.PdfPig.Writer;

namespace Daxlin.Service.Tests;

/// <summary>A person says which template an invoice is for; and nothing that a person said is lost when its file is captured otherwise.</summary>
public class TemplateChoiceTests
{
    private static string Sample(string vendor, int number) => Path.Combine(Repository.Samples, vendor, $"{vendor}-{number:00}.pdf");

    private static async Task<(ServiceUnderTest Service, int Batch)> Started(params (string Name, byte[] Bytes)[] files)
    {
        var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, files);
        await service.UntilDone(batch);
        return (service, batch);
    }

    /// <summary>What was captured, without who did what when.</summary>
    private static string Captured(JsonNode invoice) => string.Join('\n', new[] { "state", "template", "vendor", "fields", "lines", "taxes", "findings" }.Select(key => invoice[key]!.ToJsonString()));

    private static Task<(int Status, JsonNode Body)> Choose(ServiceUnderTest service, JsonNode? id, string template) =>
        service.Decide(id, "template", new JsonObject { ["template"] = template });

    [Fact]
    public async Task A_chosen_template_captures_at_once_and_whenever_the_file_is_captured_until_the_cues_are_to_say_it_again()
    {
        var (service, batch) = await Started(("one.pdf", await File.ReadAllBytesAsync(Sample("port-ellery-galley", 1))));
        await using var running = service;
        var id = (await service.Invoices(batch))[0]!["id"];
        var before = await service.Get($"invoices/{id}");
        var own = (string)before["template"]!;

        var (status, other) = await Choose(service, id, "skerrow-standard");
        Assert.Equal((200, "skerrow-standard", "held"), (status, (string?)other["template"], (string?)other["state"]));
        Assert.Contains(other["findings"]!.AsArray(), one => (string?)one!["message"] == $"A person chose the template skerrow-standard; by its cues the template {own} is for this invoice.");
        Assert.Contains(other["decisions"]!.AsArray(), one => (string?)one!["what"] == "chose the template skerrow-standard" && (string?)one["before"] == own);
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        Assert.Equal(Captured(other), Captured(await service.Get($"invoices/{id}")));

        // What is entered outlives the choice, also of a field that only one of the templates has.
        var (_, entered) = await service.Decide(id, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "invoiceNumber", ["text"] = "PE-77" });
        Assert.Equal("PE-77", (string?)entered["fields"]!["invoiceNumber"]!["value"]);
        var (_, back) = await Choose(service, id, "");
        Assert.Equal((own, "PE-77"), ((string?)back["template"], (string?)back["fields"]!["invoiceNumber"]!["value"]));
        Assert.Equal((string?)before["fields"]!["invoiceNumber"]!["value"], (string?)back["entered"]!["invoiceNumber"]!["captured"]);
        var (_, undone) = await service.Decide(id, "corrections", new JsonObject { ["act"] = "undo" });
        Assert.Equal(Captured(before), Captured(undone));
    }

    [Fact]
    public async Task A_choice_is_refused_in_a_sentence_where_there_is_none_and_bound_to_what_was_seen()
    {
        var (service, batch) = await Started(("one.pdf", await File.ReadAllBytesAsync(Sample("port-ellery-galley", 1))));
        await using var running = service;
        var one = (await service.Invoices(batch))[0]!;
        var (status, problem) = await Choose(service, one["id"], "heron");
        Assert.Equal((422, "There is no template “heron”, or it is retired."), (status, (string?)problem["detail"]));
        (status, problem) = await service.Decide(99, "template", 1, new JsonObject { ["template"] = "skerrow-standard" });
        Assert.Equal((404, "not-there"), (status, (string?)problem["code"]));
        var both = await Task.WhenAll(
            service.Decide(one["id"], "template", (int)one["revision"]!, new JsonObject { ["template"] = "skerrow-standard" }),
            service.Decide(one["id"], "template", (int)one["revision"]!, new JsonObject { ["template"] = "brinewood-standard" }));
        Assert.Equal([200, 412], both.Select(answer => answer.Status).Order());
        await Choose(service, one["id"], "");
        Assert.Equal(200, (await service.Decide(one["id"], "approval")).Status);
        (status, problem) = await Choose(service, one["id"], "skerrow-standard");
        Assert.Equal((409, "already-decided"), (status, (string?)problem["code"]));
    }

    [Fact]
    public async Task A_corrected_invoice_whose_pages_come_to_belong_to_another_is_kept_and_can_only_be_set_aside()
    {
        var (service, batch) = await Started(("two.pdf", PdfMerger.Merge(Sample("port-ellery-galley", 1), Sample("port-ellery-galley", 2))));
        await using var running = service;
        var rows = await service.Invoices(batch);
        Assert.Equal(2, rows.Count);
        var second = rows.OrderBy(row => (int)row!["firstPage"]!).Last()!;
        var (_, corrected) = await service.Decide(second["id"], "corrections", new JsonObject { ["act"] = "enter", ["of"] = "purchaseOrder", ["text"] = "Q-1234" });
        Assert.Equal("Q-1234", (string?)corrected["fields"]!["purchaseOrder"]!["value"]);

        // A template that parts no file takes both for one.
        var file = Directory.GetFiles(Path.Combine(Repository.Samples, "port-ellery-galley"), "*.template.json")[0];
        var template = JsonNode.Parse(await File.ReadAllTextAsync(file))!.AsObject();
        var parting = (template["pages"] ??= new JsonObject()).AsObject();
        async Task Save(string key, string? says)
        {
            if (says is null)
                parting.Remove(key);
            else
                parting[key] = says;
            await service.SaveTemplate(template.ToJsonString());
            await service.Post($"batches/{batch}/recapture", new JsonObject());
            await service.UntilDone(batch);
        }
        await Save("newInvoice", "never");
        var kept = await service.Get($"invoices/{second["id"]}");
        Assert.Equal(("held", "Q-1234"), ((string?)kept["state"], (string?)kept["fields"]!["purchaseOrder"]!["value"]));
        var first = rows.OrderBy(row => (int)row!["firstPage"]!).First()!["id"];
        Assert.Contains($"to invoice {first} since the file was captured anew", (string?)kept["findings"]![0]!["message"], StringComparison.Ordinal);
        foreach (var (act, body) in new (string, JsonObject)[]
        {
            ("approval", new() { ["despite"] = "It is right all the same" }),
            ("corrections", new() { ["act"] = "enter", ["of"] = "purchaseOrder", ["text"] = "Q-9" }),
            ("corrections", new() { ["act"] = "accept", ["code"] = "parted-otherwise", ["message"] = (string?)kept["findings"]![0]!["message"], ["reason"] = "It is all right" }),
        })
        {
            var (status, problem) = await service.Decide(second["id"], act, body);
            Assert.Equal((409, "parted-otherwise"), (status, (string?)problem["code"]));
        }

        // Parted as before, it is what it was.
        await Save("newInvoice", null);
        var whole = await service.Get($"invoices/{second["id"]}");
        Assert.Equal(corrected["state"]!.ToJsonString(), whole["state"]!.ToJsonString());
        Assert.Equal("Q-1234", (string?)whole["fields"]!["purchaseOrder"]!["value"]);
        await Save("newInvoice", "never");
        Assert.Equal(200, (await service.Decide(second["id"], "set-aside", new() { ["reason"] = "It is part of the one before" })).Status);
        Assert.Equal("returned", (string?)(await service.Get($"invoices/{second["id"]}"))["state"]);
    }

    [Fact]
    public async Task A_choice_for_one_invoice_of_a_file_leaves_the_others_as_they_are()
    {
        var (service, batch) = await Started(("three.pdf", PdfMerger.Merge([.. Enumerable.Range(1, 3).Select(number => File.ReadAllBytes(Sample("port-ellery-galley", number)))])));
        await using var running = service;
        var ids = (await service.Invoices(batch)).OrderBy(row => (int)row!["firstPage"]!).Select(row => row["id"]).ToList();
        Assert.Equal(3, ids.Count);
        var before = new List<string>();
        foreach (var id in ids)
            before.Add((await service.Get($"invoices/{id}")).ToJsonString());
        Assert.Equal(200, (await Choose(service, ids[1], "skerrow-standard")).Status);
        foreach (var at in new[] { 0, 2 })
            Assert.Equal(before[at], (await service.Get($"invoices/{ids[at]}")).ToJsonString());
        Assert.Equal("skerrow-standard", (string?)(await service.Get($"invoices/{ids[1]}"))["template"]);
    }
}
