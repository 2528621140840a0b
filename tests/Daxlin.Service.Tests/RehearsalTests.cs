using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>A draft tried over what was captured before, and what publishing it does.</summary>
public class RehearsalTests
{
    private static readonly string Vendor = Path.Combine(Repository.Samples, "brinewood-chandlery");

    private static JsonObject Template() => JsonNode.Parse(File.ReadAllText(Path.Combine(Vendor, "brinewood.template.json")))!.AsObject();

    private static JsonObject Without(string field)
    {
        var template = Template();
        template["fields"]!.AsObject().Remove(field);
        return template;
    }

    private static IEnumerable<(string, byte[])> Pdfs(string folder, int from, int to) => Enumerable.Range(from, to - from + 1)
        .Select(number => $"{folder}-0{number}.pdf").Select(name => (name, File.ReadAllBytes(Path.Combine(Repository.Samples, folder, name))));

    private static async Task<(ServiceUnderTest Service, int Batch)> Captured(bool apart = false)
    {
        var service = await ServiceUnderTest.StartAfter("six captured and two without a template", async service =>
        {
            await service.SaveTemplates(Vendor);
            var batch = await service.OpenBatch("November");
            // One vendor's are captured, another's have no template yet.
            await service.Upload(batch, [.. Pdfs("brinewood-chandlery", 1, 6), .. Pdfs("skerrow-sail-loft", 1, 2)]);
            await service.UntilDone(batch);
        }, apart);
        return (service, await service.FirstBatch());
    }

    private static async Task<(JsonNode Rehearsal, List<JsonNode> Invoices)> Rehearse(ServiceUnderTest service, JsonNode template)
    {
        var (status, begun) = await service.Post("rehearsals", new JsonObject { ["template"] = template.ToJsonString() });
        Assert.Equal(201, status);
        await Followed(service, begun["id"]);
        return (await service.Get($"rehearsals/{begun["id"]}"), await service.All($"rehearsals/{begun["id"]}/invoices"));
    }

    /// <summary>Reads the events until they end, which they do when the rehearsal does.</summary>
    private static async Task<List<JsonNode>> Followed(ServiceUnderTest service, JsonNode? id) =>
        [.. (await service.Http.GetStringAsync($"rehearsals/{id}/events")).Split('\n').Where(line => line.StartsWith("data: ", StringComparison.Ordinal)).Select(line => JsonNode.Parse(line[6..])!)];

    [Fact]
    public async Task A_rehearsal_tells_value_by_value_what_would_change_approved_ones_first_and_changes_nothing()
    {
        var (service, batch) = await Captured();
        await using var _ = service;
        var before = await service.Invoices(batch);
        var approved = before.First(one => (string?)one["state"] == "clear")["id"];
        await service.Decide(approved, "approval");
        var stored = await service.Get($"invoices/{approved}");

        var (rehearsal, invoices) = await Rehearse(service, Without("dueDate"));
        Assert.Equal(("done", 8, 8, 1), ((string?)rehearsal["state"], (int)rehearsal["documents"]!, (int)rehearsal["done"]!, (int)rehearsal["baseVersion"]!));
        Assert.Equal("decidedChanges", (string?)invoices[0]["verdict"]);
        Assert.Equal(approved!.ToJsonString(), invoices[0]["invoice"]!.ToJsonString());
        var change = Assert.Single(invoices[0]["changes"]!.AsArray())!;
        Assert.Equal(("dueDate", (string?)stored["fields"]!["dueDate"]!["value"], ""), ((string?)change["name"], (string?)change["before"], (string?)change["after"]));
        var counts = rehearsal["invoices"]!;
        Assert.Equal(1, (int)counts["decidedChanges"]!);
        Assert.Equal(before.Count(one => (string?)one["state"] == "clear") - 1, (int)counts["clearChanges"]!);
        Assert.Equal(2, (int)counts["same"]!);

        Assert.Equal(stored.ToJsonString(), (await service.Get($"invoices/{approved}")).ToJsonString());
        Assert.Equal(1, (int)(await service.Get("templates/brinewood-standard"))["newest"]!);
    }

    [Fact]
    public async Task A_draft_as_it_is_saved_changes_nothing_and_one_that_recognises_nothing_loses_all()
    {
        var (service, _) = await Captured();
        await using var _1 = service;
        var (same, none) = await Rehearse(service, Template());
        Assert.Empty(none);
        Assert.Equal(8, (int)same["invoices"]!["same"]!);
        Assert.Equal((6, 6, 0, 0), Recognised(same));
        var blind = Template();
        blind["recognise"]!["must"] = new JsonArray("Nobody prints this");
        var (lost, invoices) = await Rehearse(service, blind);
        Assert.Equal(6, (int)lost["invoices"]!["lost"]!);
        Assert.Equal((6, 0, 0, 0), Recognised(lost));
        Assert.All(invoices, one => Assert.Equal("unplaced", (string?)one["after"]));
    }

    [Fact]
    public async Task A_draft_that_claims_another_vendors_invoices_says_which()
    {
        var (service, batch) = await Captured();
        await using var _ = service;
        await service.SaveTemplates(Path.Combine(Repository.Samples, "skerrow-sail-loft"));
        await service.UntilDone(batch);
        var greedy = Template();
        // The buyer's name and address stand on every invoice.
        greedy["recognise"]!["must"] = new JsonArray("Kestrel Sound Ferries", "Accounts Payable", "Port Kestrel", "Sound Quay");
        var (rehearsal, invoices) = await Rehearse(service, greedy);
        Assert.Equal((6, 6, 2, 2), Recognised(rehearsal));
        var lost = invoices.FindAll(one => (string?)one["verdict"] == "lost");
        Assert.Equal(2, lost.Count);
        Assert.All(lost, one => Assert.StartsWith("skerrow-sail-loft", (string?)one["file"], StringComparison.Ordinal));
        Assert.All(lost, one => Assert.Equal("The template brinewood-standard would take it from skerrow-standard.", (string?)one["firstFinding"]));

        // What both recognise alike is claimed, too, though neither would capture it.
        greedy["recognise"]!["must"] = new JsonArray("Kestrel Sound Ferries");
        var theirs = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(Repository.Samples, "skerrow-sail-loft", "skerrow.template.json")))!;
        theirs["recognise"]!["must"] = new JsonArray("Kestrel Sound Ferries");
        theirs["recognise"]!["mustNot"] = new JsonArray("Brinewood");
        await service.SaveTemplate(theirs.ToJsonString());
        await service.UntilDone(batch);
        Assert.Equal((6, 6, 2, 2), Recognised((await Rehearse(service, greedy)).Rehearsal));
        greedy["recognise"]!["must"] = new JsonArray("Brinewood");
        Assert.Equal((6, 6, 2, 0), Recognised((await Rehearse(service, greedy)).Rehearsal));
    }

    private static (int Own, int OwnRecognised, int Others, int OthersRecognised) Recognised(JsonNode rehearsal)
    {
        var counts = rehearsal["recognition"]!;
        return ((int)counts["own"]!, (int)counts["ownRecognised"]!, (int)counts["others"]!, (int)counts["othersRecognised"]!);
    }

    [Fact]
    public async Task Publishing_captures_held_and_unplaced_invoices_anew_and_leaves_clear_and_decided_ones()
    {
        var (service, batch) = await Captured();
        await using var _ = service;
        var clear = (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Select(one => one["id"]!.ToJsonString()).ToList();
        var held = (await service.Invoices(batch)).Single(one => (string?)one["state"] == "held")["id"];
        var (status, saved) = await service.SaveTemplate(Without("dueDate").ToJsonString());
        Assert.Equal((201, 3), (status, (int)saved["recaptured"]!));
        await service.UntilDone(batch);
        foreach (var id in clear)
            Assert.Equal(1, (int)(await service.Get($"invoices/{id}"))["templateVersion"]!);
        var again = await service.Get($"invoices/{held}");
        Assert.Equal(2, (int)again["templateVersion"]!);
        Assert.Null(again["fields"]!["dueDate"]);

        // A template for the other vendor finds its invoices by itself.
        await service.SaveTemplates(Path.Combine(Repository.Samples, "skerrow-sail-loft"));
        await service.UntilDone(batch);
        Assert.DoesNotContain(await service.Invoices(batch), one => (string?)one["state"] == "unplaced");
    }

    [Fact]
    public async Task Whoever_has_not_seen_the_newest_version_publishes_nothing()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Vendor);
        Assert.Equal(201, await Publish("If-Match", "\"1\"", Without("dueDate")));
        Assert.Equal(412, await Publish("If-Match", "\"1\"", Without("iban")));
        Assert.Equal(412, await Publish("If-None-Match", "*", Without("iban")));
        Assert.Equal(2, (int)(await service.Get("templates/brinewood-standard"))["newest"]!);

        async Task<int> Publish(string header, string value, JsonObject template)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "templates?note=Mended") { Content = JsonContent.Create(template) };
            request.Headers.Add(header, value);
            using var answer = await service.Http.SendAsync(request);
            return (int)answer.StatusCode;
        }
    }

    [Fact]
    public async Task A_rehearsal_survives_a_kill_and_can_be_stopped_and_one_key_begins_one()
    {
        var (service, _) = await Captured(apart: true);
        var body = new JsonObject { ["template"] = Without("dueDate").ToJsonString() };
        var first = await Begin(service, body, "one key");
        Assert.Equal(first, await Begin(service, body, "one key"));
        await service.Kill();
        await using var next = await ServiceUnderTest.Start(service.Data);
        Assert.Equal("done", (string?)(await Followed(next, first))[^1]["state"]);
        Assert.Equal(8, (int)(await next.Get($"rehearsals/{first}"))["done"]!);
        Assert.Equal(6, (await next.All($"rehearsals/{first}/invoices")).Count);

        var second = await Begin(next, body, "another");
        var (status, stopped) = await next.Post($"rehearsals/{second}/stop", new JsonObject());
        Assert.Equal(200, status);
        Assert.Contains((string?)stopped["state"], new[] { "stopped", "done" });
        Assert.Equal((string?)stopped["state"], (string?)(await Followed(next, second))[^1]["state"]);

        static async Task<int> Begin(ServiceUnderTest service, JsonObject body, string key)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "rehearsals") { Content = JsonContent.Create(body) };
            request.Headers.Add("Idempotency-Key", key);
            using var answer = await service.Http.SendAsync(request);
            return (int)JsonNode.Parse(await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync())!["id"]!;
        }
    }

    [Fact]
    public async Task What_cannot_be_rehearsed_is_refused_in_a_sentence()
    {
        await using var service = await ServiceUnderTest.Start();
        foreach (var (body, expected, code) in new (JsonObject, int, string)[]
        {
            (new() { ["template"] = "{" }, 422, "template-faulty"),
            (new(), 422, "template-faulty"),
            (new() { ["template"] = Template().ToJsonString(), ["batch"] = 7 }, 404, "not-there"),
            (new() { ["template"] = Template().ToJsonString(), ["batches"] = 7 }, 400, "json-faulty"),
        })
        {
            var (status, problem) = await service.Post("rehearsals", body);
            Assert.Equal((expected, code), (status, (string?)problem["code"]));
        }
        Assert.Equal(404, (await service.Post("rehearsals/7/stop", new JsonObject())).Status);
    }
}
