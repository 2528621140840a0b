using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What is corrected on three invoices of a template is offered as a change of it.</summary>
public class TaughtTemplateTests
{
    [Fact]
    public async Task Three_due_dates_entered_by_hand_become_a_way_to_find_them_on_all_invoices()
    {
        await using var service = await ServiceUnderTest.Start();
        var folder = Path.Combine(Repository.Samples, "brinewood-chandlery");
        var right = JsonNode.Parse(await File.ReadAllTextAsync(Directory.GetFiles(folder, "*.template.json")[0]))!.AsObject();
        var wrong = right.DeepClone().AsObject();
        wrong["fields"]!["dueDate"] = new JsonObject { ["where"] = new JsonObject { ["beside"] = "Nowhere" }, ["required"] = false };
        await service.SaveTemplate(wrong.ToJsonString());
        var name = (string)right["name"]!;
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Directory.GetFiles(folder, "*.pdf").Order(StringComparer.Ordinal).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        var truth = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(folder, "truth.json")))!;
        var invoices = (await service.Invoices(batch)).Where(one => (string?)one["state"] is "held" or "clear").ToList();
        Assert.Empty((await service.Get($"templates/{name}/corrections")).AsArray());

        var entered = new List<int>();
        foreach (var id in invoices.Take(3).Select(one => (int)one["id"]!))
        {
            var due = DueOf(truth, await service.Get($"invoices/{id}"));
            Assert.Equal(200, (await service.Decide(id, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "dueDate", ["text"] = due })).Status);
            entered.Add(id);
        }
        // What is taken back was not corrected.
        var other = (int)invoices[3]["id"]!;
        await service.Decide(other, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "purchaseOrder", ["text"] = "KSF-1" });
        var found = Assert.Single((await service.Get($"templates/{name}/corrections")).AsArray())!;
        Assert.Equal("The due date was entered by hand on 3 invoices.", (string?)found["says"]);
        Assert.Equal(entered.Order(), found["invoices"]!.AsArray().Select(id => (int)id!));
        Assert.StartsWith("the due date is looked for beside “", (string?)found["change"], StringComparison.Ordinal);
        await service.Decide(entered[0], "corrections", new JsonObject { ["act"] = "undo" });
        Assert.Empty((await service.Get($"templates/{name}/corrections")).AsArray());

        // Saved, it finds the others as well; and what was entered stays.
        Assert.Equal(201, (await service.SaveTemplate((string)found["template"]!)).Status);
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        foreach (var invoice in invoices)
        {
            var now = await service.Get($"invoices/{invoice["id"]}");
            Assert.Equal(DueOf(truth, now), (string?)now["fields"]!["dueDate"]!["value"]);
        }
        Assert.Empty((await service.Get($"templates/{name}/corrections")).AsArray());
    }

    private static string DueOf(JsonNode truth, JsonNode invoice) =>
        (string)truth["invoices"]!.AsArray().Single(one => (string?)one!["file"] == (string?)invoice["document"]!["file"])!["dueDate"]!;
}
