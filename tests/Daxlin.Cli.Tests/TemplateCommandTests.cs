using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Templates, as they are made, tried and kept in the terminal.</summary>
public sealed class TemplateCommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

    [Fact]
    public async Task A_template_is_checked_without_being_saved_and_every_fault_has_its_line()
    {
        await using var service = await ServiceUnderTest.Start();
        var good = Directory.GetFiles(Repository.Samples, "*.template.json", SearchOption.AllDirectories)[0];
        var bad = Path.Combine(scratch, "bad.template.json");
        await File.WriteAllTextAsync(bad, (await File.ReadAllTextAsync(good))
            .Replace("\"beside\"", "\"besides\"", StringComparison.Ordinal).Replace("\"fold\": \"down\"", "\"fold\": \"sideways\"", StringComparison.Ordinal));
        Assert.Equal(0, (await Client.Run(service.Address, "template", "check", good)).ExitCode);
        var (_, aloud, _) = await Client.Run(service.Address, "template", "check", good, "--aloud");
        Assert.Matches(@"The total is the money beside “[^”]+”", aloud.ReplaceLineEndings(" "));
        var (code, said, _) = await Client.Run(service.Address, "template", "check", good, bad);
        Assert.Equal(1, code);
        Assert.Contains($"{good}: in order", said, StringComparison.Ordinal);
        said = string.Join(' ', said.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        Assert.Contains("“sideways” is unknown here; known are none, down, allDown, up, around.", said, StringComparison.Ordinal);
        Assert.Matches(@"line \d+, fields\.\w+\.where\S*: The key “besides” is unknown here; “beside” is meant, perhaps", said);
        Assert.Empty((await Client.Json(service.Address, "template", "list")).AsArray());
    }

    [Fact]
    public async Task Templates_are_tried_and_words_shown_without_a_running_service_and_leave_no_track()
    {
        // Nothing listens there, and nothing needs to.
        const string nowhere = "http://localhost:1";
        var folder = Path.Combine(Repository.Corpus, "fuel-jspdf");
        var (template, pdf) = (Path.Combine(folder, "fuel.template.json"), Path.Combine(folder, "inv-2.pdf"));
        var (code, said, error) = await Client.Run(nowhere, "template", "try", template, pdf);
        Assert.True(code == 0, error);
        foreach (var part in new[] { "Tried  ○ clear  Kestrel Moor Fuels Ltd 83580477", "13,105.20 GBP", "Σ line amounts at 20 % = base at 20 %", "Not checked by any sum: delivery points, quantity of rows 1–5." })
            Assert.Contains(part, said, StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));

        var broken = Path.Combine(scratch, "broken.pdf");
        await File.WriteAllTextAsync(broken, "no PDF");
        (code, said, _) = await Client.Run(nowhere, "template", "try", broken, template, pdf, "--json");
        var result = JsonNode.Parse(said)!;
        Assert.Equal((1, "clear", "broken.pdf"), (code, (string?)result["invoices"]![0]!["state"], (string?)result["unreadable"]![0]!["file"]));

        var faulty = Path.Combine(scratch, "faulty.template.json");
        await File.WriteAllTextAsync(faulty, (await File.ReadAllTextAsync(template)).Replace("\"unitPrice\"", "\"unitprice\"", StringComparison.Ordinal));
        (code, said, _) = await Client.Run(nowhere, "template", "try", faulty, pdf);
        Assert.Equal(3, code);
        Assert.Contains("“unitPrice” is", string.Join(' ', said.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)), StringComparison.Ordinal);
        Assert.DoesNotContain("Tried", said, StringComparison.Ordinal);

        (code, said, _) = await Client.Run(nowhere, "document", "words", pdf, "--page", "1");
        Assert.Equal(0, code);
        Assert.Matches(@"Gas oil, low sulphur, dyed +\d+\.\d–\d+\.\d 3,500LTR", said.ReplaceLineEndings(" "));
        Assert.Equal(2, (await Client.Run(nowhere, "document", "words", pdf, "--page", "9")).ExitCode);
        var picture = Path.Combine(scratch, "words.png");
        Assert.Equal(0, (await Client.Run(nowhere, "document", "words", pdf, "--png", picture)).ExitCode);
        var png = await File.ReadAllBytesAsync(picture);
        // A PNG of the page at two dots a point: A4 is 595 by 842.
        Assert.Equal([0x89, (byte)'P', (byte)'N', (byte)'G'], png[..4]);
        Assert.Equal((1191, 1684), (System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(png.AsSpan(16)), System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(png.AsSpan(20))));
        Assert.Equal(2, (await Client.Run(nowhere, "template", "try", pdf)).ExitCode);
    }

    [Fact]
    public async Task A_template_is_drafted_into_a_file_that_captures_the_vendors_other_invoices()
    {
        const string nowhere = "http://localhost:1";
        var folder = Path.Combine(Repository.Samples, "port-ellery-galley");
        string Pdf(int number) => Path.Combine(folder, $"port-ellery-galley-0{number}.pdf");
        var target = Path.Combine(scratch, "drafted.template.json");
        var (code, said, error) = await Client.Run(nowhere, "template", "draft", Pdf(1), "--out", target);
        Assert.True(code == 0, error);
        foreach (var part in new[] { "Certain, by the figures themselves", "columns.quantity", "it multiplies out or adds up on all 4 rows", "Guesses, to be looked at", "“Port Ellery Galley Supplies”", "port-ellery-galley-01.pdf: clear, 4 lines" })
            Assert.Contains(part, said, StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Equal(0, (await Client.Run(nowhere, "template", "check", target)).ExitCode);
        Assert.Equal(0, (await Client.Run(nowhere, "template", "try", target, Pdf(1), Pdf(2))).ExitCode);

        var written = await File.ReadAllTextAsync(target);
        (code, _, error) = await Client.Run(nowhere, "template", "draft", Pdf(2), "--out", target);
        Assert.Equal((2, written), (code, await File.ReadAllTextAsync(target)));
        Assert.Contains("name another one", error, StringComparison.Ordinal);
        var letter = Path.Combine(scratch, "letter.pdf");
        await File.WriteAllBytesAsync(letter, TinyPdf.OnePage(TinyPdf.Text((50, 700, "Dear all, thank you for the day out."))));
        (code, _, error) = await Client.Run(nowhere, "template", "draft", letter, "--out", Path.Combine(scratch, "other.template.json"));
        Assert.Equal(3, code);
        Assert.Contains("Nothing on the samples looks like an invoice", error, StringComparison.Ordinal);
        Assert.Equal(2, (await Client.Run(nowhere, "template", "draft", Pdf(1))).ExitCode);
    }

    [Fact]
    public async Task A_draft_is_rehearsed_and_versions_are_compared_returned_to_renamed_and_retired()
    {
        await using var service = await ServiceUnderTest.Start();
        var folder = Path.Combine(Repository.Samples, "brinewood-chandlery");
        var file = Path.Combine(folder, "brinewood.template.json");
        await Client.Run(service.Address, "template", "save", file);
        await Client.Run(service.Address, "batch", "add", "November", folder, "--wait");
        Assert.Equal(0, (await Client.Run(service.Address, "template", "rehearse", file)).ExitCode);
        await Client.Run(service.Address, "invoice", "approve", "1");

        var draft = JsonNode.Parse(await File.ReadAllTextAsync(file))!;
        draft["blocks"]![0]!["columns"]!.AsObject().Remove("unit");
        var changed = Path.Combine(scratch, "changed.template.json");
        await File.WriteAllTextAsync(changed, draft.ToJsonString());
        var (code, said, error) = await Client.Run(service.Address, "template", "rehearse", changed);
        Assert.True(code == 1, error);
        foreach (var part in new[] { "brinewood-standard, against version 1: 6 documents", "     1  approved or posted, with other values", "invoice 1, brinewood-chandlery-01.pdf: approved, would be clear", "lines[1].unit: m → –", "lines[].unit: " })
            Assert.Contains(part, said, StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Equal(3, (await Client.Run(service.Address, "template", "rehearse", changed, "--batch", "9")).ExitCode);
        Assert.Equal(2, (await Client.Run(service.Address, "template", "rehearse", Path.Combine(scratch, "nothing"))).ExitCode);

        (_, said, _) = await Client.Run(service.Address, "template", "save", changed, "--note", "Without units");
        Assert.Contains("brinewood-standard, version 2 saved; 1 document is captured anew", said, StringComparison.Ordinal);
        (_, said, _) = await Client.Run(service.Address, "template", "history", "brinewood-standard");
        Assert.Matches(@"2 +2\d{3}-.* Without units", said);
        (code, said, _) = await Client.Run(service.Address, "template", "compare", "brinewood-standard");
        Assert.Equal(1, code);
        Assert.Contains("blocks.goods.columns.unit", said, StringComparison.Ordinal);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "return", "brinewood-standard", "--version", "1")).ExitCode);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "compare", "brinewood-standard", "--from", "1")).ExitCode);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "rename", "brinewood-standard", "--to", "brinewood")).ExitCode);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "retire", "brinewood", "--note", "Gone")).ExitCode);
        (code, _, error) = await Client.Run(service.Address, "template", "retire", "brinewood");
        Assert.Equal(3, code);
        Assert.Contains("is retired already", error, StringComparison.Ordinal);
        (_, said, _) = await Client.Run(service.Address, "template", "list");
        Assert.Matches(@"brinewood .* 2 .* retired", said);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "bring-back", "brinewood")).ExitCode);
    }

    [Fact]
    public async Task A_tried_invoice_says_which_pages_are_its_own()
    {
        var folder = Path.Combine(Repository.Corpus, "minasoko-reportlab");
        var (_, output, _) = await Client.Run(null, "template", "try", Path.Combine(folder, "minasoko.template.json"), Path.Combine(folder, "inv-3.pdf"), Path.Combine(folder, "multi.pdf"), "--json");
        var invoices = JsonNode.Parse(output)!["invoices"]!.AsArray();
        // The first of three pages is a cover; of a file with several invoices each has pages of its own.
        Assert.Equal(["[2,3]", "[1]", "[2,3]", "[4]"], invoices.Select(invoice => invoice!["capturedPages"]!.ToJsonString()));
    }
}
