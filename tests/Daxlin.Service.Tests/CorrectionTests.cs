using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>A person corrects what was captured: both stay known, all ties are weighed anew, and what was entered outlives another capture.</summary>
public class CorrectionTests
{
    private static Task<(int Status, JsonNode Body)> Correct(ServiceUnderTest service, JsonNode? invoice, JsonObject act) => service.Decide(invoice, "corrections", act);

    private static JsonObject Enter(string of, string text) => new() { ["act"] = "enter", ["of"] = of, ["text"] = text };

    /// <summary>What an invoice comes to, apart from what was said of it.</summary>
    private static string Figures(JsonNode invoice) => string.Join('\n', new[] { "state", "kind", "lines", "taxes", "others", "ties", "tied", "unproved", "leftOut" }
        .Select(key => invoice[key]!.ToJsonString()).Append(string.Join('|', invoice["findings"]!.AsArray().Select(one => one!["message"]!.ToString()).Order(StringComparer.Ordinal)))
        .Append(string.Join('|', invoice["fields"]!.AsObject().Select(field => $"{field.Key}={field.Value!["value"]}"))));

    [Fact]
    public async Task Every_invoice_of_the_demo_comes_to_the_same_from_its_record_as_from_its_pages()
    {
        var (service, batch) = await ServiceUnderTest.StartWith([.. Repository.SampleVendors]);
        await using var running = service;
        var tried = 0;
        foreach (var one in (await service.Invoices(batch)).Where(one => (string?)one["state"] is "held" or "clear"))
        {
            var before = await service.Get($"invoices/{one["id"]}");
            // What stands there already is entered: nothing is to change but that a person said so.
            var number = (string?)before["fields"]!["invoiceNumber"]?["value"];
            if (number is null)
                continue;
            var (status, after) = await Correct(service, one["id"], Enter("invoiceNumber", number));
            Assert.Equal(200, status);
            Assert.Equal(Figures(before), Figures(after));
            Assert.Equal(number, (string?)after["entered"]!["invoiceNumber"]!["captured"]);
            var (_, undone) = await Correct(service, one["id"], new JsonObject { ["act"] = "undo" });
            Assert.Equal(Figures(before), Figures(undone));
            Assert.Empty(undone["entered"]!.AsObject());
            tried++;
        }
        Assert.True(tried > 20, $"{tried} invoices were tried");
    }

    [Fact]
    public async Task A_held_invoice_is_corrected_by_a_proposal_is_clear_and_is_posted_as_corrected()
    {
        var (service, batch) = await ServiceUnderTest.StartWith("skerrow-sail-loft");
        await using var running = service;
        var held = (await service.Invoices(batch)).Single(invoice => (string?)invoice["state"] == "held");
        var proposals = (await service.Get($"invoices/{held["id"]}/proposals")).AsArray();
        // The vendor's own sum is wrong throughout: 3,743.85 is printed as the tax, and the total holds it.
        Assert.All(proposals, one => Assert.Contains("out", (string?)one!["says"], StringComparison.Ordinal));
        var before = await service.Get($"invoices/{held["id"]}");
        var (status, half) = await Correct(service, held["id"], Enter("taxes[1].amount", "3 743,25"));
        Assert.Equal(200, status);
        Assert.Equal("held", (string?)half["state"]);
        Assert.Contains(half["findings"]!.AsArray(), one => (string?)one!["code"] is "tax-sum" or "total");
        var total = decimal.Parse((string)half["fields"]!["total"]!["value"]!, System.Globalization.CultureInfo.InvariantCulture) - 0.60m;
        var right = total.ToString(System.Globalization.CultureInfo.InvariantCulture);
        JsonNode last = half;
        if (half["fields"]!["tax"] is not null)
            last = (await Correct(service, held["id"], Enter("tax", "3743.25"))).Body;
        last = (await Correct(service, held["id"], Enter("total", right))).Body;
        Assert.Equal("clear", (string?)last["state"]);
        Assert.Equal((string?)before["fields"]!["total"]!["value"], (string?)last["entered"]!["total"]!["captured"]);
        Assert.Equal(Environment.UserName, (string?)last["entered"]!["total"]!["by"]);
        // Another capture leaves what was entered, and what it covers is what is captured now.
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        var again = await service.Get($"invoices/{held["id"]}");
        Assert.Equal(("clear", right), ((string?)again["state"], (string?)again["fields"]!["total"]!["value"]));
        Assert.Equal(200, (await service.Decide(held["id"], "approval")).Status);
        var (refused, problem) = await Correct(service, held["id"], Enter("total", "1.00"));
        Assert.Equal((409, "already-decided"), (refused, (string?)problem["code"]));
        await service.PostAll();
        Assert.Contains($",{right},", await service.Http.GetStringAsync(new Uri("posting-runs/1/file", UriKind.Relative)), StringComparison.Ordinal);
        Assert.Contains((await service.Get($"invoices/{held["id"]}"))["decisions"]!.AsArray(), one => (string?)one!["what"] == "corrected total" && (string?)one["after"] == right);
    }

    [Fact]
    public async Task Rows_are_struck_out_added_joined_and_moved_and_each_act_is_taken_back_and_made_again()
    {
        var (service, batch) = await ServiceUnderTest.StartWith("port-ellery-galley");
        await using var running = service;
        var one = (await service.Invoices(batch)).First(invoice => (string?)invoice["state"] == "clear" && (int)invoice["lines"]! > 2);
        var before = await service.Get($"invoices/{one["id"]}");
        var rows = (int)one["lines"]!;
        var cells = new JsonObject(before["lines"]![1]!["cells"]!.AsObject().Select(cell => KeyValuePair.Create<string, JsonNode?>(cell.Key, (string)cell.Value!["value"]!)));

        var (_, struck) = await Correct(service, one["id"], new JsonObject { ["act"] = "strike", ["of"] = "lines[2]" });
        Assert.Equal(("held", rows - 1), ((string?)struck["state"], struck["lines"]!.AsArray().Count));
        Assert.Equal(2, (int)struck["struck"]![0]!["row"]!["number"]!);
        var (_, added) = await Correct(service, one["id"], new JsonObject { ["act"] = "add", ["after"] = "lines[1]", ["cells"] = cells });
        Assert.Equal(("clear", rows), ((string?)added["state"], added["lines"]!.AsArray().Count));
        Assert.Equal(rows + 1, (int)added["lines"]![1]!["number"]!);

        var (_, undone) = await Correct(service, one["id"], new JsonObject { ["act"] = "undo" });
        Assert.Equal(Figures(struck), Figures(undone));
        var (_, redone) = await Correct(service, one["id"], new JsonObject { ["act"] = "redo" });
        Assert.Equal(Figures(added), Figures(redone));
        for (var step = 0; step < 2; step++)
            (_, undone) = await Correct(service, one["id"], new JsonObject { ["act"] = "undo" });
        Assert.Equal(Figures(before), Figures(undone));
        var (nothing, problem) = await Correct(service, one["id"], new JsonObject { ["act"] = "undo" });
        Assert.Equal((409, "nothing-to-undo"), (nothing, (string?)problem["code"]));

        var (_, moved) = await Correct(service, one["id"], new JsonObject { ["act"] = "move", ["of"] = "lines[1]", ["after"] = "lines[2]" });
        Assert.Equal([2, 1], moved["lines"]!.AsArray().Take(2).Select(line => (int)line!["number"]!));
        var (_, joined) = await Correct(service, one["id"], new JsonObject { ["act"] = "join", ["of"] = "lines[2]", ["with"] = "lines[1]" });
        Assert.Equal(rows - 1, joined["lines"]!.AsArray().Count);
        Assert.StartsWith((string)before["lines"]![1]!["cells"]!["description"]!["value"]!, (string?)joined["lines"]![0]!["cells"]!["description"]!["value"], StringComparison.Ordinal);
        // Something new said, what was taken back before cannot be made again.
        (nothing, problem) = await Correct(service, one["id"], new JsonObject { ["act"] = "redo" });
        Assert.Equal((409, "nothing-to-redo"), (nothing, (string?)problem["code"]));
    }

    [Fact]
    public async Task A_value_in_a_list_under_a_row_is_corrected_and_a_row_is_divided()
    {
        await using var service = await ServiceUnderTest.Start();
        var folder = Path.Combine(Repository.Root, "tests", "families", "tarrock-groff");
        await service.SaveTemplates(folder);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Directory.GetFiles(folder, "*.pdf").Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        foreach (var id in (await service.Invoices(batch)).Select(one => one["id"]))
        {
            var before = await service.Get($"invoices/{id}");
            if (before["lines"]!.AsArray().FirstOrDefault(line => line!["under"]!.AsArray().Count > 0) is not { } line)
                continue;
            var of = $"lines[{line["number"]}].readings[1].to";
            var (_, after) = await Correct(service, id, Enter(of, "424242"));
            var row = after["lines"]!.AsArray().Single(one => (int)one!["number"]! == (int)line["number"]!)!;
            Assert.Equal("424242", (string?)row["under"]![0]!["rows"]![0]!["to"]!["value"]);
            Assert.Equal((string?)line["under"]![0]!["rows"]![0]!["to"]!["value"], (string?)after["entered"]![of]!["captured"]);
            Assert.Equal($"corrected row {line["number"]}, readings 1, to", (string?)after["decisions"]!.AsArray()[^1]!["what"]);
            var (status, problem) = await Correct(service, id, Enter($"lines[{line["number"]}].readings[99].to", "1"));
            Assert.Equal((422, $"The invoice has no row “lines[{line["number"]}].readings[99]”."), (status, (string?)problem["detail"]));

            // The words at the end of a text go below; the figure above stays, so the sums tell that one of the two is wrong.
            var words = ((string)line["cells"]!["description"]!["value"]!).Split(' ');
            var (_, divided) = await Correct(service, id, new JsonObject
            {
                ["act"] = "split",
                ["of"] = $"lines[{line["number"]}]",
                ["cells"] = new JsonObject { ["description"] = words[^1], ["amount"] = (string?)line["cells"]!["amount"]!["value"] },
            });
            Assert.Equal("held", (string?)divided["state"]);
            Assert.Equal(before["lines"]!.AsArray().Count + 1, divided["lines"]!.AsArray().Count);
            var at = divided["lines"]!.AsArray().Select(one => (int)one!["number"]!).ToList().IndexOf((int)line["number"]!);
            Assert.Equal((string.Join(' ', words[..^1]), words[^1]), ((string?)divided["lines"]![at]!["cells"]!["description"]!["value"], (string?)divided["lines"]![at + 1]!["cells"]!["description"]!["value"]));
            (status, problem) = await Correct(service, id, new JsonObject { ["act"] = "split", ["of"] = $"lines[{line["number"]}]", ["cells"] = new JsonObject { ["description"] = "Elsewhere" } });
            Assert.Contains("ends with what is said for the row below", (string?)problem["detail"], StringComparison.Ordinal);
            return;
        }
        Assert.Fail("No invoice has rows under a row.");
    }

    [Fact]
    public async Task What_makes_no_sense_is_refused_in_a_sentence_and_changes_nothing()
    {
        var (service, batch) = await ServiceUnderTest.StartWith("skerrow-sail-loft");
        await using var running = service;
        var held = (await service.Invoices(batch)).Single(invoice => (string?)invoice["state"] == "held");
        var finding = (await service.Get($"invoices/{held["id"]}"))["findings"]!.AsArray().First(one => (string?)one!["severity"] == "hold")!;
        foreach (var (act, code, says) in new (JsonObject, string, string)[]
        {
            (new() { ["act"] = "guess" }, "correction-faulty", "“guess” is no act"),
            (Enter("total", "12.5O"), "correction-faulty", "“12.5O” is no amount, so it cannot be the total."),
            (Enter("total", "12.345"), "correction-faulty", "it cannot be the total"),
            (Enter("total", "GBP 12.34"), "correction-faulty", "it cannot be the total"),
            (Enter("lines[99].amount", "1.00"), "correction-faulty", "The invoice has no row “lines[99]”."),
            (Enter("lines[1].colour", "red"), "correction-faulty", "The template knows no column colour."),
            (Enter("currency", "USD"), "correction-faulty", "needs a template that reads USD"),
            (new() { ["act"] = "strike", ["of"] = "total" }, "correction-faulty", "no row “total”"),
            (new() { ["act"] = "add", ["cells"] = new JsonObject() }, "correction-faulty", "needs one value at least"),
            (new() { ["act"] = "join", ["of"] = "lines[1]", ["with"] = "taxes[1]" }, "correction-faulty", "Only two rows of one list"),
            (new() { ["act"] = "move", ["of"] = "lines[1]", ["after"] = "lines[1]" }, "correction-faulty", "below another row"),
            (new() { ["act"] = "accept", ["code"] = "total", ["message"] = "It is right." }, "correction-faulty", "no such finding open"),
            (new() { ["act"] = "accept", ["code"] = (string?)finding["code"], ["message"] = (string?)finding["message"] }, "reason-missing", "say why they may pass"),
        })
        {
            var (status, problem) = await Correct(service, held["id"], act);
            Assert.True(status >= 400, act.ToJsonString());
            Assert.Equal(code, (string?)problem["code"]);
            Assert.Contains(says, (string?)problem["detail"], StringComparison.Ordinal);
        }
        Assert.Empty((await service.Get($"invoices/{held["id"]}"))["decisions"]!.AsArray());
        var (_, accepted) = await Correct(service, held["id"], new JsonObject
        {
            ["act"] = "accept",
            ["code"] = (string?)finding["code"],
            ["message"] = (string?)finding["message"],
            ["reason"] = "The loft agrees on the telephone",
        });
        Assert.Equal("The loft agrees on the telephone", (string?)accepted["accepted"]![0]!["reason"]);
        Assert.DoesNotContain(accepted["findings"]!.AsArray(), one => (string?)one!["message"] == (string?)finding["message"]);
    }

    [Fact]
    public async Task Two_persons_cannot_correct_over_each_other_unseen()
    {
        var (service, batch) = await ServiceUnderTest.StartWith("skerrow-sail-loft");
        await using var running = service;
        var held = (await service.Invoices(batch)).Single(invoice => (string?)invoice["state"] == "held");
        var revision = (int)held["revision"]!;
        var both = await Task.WhenAll(
            service.Decide(held["id"], "corrections", revision, Enter("total", "1.00")), service.Decide(held["id"], "corrections", revision, Enter("total", "2.00")));
        Assert.Equal([200, 412], both.Select(one => one.Status).Order());
        Assert.Single((await service.Get($"invoices/{held["id"]}"))["decisions"]!.AsArray());
    }
}
