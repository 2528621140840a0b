using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Bad input gets a clear sentence, loses nothing, and stops nobody else's work.</summary>
public class BadInputTests
{
    private const string Script = "<script>alert(1)</script>";

    private static readonly (string Name, byte[] Bytes, string Code)[] BadFiles =
    [
        ("notes.txt.pdf", "Dear Accounts Payable"u8.ToArray(), "not-a-pdf"),
        ("empty.pdf", [], "not-a-pdf"),
        ("cut.pdf", File.ReadAllBytes(Path.Combine(Repository.Samples, "skerrow-sail-loft", "skerrow-sail-loft-01.pdf"))[..9000], "damaged"),
        ("locked.pdf", TinyPdf.Encrypted(), "encrypted"),
        ("scan.pdf", TinyPdf.OnePage("0 0 100 100 re f"), "no-text"),
        ("long.pdf", TinyPdf.Pages([.. Enumerable.Repeat("", 3000)]), "too-large"),
        ("loop.pdf", TinyPdf.LoopingPageTree(), "damaged"),
        ("itself.pdf", TinyPdf.SelfDrawingForm(), "no-text"),
        ("endless.pdf", TinyPdf.InflatingWithoutEnd(megabytes: 400), "too-large"),
    ];

    [Fact]
    public async Task Bad_files_are_set_aside_with_their_reasons_and_the_rest_is_done()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Mixed");
        var good = Directory.GetFiles(Path.Combine(Repository.Samples, "skerrow-sail-loft"), "*-0[1-3].pdf")
            .Concat(Directory.GetFiles(Path.Combine(Repository.Samples, "port-ellery-galley"), "*.pdf")).Take(6)
            .Select(file => (Path.GetFileName(file), File.ReadAllBytes(file)));
        await service.Upload(batch, BadFiles.Select(file => (file.Name, file.Bytes)).Concat(good).Append(("../../x.pdf", "no PDF"u8.ToArray())));
        var done = await service.UntilDone(batch);
        Assert.Equal((BadFiles.Length + 1, 6), ((int)done["unreadable"]!, (int)done["invoices"]!["total"]!));

        var documents = (await service.Get($"batches/{batch}/documents")).AsArray();
        Assert.All(BadFiles, bad =>
        {
            var document = documents.Single(one => (string?)one!["file"] == bad.Name)!;
            Assert.Equal((bad.Name, "unreadable", bad.Code), (bad.Name, (string?)document["state"], (string?)document["reasonCode"]));
            Assert.EndsWith(".", (string?)document["reason"], StringComparison.Ordinal);
        });
        Assert.Contains(documents, document => (string?)document!["file"] == "x.pdf");
        Assert.False(File.Exists(Path.Combine(service.Data, "..", "..", "x.pdf")));
        Assert.Equal("Healthy", await service.Http.GetStringAsync(new Uri(service.Address + "/health")));
    }

    [Fact]
    public async Task Script_and_formulas_in_values_stay_text()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplate("""
            {
              "name": "rogue", "vendor": "Rogue & Sons",
              "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Rogue and Sons"] },
              "fields": {
                "invoiceNumber": { "where": [{ "beside": "Invoice" }] }, "invoiceDate": { "where": [{ "beside": "Date" }] },
                "note": { "where": [{ "beside": "Note" }] }, "currency": { "where": [{ "always": "EUR" }] },
                "total": { "where": [{ "beside": "Total" }] }
              },
              "blocks": [{
                "name": "lines", "closes": ["Total"],
                "columns": { "description": { "heading": "Text" }, "quantity": { "heading": "Qty" }, "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" } },
                "row": { "begins": { "filled": "amount" } }
              }]
            }
            """);
        var batch = await service.OpenBatch(Script);
        var pdf = TinyPdf.OnePage(TinyPdf.Text(
            (50, 800, "Rogue and Sons"), (50, 780, "Invoice: 17"), (50, 765, "Date: 14.03.2026"), (50, 750, $"Note: {Script}"),
            (50, 700, "Text"), (300, 700, "Qty"), (370, 700, "Price"), (450, 700, "Sum"),
            (50, 680, "=HYPERLINK(1)"), (300, 680, "2"), (370, 680, "-6.00"), (450, 680, "-12.00"),
            (50, 660, "Total"), (450, 660, "-12.00")));
        await service.Upload(batch, (Script + ".pdf", pdf));
        await service.UntilDone(batch);
        var summary = Assert.Single(await service.Invoices(batch));
        Assert.Equal(("clear", "creditNote"), ((string?)summary["state"], (string?)summary["kind"]));
        var answer = await service.Http.GetAsync(new Uri($"invoices/{summary["id"]}", UriKind.Relative));
        Assert.Equal("application/json", answer.Content.Headers.ContentType!.MediaType);
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal(Script, (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["fields"]!["note"]!["value"]);

        await service.Decide(summary["id"], "approval");
        var (_, run) = await service.PostAll();
        Assert.Equal("-12.00", (string?)run["sums"]!["EUR"]);
        var csv = await service.Http.GetStringAsync(new Uri($"posting-runs/{run["number"]}/file", UriKind.Relative));
        Assert.Contains(",'=HYPERLINK(1),", csv, StringComparison.Ordinal);
        Assert.Contains(",-12.00,", csv, StringComparison.Ordinal);
        Assert.EndsWith("\r\n", csv, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_template_with_faults_is_refused_by_key_and_line()
    {
        await using var service = await ServiceUnderTest.Start();
        var document = (await File.ReadAllTextAsync(Directory.GetFiles(Path.Combine(Repository.Samples, "skerrow-sail-loft"), "*.template.json")[0]))
            .Replace("\"heading\": \"Qty\"", "\"heeding\": \"Qty\"", StringComparison.Ordinal);
        var (status, problem) = await service.SaveTemplate(document);
        Assert.Equal((422, "template-faulty"), (status, (string?)problem["code"]));
        var faults = problem["faults"]!.AsArray();
        var line = 1 + document[..document.IndexOf("heeding", StringComparison.Ordinal)].Count(c => c == '\n');
        Assert.Contains(faults, fault => (string?)fault!["place"] == "blocks[0].columns.quantity.heeding" && (int)fault["line"]! == line);
        Assert.Empty((await service.Get("templates")).AsArray());
    }

    [Fact]
    public async Task Other_origins_and_other_names_are_refused()
    {
        await using var service = await ServiceUnderTest.Start();
        foreach (var (header, value) in new[] { ("Origin", "http://elsewhere.example"), ("Host", "elsewhere.example"), ("Sec-Fetch-Site", "cross-site"), ("Origin", "null") })
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "batches") { Content = new StringContent("{\"name\":\"x\"}", Encoding.UTF8, "application/json") };
            request.Headers.TryAddWithoutValidation(header, value);
            using var answer = await service.Http.SendAsync(request);
            Assert.Equal((header, 403), (header, (int)answer.StatusCode));
        }
        using var own = new HttpRequestMessage(HttpMethod.Post, "batches") { Content = new StringContent("{\"name\":\"x\"}", Encoding.UTF8, new MediaTypeHeaderValue("application/json")) };
        own.Headers.Add("Origin", service.Address);
        using var welcome = await service.Http.SendAsync(own);
        Assert.Equal(201, (int)welcome.StatusCode);
    }

    [Theory]
    [InlineData("--port", "many", 2, "is no port")]
    [InlineData("--colour", "red", 2, "is unknown")]
    public async Task Settings_that_cannot_be_met_are_refused_with_a_sentence(string setting, string value, int exitCode, string says)
    {
        var (code, said) = await ServiceUnderTest.Refused(setting, value, "--ends-with-input");
        Assert.Equal(exitCode, code);
        Assert.Contains(says, said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_second_service_keeps_off_the_data_of_the_first()
    {
        await using var service = await ServiceUnderTest.Start();
        var (code, said) = await ServiceUnderTest.Refused(["--data", service.Data, "--port", "0", "--ends-with-input", .. await StoreUnderTest.Arguments(service.Data)]);
        Assert.Equal(2, code);
        Assert.Contains("Another Daxlin service", said, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("batches/77")]
    [InlineData("batches/77/invoices")]
    [InlineData("invoices/77")]
    [InlineData("documents/..%2f..%2fdaxlin.db")]
    [InlineData("posting-runs/77/file")]
    [InlineData("templates/none")]
    [InlineData("nowhere")]
    public async Task What_is_not_there_is_said_in_problem_details(string path)
    {
        await using var service = await ServiceUnderTest.Start();
        using var answer = await service.Http.GetAsync(new Uri(path, UriKind.Relative));
        var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal((404, "not-there", "application/problem+json"), ((int)answer.StatusCode, (string?)problem["code"], answer.Content.Headers.ContentType!.MediaType));
        Assert.StartsWith("There is no ", (string?)problem["detail"], StringComparison.Ordinal);
    }
}
