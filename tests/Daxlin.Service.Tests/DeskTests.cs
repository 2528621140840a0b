using System.Text.Json.Nodes;
using Daxlin.Core.Drafting;
using Daxlin.Reading;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Templates drafted and tried over HTTP, before anything is saved.</summary>
public class DeskTests
{
    private static readonly string Vendor = Path.Combine(Repository.Samples, "skerrow-sail-loft");

    private static (string Name, byte[] Bytes) Pdf(int number) =>
        ($"skerrow-sail-loft-0{number}.pdf", File.ReadAllBytes(Path.Combine(Vendor, $"skerrow-sail-loft-0{number}.pdf")));

    [Fact]
    public async Task An_invoice_on_which_another_name_stands_out_looks_like_those_that_look_alike()
    {
        var folder = Path.Combine(Repository.Corpus, "farm-calc");
        var files = Directory.GetFiles(folder, "*.pdf").Order(StringComparer.Ordinal).Select(file => (Name: Path.GetFileName(file), Bytes: File.ReadAllBytes(file))).ToLookup(
            file => Drafter.VendorsOf(PdfReader.Read(file.Bytes))[0] == "Lower Orrin Market Farm");
        Assert.NotEmpty(files[false]);
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, [.. files[true]]);
        await service.UntilDone(batch);
        await service.Upload(batch, [.. files[false]]);
        await service.UntilDone(batch);

        Assert.All(await service.Invoices(batch), one => Assert.Equal("Lower Orrin Market Farm", (string?)one["looksLike"]));
        Assert.All(await service.Invoices(batch), one => Assert.Contains("looks like one of “Lower Orrin Market Farm”", (string?)one["firstFinding"], StringComparison.Ordinal));
        Assert.Equal(1, (int)(await service.Get($"batches/{batch}"))["unplacedVendors"]!);
    }

    [Fact]
    public async Task A_draft_from_an_unplaced_invoice_captures_the_batch_once_it_is_saved_and_nothing_before()
    {
        await using var service = await ServiceUnderTest.Start();
        // Other vendors are there already, and are told apart.
        await service.SaveTemplates(Path.Combine(Repository.Samples, "brinewood-chandlery"));
        var batch = await service.OpenBatch("November");
        var other = Path.Combine(Repository.Samples, "brinewood-chandlery", "brinewood-chandlery-01.pdf");
        await service.Upload(batch, [.. Enumerable.Range(1, 6).Select(Pdf), ("other.pdf", await File.ReadAllBytesAsync(other))]);
        await service.UntilDone(batch);
        // Before there is a template, invoices of one vendor are told to look alike.
        var unplaced = await service.Invoices(batch);
        Assert.Equal(6, unplaced.Count(one => (string?)one["looksLike"] == "Skerrow Sail Loft"));
        Assert.Contains("looks like one of “Skerrow Sail Loft”", (string?)unplaced.First(one => (string?)one["state"] == "unplaced")["firstFinding"], StringComparison.Ordinal);
        var documents = (await service.All($"batches/{batch}/documents")).ToDictionary(one => (string)one["file"]!, one => (string)one["sha256"]!);

        var (status, draft) = await service.Post("templates/draft", new JsonObject { ["documents"] = new JsonArray(documents["skerrow-sail-loft-01.pdf"]) });
        Assert.Equal(200, status);
        Assert.Equal("clear", (string?)draft["invoices"]![0]!["state"]);
        Assert.Contains(draft["notes"]!.AsArray(), note => (string?)note!["key"] == "recognise" && (string?)note["certainty"] == "certain");
        Assert.Contains(draft["notes"]!.AsArray(), note => (string?)note!["key"] == "columns.amount" && (string?)note["certainty"] == "certain");
        Assert.Single(await service.All("templates"));

        var (tried, result) = await service.Post("templates/try", new JsonObject
        {
            ["template"] = draft["template"]!.DeepClone(),
            ["documents"] = new JsonArray([.. documents.Values.Select(sha => (JsonNode)sha)]),
        });
        Assert.Equal(200, tried);
        Assert.Empty(result["templates"]![0]!["faults"]!.AsArray());
        Assert.Equal("unplaced", (string?)result["invoices"]!.AsArray().Single(one => (string?)one!["document"]!["file"] == "other.pdf")!["state"]);
        Assert.Equal(6, result["invoices"]!.AsArray().Count(one => (string?)one!["template"] == "skerrow-sail-loft"));
        Assert.Equal(6, (await service.Invoices(batch)).Count(one => (string?)one["state"] == "unplaced"));

        Assert.Equal(201, (await service.SaveTemplate((string)draft["template"]!)).Status);
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        var invoices = (await service.Invoices(batch)).Where(one => (string?)one["vendor"] == "Skerrow Sail Loft").ToList();
        Assert.Equal(6, invoices.Count);
        // As many are clear as with the template that a person wrote: two of the six do not add up.
        Assert.True(invoices.Count(one => (string?)one["state"] == "clear") >= 4);
    }

    [Fact]
    public async Task A_faulty_template_is_tried_on_nothing_and_its_faults_are_named_by_key_and_line()
    {
        await using var service = await ServiceUnderTest.Start();
        var sha = await Taken(service, Pdf(1));
        var (status, result) = await service.Post("templates/try", new JsonObject
        {
            ["template"] = "{\n  \"name\": \"x\",\n  \"vendr\": \"X\"\n}",
            ["documents"] = new JsonArray(sha),
        });
        Assert.Equal(200, status);
        Assert.Empty(result["invoices"]!.AsArray());
        Assert.Contains(result["templates"]![0]!["faults"]!.AsArray(), fault => (int)fault!["line"]! == 3 && ((string)fault["message"]!).Contains("vendr", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_cannot_be_drafted_or_tried_is_refused_in_a_sentence()
    {
        await using var service = await ServiceUnderTest.Start();
        var sha = await Taken(service, Pdf(1));
        var letter = await Taken(service, ("letter.pdf", TinyPdf.OnePage(TinyPdf.Text((50, 700, "Dear all,"), (50, 680, "thank you for the day out.")))));
        foreach (var (path, body, expected, code) in new (string, JsonObject, int, string)[]
        {
            ("templates/draft", new() { ["documents"] = new JsonArray(letter) }, 422, "nothing-found"),
            ("templates/draft", new() { ["documents"] = new JsonArray() }, 422, "documents-faulty"),
            ("templates/draft", new() { ["documents"] = new JsonArray("../../etc/passwd") }, 422, "documents-faulty"),
            ("templates/draft", new() { ["documents"] = new JsonArray(new string('0', 64)) }, 404, "not-there"),
            ("templates/draft", new() { ["documents"] = new JsonArray([.. Enumerable.Repeat(0, 11).Select(_ => (JsonNode)sha)]) }, 422, "documents-faulty"),
            ("templates/try", new() { ["template"] = "", ["documents"] = new JsonArray(sha) }, 422, "template-faulty"),
            ("templates/try", new() { ["template"] = "{}", ["documents"] = new JsonArray((JsonNode?)null) }, 422, "documents-faulty"),
        })
        {
            var (status, problem) = await service.Post(path, body);
            Assert.Equal((body.ToJsonString(), expected, code), (body.ToJsonString(), status, (string?)problem["code"]));
            Assert.EndsWith(".", (string)problem["detail"]!, StringComparison.Ordinal);
        }
        File.Delete(Path.Combine(service.Data, "documents", sha[..2], sha));
        Assert.Equal("document-missing", (string?)(await service.Post("templates/draft", new JsonObject { ["documents"] = new JsonArray(sha) })).Body["code"]);
    }

    [Fact]
    public async Task Pointing_at_a_value_gives_ways_to_find_it_each_proved_on_the_other_invoices()
    {
        await using var service = await ServiceUnderTest.Start();
        var shas = new List<string>();
        for (var number = 1; number <= 4; number++)
            shas.Add(await Taken(service, Pdf(number)));
        var draft = (await service.Post("templates/draft", new JsonObject { ["documents"] = new JsonArray(shas[0]) })).Body;
        var number1 = draft["invoices"]![0]!["fields"]!["invoiceNumber"]!;
        JsonObject Asked(string field, JsonNode? box) => new()
        {
            ["template"] = draft["template"]!.DeepClone(),
            ["document"] = shas[0],
            ["page"] = number1["page"]!.DeepClone(),
            ["box"] = box?.DeepClone(),
            ["field"] = field,
            ["others"] = new JsonArray([.. shas.Skip(1).Select(sha => (JsonNode)sha)]),
        };
        var (status, ways) = await service.Post("templates/whereabouts", Asked("invoiceNumber", number1["box"]));
        Assert.Equal(200, status);
        var best = ways.AsArray()[0]!;
        Assert.Equal((3, "{\"where\":{\"beside\":[\"Invoice no\",\"Credit note no\"]}}"), ((int)best["fits"]!, (string?)best["rule"]));
        Assert.Equal(3, best["values"]!.AsArray().Select(value => (string?)value!["value"]).Distinct().Count());
        Assert.Contains(ways.AsArray(), way => ((string)way!["says"]!).StartsWith("at this place", StringComparison.Ordinal));

        var (refused, problem) = await service.Post("templates/whereabouts", Asked("Invoice number", number1["box"]));
        Assert.Equal((422, "name-faulty"), (refused, (string?)problem["code"]));
        Assert.Equal("place-faulty", (string?)(await service.Post("templates/whereabouts", Asked("invoiceNumber", null))).Body["code"]);
    }

    [Fact]
    public async Task Rows_are_said_by_pointing_and_each_way_says_what_it_gives()
    {
        await using var service = await ServiceUnderTest.Start();
        var shas = new List<string>();
        for (var number = 1; number <= 3; number++)
            shas.Add(await Taken(service, Pdf(number)));
        var draft = (await service.Post("templates/draft", new JsonObject { ["documents"] = new JsonArray(shas[0]) })).Body;
        var cell = draft["invoices"]![0]!["lines"]![0]!["cells"]!["quantity"]!;
        JsonObject Asked(string what, string? column = null, bool isPointed = true) => new()
        {
            ["template"] = draft["template"]!.DeepClone(),
            ["document"] = shas[0],
            ["page"] = isPointed ? cell["page"]!.DeepClone() : 0,
            ["box"] = isPointed ? cell["box"]!.DeepClone() : null,
            ["what"] = what,
            ["column"] = column,
            ["others"] = new JsonArray(shas[1], shas[2]),
        };
        var (status, ways) = await service.Post("templates/rows", Asked("rows", isPointed: false));
        Assert.Equal((200, "as it is", 3), (status, (string?)ways[0]!["says"], (int)ways[0]!["invoices"]!));
        (status, ways) = await service.Post("templates/rows", Asked("placed", "pieces"));
        Assert.Equal(200, status);
        var tried = (await service.Post("templates/try", new JsonObject { ["template"] = ways[0]!["template"]!.DeepClone(), ["documents"] = new JsonArray(shas[0]) })).Body;
        Assert.Equal((int)ways[0]!["rows"]!, tried["invoices"]![0]!["lines"]!.AsArray().Count);
        Assert.Contains(tried["templates"]![0]!["sentences"]!.AsArray(), one => ((string)one!["says"]!).StartsWith("The pieces stands from", StringComparison.Ordinal));
        foreach (var (asked, code) in new[]
        {
            (Asked("7"), "meaning-unknown"), (Asked("rulings"), "meaning-unknown"), (Asked("column"), "name-faulty"), (Asked("placed", "Not a name"), "name-faulty"),
            (Asked("closes", isPointed: false), "place-faulty"),
        })
        {
            var (refused, problem) = await service.Post("templates/rows", asked);
            Assert.Equal((422, code), (refused, (string?)problem["code"]));
        }
    }

    private static async Task<string> Taken(ServiceUnderTest service, (string Name, byte[] Bytes) file)
    {
        var batch = await service.OpenBatch("November");
        var taken = await service.Upload(batch, file);
        await service.UntilDone(batch);
        return (string)taken[0]!["sha256"]!;
    }
}
