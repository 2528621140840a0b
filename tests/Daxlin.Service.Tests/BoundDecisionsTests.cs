using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>A decision is bound to what was shown, and what must happen once happens once.</summary>
public class BoundDecisionsTests
{
    private static readonly string Galley = Path.Combine(Repository.Samples, "port-ellery-galley");

    private static async Task<(ServiceUnderTest Service, int Batch, JsonNode Invoice)> OneInvoice()
    {
        var service = await ServiceUnderTest.StartAfter("one invoice of a galley", async service =>
        {
            await service.SaveTemplates(Galley);
            var batch = await service.OpenBatch("November");
            await service.Upload(batch, [("one.pdf", await File.ReadAllBytesAsync(Path.Combine(Galley, "port-ellery-galley-01.pdf")))]);
            await service.UntilDone(batch);
        });
        var batch = await service.FirstBatch();
        return (service, batch, await service.Get($"invoices/{Assert.Single(await service.Invoices(batch))["id"]}"));
    }

    private static async Task<string> Galleys() => await File.ReadAllTextAsync(Assert.Single(Directory.GetFiles(Galley, "*.template.json")));

    [Fact]
    public async Task What_was_captured_again_by_another_template_cannot_be_approved_unseen()
    {
        var (service, batch, shown) = await OneInvoice();
        await using var _ = service;
        await service.SaveTemplate((await Galleys()).Replace("\"beside\": \"To pay\"", "\"beside\": \"Goods in all\"", StringComparison.Ordinal).Replace("\"vendor\": \"", "\"vendor\": \"New ", StringComparison.Ordinal));
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        foreach (var act in new[] { "approval", "set-aside" })
        {
            var (status, problem) = await service.Decide(shown["id"], act, (int)shown["revision"]!, new JsonObject { [act == "approval" ? "despite" : "reason"] = "It is right." });
            Assert.Equal((412, "changed-since"), (status, (string?)problem["code"]));
            Assert.Matches(@"^Invoice 1 is not as it was shown: it was captured again by the template port-ellery-standard, version 2, .* UTC, and is \w+\. Look at it again\.$", (string?)problem["detail"]);
        }
        Assert.Equal(200, (await service.Decide(shown["id"], "set-aside", new JsonObject { ["reason"] = "It was seen again." })).Status);
    }

    [Fact]
    public async Task A_capture_that_comes_out_the_same_leaves_what_was_seen_as_it_is()
    {
        var (service, batch, shown) = await OneInvoice();
        await using var _ = service;
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        var (status, approved) = await service.Decide(shown["id"], "approval", (int)shown["revision"]!);
        Assert.Equal((200, "approved"), (status, (string?)approved["state"]));
        var (again, problem) = await service.Decide(shown["id"], "approval", (int)shown["revision"]!);
        Assert.Equal(412, again);
        Assert.StartsWith($"Invoice 1 is not as it was shown: it is approved by {Environment.UserName}, ", (string?)problem["detail"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_decision_says_what_it_saw()
    {
        var (service, _, shown) = await OneInvoice();
        await using var _1 = service;
        using var answer = await service.Http.GetAsync(new Uri("invoices/1", UriKind.Relative));
        Assert.Equal($"\"{shown["revision"]}\"", answer.Headers.ETag!.Tag);
        var (status, problem) = await service.Post("invoices/1/approval", new JsonObject());
        Assert.Equal((428, "seen-missing"), (status, (string?)problem["code"]));
        (status, problem) = await service.Decide(1, "set-aside", new JsonObject { ["reason"] = ".........." });
        Assert.Equal((422, "reason-missing"), (status, (string?)problem["code"]));
    }

    [Fact]
    public async Task A_run_says_what_it_posts_and_the_same_request_makes_the_same_run()
    {
        var (service, _, shown) = await OneInvoice();
        await using var _1 = service;
        await service.Decide(shown["id"], "approval");
        foreach (var (body, code) in new (JsonObject, string)[]
        {
            (new() { ["batchId"] = 26 }, "json-faulty"), (new() { ["allbatches"] = true }, "json-faulty"), ([], "scope-missing"),
            (new() { ["allBatches"] = false }, "scope-missing"), (new() { ["batch"] = 1, ["allBatches"] = true }, "scope-missing"), (new() { ["batch"] = 77 }, "not-there"),
        })
        {
            var (status, problem) = await service.Post("posting-runs", body);
            Assert.Equal((code, true), ((string?)problem["code"], status is >= 400 and < 500));
        }
        Assert.Equal("The request has a key “batchId” that is not known here; known are allBatches, batch, deliver, despite, layout, postingDate.", (string?)(await service.Post("posting-runs", new JsonObject { ["batchId"] = 26 })).Body["detail"]);
        var runs = new List<string>();
        foreach (var _2 in new int[2])
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "posting-runs") { Content = JsonContent.Create(new JsonObject { ["allBatches"] = true }) };
            request.Headers.Add("Idempotency-Key", "press-1");
            using var answer = await service.Http.SendAsync(request);
            runs.Add($"{(int)answer.StatusCode} {JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["number"]}");
        }
        Assert.Equal(["201 1", "201 1"], runs);
        Assert.Equal("nothing-to-post", (string?)(await service.PostAll()).Body["code"]);
    }

    [Fact]
    public async Task The_template_saved_last_is_the_one_that_captures_next()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        var document = await Galleys();
        await service.SaveTemplate(document);
        var bytes = await File.ReadAllBytesAsync(Path.Combine(Galley, "port-ellery-galley-01.pdf"));
        await service.Upload(batch, [("one.pdf", bytes)]);
        await service.UntilDone(batch);
        for (var round = 2; round <= 16; round += 2)
        {
            // Two saves, the first while a capture runs.
            var again = service.Post($"batches/{batch}/recapture", new JsonObject());
            await service.SaveTemplate(document + new string(' ', round));
            await service.SaveTemplate(document + new string(' ', round + 1));
            await again;
            await service.UntilDone(batch);
            await service.Post($"batches/{batch}/recapture", new JsonObject());
            await service.UntilDone(batch);
            Assert.Equal(round + 1, (int)(await service.Get("invoices/1"))["templateVersion"]!);
        }
    }
}
