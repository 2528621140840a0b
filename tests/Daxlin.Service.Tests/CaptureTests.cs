using System.Diagnostics;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Another program sends a document in one call, and is answered with what was captured of it.</summary>
public partial class CaptureTests
{
    private static async Task<(int Status, JsonNode Body, Uri? Location)> Send(ServiceUnderTest service, byte[] bytes, string query, string accept = "application/json")
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"captures?{query}") { Content = new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/pdf") } } };
        request.Headers.Accept.ParseAdd(accept);
        using var answer = await service.Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, answer.Content.Headers.ContentType?.MediaType is "text/csv" ? JsonValue.Create(text) : JsonNode.Parse(text)!, answer.Headers.Location);
    }

    [Fact]
    public async Task A_document_is_answered_with_its_invoices_and_the_same_one_again_is_the_same()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var invoices = Repository.SampleInvoices("port-ellery-galley").ToList();
        var (status, capture, _) = await Send(service, invoices[0].Bytes, "batch=Programs&name=one.pdf&wait=60");
        Assert.Equal((200, "done", "one.pdf", "Programs"), (status, (string?)capture["state"], (string?)capture["file"], (string?)capture["batch"]));
        var invoice = Assert.Single(capture["invoices"]!.AsArray())!;
        Assert.Equal(("clear", "PE71010", "790.66"), ((string?)invoice["state"], (string?)invoice["fields"]!["invoiceNumber"]!["value"], (string?)invoice["fields"]!["total"]!["value"]));
        var (_, again, _) = await Send(service, invoices[0].Bytes, "batch=Programs&name=again.pdf");
        Assert.Equal((int)capture["id"]!, (int)again["id"]!);
        Assert.Single(await service.Invoices(await service.FirstBatch()));

        // A table says of each row whether its invoice is held, and why.
        var (_, held, _) = await Send(service, invoices[4].Bytes, "batch=Programs&wait=60", "text/csv");
        var lines = held.GetValue<string>().Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.StartsWith("state,what to look at,", lines[0], StringComparison.Ordinal);
        Assert.Equal(9, lines.Length - 1);
        Assert.All(lines[1..], line => Assert.StartsWith("held,\"The 9 lines add up to 5,104.18 GBP; the invoice states 5,114.18 GBP", line, StringComparison.Ordinal));

        // What takes longer is asked for again.
        var (waits, waiting, location) = await Send(service, invoices[1].Bytes, "batch=Programs&wait=0");
        Assert.Contains(waits, new[] { 200, 202 });
        await service.UntilDone(await service.FirstBatch());
        var asked = await service.Get($"captures/{waiting["id"]}");
        Assert.Equal(("done", "PE71017"), ((string?)asked["state"], (string?)asked["invoices"]![0]!["fields"]!["invoiceNumber"]!["value"]));
        if (waits == 202)
            Assert.Equal($"/api/v1/captures/{waiting["id"]}", location!.ToString());
    }

    [Fact]
    public async Task What_was_sent_for_another_template_is_held_until_a_person_chooses()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var invoices = Repository.SampleInvoices("port-ellery-galley").ToList();
        Assert.Equal((422, "template-unknown"), await Send(service, invoices[0].Bytes, "batch=Programs&template=nobody") is var (unknown, why, _) ? (unknown, (string?)why["code"]) : default);
        var own = (string)(await Send(service, invoices[0].Bytes, "batch=Programs&wait=60")).Body["invoices"]![0]!["template"]!;
        var right = (await Send(service, invoices[1].Bytes, $"batch=Programs&wait=60&template={own}")).Body["invoices"]![0]!;
        Assert.Equal(("clear", own), ((string?)right["state"], (string?)right["template"]));
        var wrong = (await Send(service, invoices[2].Bytes, "batch=Programs&wait=60&template=skerrow-standard")).Body["invoices"]![0]!;
        Assert.Equal(("held", own), ((string?)wrong["state"], (string?)wrong["template"]));
        Assert.Equal(
            $"It was sent as an invoice for the template skerrow-standard, whose cues do not stand on it; the template {own} is for it by its cues. Choose the right one.",
            (string?)wrong["findings"]!.AsArray().Single()!["message"]);
        Assert.Equal(200, (await service.Decide(wrong["id"], "template", new JsonObject { ["template"] = own })).Status);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{wrong["id"]}"))["state"]);
    }

    [Fact]
    public async Task What_cannot_be_taken_or_read_says_why()
    {
        await using var service = await ServiceUnderTest.Start();
        var (status, said, _) = await Send(service, "no PDF"u8.ToArray(), "batch=Programs&wait=60");
        Assert.Equal((200, "unreadable", 0), (status, (string?)said["state"], said["invoices"]!.AsArray().Count));
        Assert.EndsWith(".", (string?)said["reason"], StringComparison.Ordinal);
        Assert.Equal((422, "name-faulty"), await Send(service, [1], "name=one.pdf") is var (code, body, _) ? (code, (string?)body["code"]) : default);
        Assert.Equal((422, "wait-faulty"), await Send(service, [1], "batch=Programs&wait=61") is var (slow, late, _) ? (slow, (string?)late["code"]) : default);
        Assert.Equal((422, "document-missing"), await Send(service, [], "batch=Programs") is var (empty, none, _) ? (empty, (string?)none["code"]) : default);
        Assert.Equal(413, (await Send(service, new byte[51 << 20], "batch=Programs")).Status);
        Assert.Equal(404, (int)(await service.Http.GetAsync("captures/99")).StatusCode);
        // What no template takes is an invoice all the same, and told to be nobody's yet.
        var (_, unplaced, _) = await Send(service, Repository.SampleInvoices("port-ellery-galley").First().Bytes, "batch=Programs&wait=60");
        Assert.Equal("unplaced", (string?)unplaced["invoices"]![0]!["state"]);
        Assert.Equal(200, (await Send(service, Repository.SampleInvoices("port-ellery-galley").First().Bytes, "batch=Programs&wait=60", "text/csv")).Status);
    }

    /// <summary>The examples of the docs, as they stand there.</summary>
    [Theory]
    [InlineData("bash", "bash", "example.sh", "790.66")]
    [InlineData("javascript", "node", "example.mjs", "clear PE71010 790.66")]
    [InlineData("python", "python3", "example.py", "clear PE71010 790.66")]
    [InlineData("csharp", "dotnet", "example.cs", "clear PE71010 790.66")]
    public async Task Each_example_of_the_docs_does_what_it_says(string language, string program, string file, string prints)
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var scratch = Directory.CreateTempSubdirectory("daxlin-example-").FullName;
        var example = Examples().Matches(await File.ReadAllTextAsync(Path.Combine(Repository.Root, "docs", "PROGRAMS.md"))).Single(match => match.Groups[1].Value == language).Groups[2].Value;
        await File.WriteAllTextAsync(Path.Combine(scratch, file), example);
        await File.WriteAllBytesAsync(Path.Combine(scratch, "invoice.pdf"), Repository.SampleInvoices("port-ellery-galley").First().Bytes);
        var start = new ProcessStartInfo(program, program == "dotnet" ? ["run", file] : [file]) { WorkingDirectory = scratch, RedirectStandardOutput = true, RedirectStandardError = true };
        start.Environment["DAXLIN_SERVER"] = service.Http.BaseAddress!.GetLeftPart(UriPartial.Authority);
        using var process = Process.Start(start)!;
        var complained = process.StandardError.ReadToEndAsync();
        var said = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        Assert.True(process.ExitCode == 0 && said.Contains(prints, StringComparison.Ordinal), said + await complained);
        Directory.Delete(scratch, recursive: true);
    }

    [GeneratedRegex(@"```(bash|javascript|python|csharp)\n(.*?)```", RegexOptions.Singleline)]
    private static partial Regex Examples();
}
