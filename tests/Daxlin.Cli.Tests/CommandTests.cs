using System.Text.Json.Nodes;
using CsvHelper;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

public sealed class CommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

    [Fact]
    public async Task The_demo_runs_once_and_ends_well()
    {
        var (code, said, error) = await Client.Run(null, "demo", "--once", "--data", Path.Combine(scratch, "data"));
        Assert.True(code == 0, error);
        Assert.Contains("24 documents   4 ▲ held   20 ○ clear", said, StringComparison.Ordinal);
        foreach (var sentence in new[] { "5.7 × 5.29 EUR comes to 30.15 EUR", "(18,000.00 GBP more)", "The 9 lines add up to 5,104.18 GBP", "3,743.85 EUR (0.60 EUR more)" })
            Assert.Contains(sentence, said.ReplaceLineEndings(" ").Replace("      ", "", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.Contains("Posting run 1: 20 invoices, 464 rows", said, StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.True(File.Exists(Path.Combine(scratch, "data", "posting-run-1.csv")));
    }

    [Fact]
    public async Task A_held_invoice_is_found_mended_by_a_proposal_taken_back_and_returned()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Diesel");
        var folder = Path.Combine(Repository.Samples, "halvard-marine-diesel");
        await service.Upload(batch, Directory.GetFiles(folder, "*.pdf").Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        var id = $"{(await service.Get("review")).AsArray()[0]!["id"]}";

        var (code, said, _) = await Client.Run(service.Address, "review", "list");
        Assert.Equal(1, code);
        foreach (var part in new[] { "HMD/5452", "31,125.25 GBP", "(18,000.00 GBP more)" })
            Assert.Contains(part, said.ReplaceLineEndings(" ").Replace("      ", "", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        (code, said, _) = await Client.Run(service.Address, "review", "next");
        Assert.Equal((1, true), (code, said.Contains($"Invoice {id}  ▲ held", StringComparison.Ordinal)));

        (code, said, _) = await Client.Run(service.Address, "invoice", "proposals", id);
        Assert.Equal((1, true), (code, said.Contains("two figures swapped", StringComparison.Ordinal)));
        (code, said, _) = await Client.Run(service.Address, "invoice", "proposals", id, "--take", "1");
        Assert.Equal((0, true), (code, said.Contains("○ clear", StringComparison.Ordinal)));
        (code, said, _) = await Client.Run(service.Address, "invoice", "show", id);
        Assert.Contains($"✎ total: 13125.25 by {Environment.UserName}; captured was 31125.25", said, StringComparison.Ordinal);
        Assert.Equal(1, (await Client.Run(service.Address, "invoice", "correct", id, "--take-back")).ExitCode);
        (code, said, _) = await Client.Run(service.Address, "invoice", "correct", id, "total=13,125.25", "lines[1].description=Nozzle");
        Assert.Equal((0, true), (code, said.Contains("○ clear", StringComparison.Ordinal)));
        for (var step = 0; step < 2; step++)
            await Client.Run(service.Address, "invoice", "correct", id, "--take-back");
        (code, _, var error) = await Client.Run(service.Address, "invoice", "correct", id, "--let-pass", "total");
        Assert.Equal((3, true), (code, error.Contains("say why they may pass", StringComparison.Ordinal)));
        Assert.Equal(2, (await Client.Run(service.Address, "invoice", "correct", id, "total")).ExitCode);
        (code, said, _) = await Client.Run(service.Address, "invoice", "return", id, "--reason", "Two figures of the total are swapped");
        Assert.Equal(0, code);
        Assert.Contains("We return your invoice HMD/5452 of 2026-07-30", said, StringComparison.Ordinal);
        Assert.Equal((0, "Nothing is to be looked at."), ((await Client.Run(service.Address, "review", "next")) is var (last, nothing, _) ? (last, nothing.Trim()) : default));
    }

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
    public async Task An_invoice_is_set_aside_with_its_reason()
    {
        await using var service = await ServiceUnderTest.Start();
        await Client.Run(service.Address, "template", "save", Path.Combine(Repository.Samples, "port-ellery-galley", "port-ellery.template.json"));
        await Client.Run(service.Address, "batch", "add", "One", Path.Combine(Repository.Samples, "port-ellery-galley", "port-ellery-galley-01.pdf"), "--wait");
        Assert.Equal(2, (await Client.Run(service.Address, "invoice", "set-aside", "1")).ExitCode);
        var (code, said, _) = await Client.Run(service.Address, "invoice", "set-aside", "1", "--reason", "Meant for the yard.");
        Assert.Equal((0, true), (code, said.Contains("× returned", StringComparison.Ordinal)));
        (_, said, _) = await Client.Run(service.Address, "invoice", "show", "1");
        Assert.Matches("set aside by .+: Meant for the yard\\.", said);
        Assert.Equal(3, (await Client.Run(service.Address, "invoice", "set-aside", "1", "--reason", "Once more.")).ExitCode);
    }

    [Fact]
    public async Task A_template_is_chosen_a_row_divided_a_template_mended_by_what_was_corrected_and_a_batch_posted_despite_its_totals()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var folder = Path.Combine(Repository.Samples, "brinewood-chandlery");
        var template = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(folder, "brinewood.template.json")))!.AsObject();
        template["fields"]!["dueDate"] = new JsonObject { ["where"] = new JsonObject { ["beside"] = "Nowhere" }, ["required"] = false };
        await service.SaveTemplate(template.ToJsonString());
        Assert.Equal(1, (await Client.Run(service.Address, "batch", "add", "One", folder, "--wait")).ExitCode);

        var (code, said, _) = await Client.Run(service.Address, "invoice", "template", "1", "skerrow-standard");
        Assert.Equal((1, true), (code, said.Contains("captured by the template skerrow-standard, version 1", StringComparison.Ordinal)));
        (code, said, _) = await Client.Run(service.Address, "invoice", "template", "1");
        Assert.Equal((0, true), (code, said.Contains("captured by the template brinewood-standard, version 2", StringComparison.Ordinal)));
        Assert.Equal(3, (await Client.Run(service.Address, "invoice", "template", "1", "heron")).ExitCode);

        var line = (await service.Get("invoices/1"))["lines"]![0]!;
        var words = ((string)line["cells"]!["description"]!["value"]!).Split(' ');
        Assert.Equal(2, (await Client.Run(service.Address, "invoice", "correct", "1", "--divide", "lines[1]")).ExitCode);
        Assert.Equal(1, (await Client.Run(service.Address, "invoice", "correct", "1", "--divide", "lines[1]", "--add", $"description={words[^1]}")).ExitCode);
        Assert.Equal(words[^1], (string?)(await service.Get("invoices/1"))["lines"]![1]!["cells"]!["description"]!["value"]);
        Assert.Equal(0, (await Client.Run(service.Address, "invoice", "correct", "1", "--take-back")).ExitCode);

        (code, said, _) = await Client.Run(service.Address, "template", "corrections", "brinewood-standard");
        Assert.Equal((0, true), (code, said.StartsWith("Nothing was corrected in the same way on three invoices", StringComparison.Ordinal)));
        var truth = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(folder, "truth.json")))!["invoices"]!.AsArray();
        foreach (var id in Enumerable.Range(1, 3))
        {
            var file = (string?)(await service.Get($"invoices/{id}"))["document"]!["file"];
            await Client.Run(service.Address, "invoice", "correct", $"{id}", $"dueDate={truth.Single(one => (string?)one!["file"] == file)!["dueDate"]}");
        }
        (code, said, _) = await Client.Run(service.Address, "template", "corrections", "brinewood-standard");
        Assert.Equal(1, code);
        Assert.Contains("1  The due date was entered by hand on 3 invoices. Invoices 1–3.", said, StringComparison.Ordinal);
        Assert.Contains("Mended if the due date is looked for beside “Zahlbar bis” first.", said, StringComparison.Ordinal);
        var mended = Path.Combine(service.Data, "mended.json");
        Assert.Equal(2, (await Client.Run(service.Address, "template", "corrections", "brinewood-standard", "--take", "1")).ExitCode);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "corrections", "brinewood-standard", "--take", "1", "--out", mended)).ExitCode);
        Assert.Equal(0, (await Client.Run(service.Address, "template", "check", mended)).ExitCode);

        await Client.Run(service.Address, "batch", "totals", "1", "24:EUR");
        await Client.Run(service.Address, "invoice", "approve", "1");
        var csv = Path.Combine(service.Data, "run.csv");
        (code, _, var error) = await Client.Run(service.Address, "posting", "run", "--batch", "1", "--out", csv);
        Assert.Equal((3, true), (code, error.ReplaceLineEndings(" ").Contains("24 invoices in EUR were stated, 6 captured (18 less)", StringComparison.Ordinal)));
        Assert.False(File.Exists(csv));
        Assert.Equal(0, (await Client.Run(service.Address, "posting", "run", "--batch", "1", "--out", csv, "--despite", "The rest comes tomorrow")).ExitCode);
        Assert.True(File.Exists(csv));
    }

    [Fact]
    public async Task A_layout_is_tried_and_saved_a_run_rehearsed_made_shown_and_taken_back()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Diesel");
        var folder = Path.Combine(Repository.Samples, "halvard-marine-diesel");
        await service.Upload(batch, new[] { "01", "02", "03" }.Select(number => Path.Combine(folder, $"halvard-marine-diesel-{number}.pdf")).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear"))
            await service.Decide(invoice["id"], "approval");
        Task<(int ExitCode, string Said, string Error)> Run(params string[] arguments) => Client.Run(service.Address, arguments);

        var (list, good, faulty, lossy) = (At("accounts.csv"), At("coded.layout.json"), At("faulty.layout.json"), At("lossy.layout.json"));
        await File.WriteAllTextAsync(list, "word,meaning,from\nHalvard Marine Diesel Ltd,4100,\n");
        const string Layout = """
            { "name": "NAME", "tables": [{ "records": "lines", "columns": ["invoiceNumber", { "heading": "Account", "value": "list \"accounts\" at vendor" },
              { "heading": "Net", "value": "VALUE", "decimals": 2, "proves": "lines" }] }] }
            """;
        await File.WriteAllTextAsync(good, Layout.Replace("NAME", "coded", StringComparison.Ordinal).Replace("VALUE", "amount", StringComparison.Ordinal));
        await File.WriteAllTextAsync(faulty, Layout.Replace("NAME", "faulty", StringComparison.Ordinal).Replace("VALUE", "amount +", StringComparison.Ordinal));
        await File.WriteAllTextAsync(lossy, Layout.Replace("NAME", "lossy", StringComparison.Ordinal).Replace("VALUE", "amount * 0.5 rounded", StringComparison.Ordinal));

        var (code, said, error) = await Run("layout", "check", good);
        Assert.Equal((1, true), (code, Flat(said).Contains("There is no list “accounts”; there are none yet.", StringComparison.Ordinal)));
        Assert.Equal((0, "accounts, version 1: 1 entry"), ((await Run("translation", "import", "accounts", list)).ExitCode, (await Run("translation", "import", "accounts", list)).Said.Trim()));
        Assert.Contains("4100", (await Run("translation", "show", "accounts")).Said, StringComparison.Ordinal);
        Assert.Equal(0, (await Run("translation", "export", "accounts", "--out", At("again.csv"))).ExitCode);
        Assert.Equal(await File.ReadAllTextAsync(list), (await File.ReadAllTextAsync(At("again.csv"))).ReplaceLineEndings("\n"));
        (code, said, _) = await Run("layout", "check", good, faulty);
        Assert.Equal((1, true), (code, Flat(said).Contains($"{good}: in order", StringComparison.Ordinal)));
        Assert.Contains("tables[0].columns[2].value: At its character 9: A value is missing here", Flat(said), StringComparison.Ordinal);
        (code, said, _) = await Run("layout", "try", good);
        Assert.Equal((0, true), (code, Flat(said).Contains("HMD/", StringComparison.Ordinal) && Flat(said).Contains("4100", StringComparison.Ordinal)));
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        (code, said, _) = await Run("layout", "try", lossy);
        Assert.Equal((1, true), (code, Flat(said).Contains("A run would be refused.", StringComparison.Ordinal) && Flat(said).Contains("too little", StringComparison.Ordinal)));
        (code, _, error) = await Run("layout", "save", faulty);
        Assert.Equal((3, true), (code, Flat(error).Contains("At its character 9", StringComparison.Ordinal)));
        Assert.Contains("coded, version 1 saved", (await Run("layout", "save", good, lossy, "--note", "First")).Said, StringComparison.Ordinal);
        Assert.Contains("\"proves\": \"lines\"", (await Run("layout", "show", "coded")).Said, StringComparison.Ordinal);

        var id = $"{(await service.Invoices(batch))[0]["id"]}";
        Assert.Equal(0, (await Run("invoice", "rows", id, "--out", At("rows.csv"))).ExitCode);
        Assert.StartsWith("line,item code,description,", await File.ReadAllTextAsync(At("rows.csv")), StringComparison.Ordinal);
        Assert.Equal(0, (await Run("batch", "table", $"{batch}", "--out", At("batch.csv"))).ExitCode);
        Assert.Equal(4, (await File.ReadAllLinesAsync(At("batch.csv"))).Length);
        Assert.Equal(0, (await Run("review", "table", "--state", "approved", "--out", At("approved.xlsx"))).ExitCode);
        Assert.Equal("PK"u8.ToArray(), (await File.ReadAllBytesAsync(At("approved.xlsx")))[..2]);
        Assert.Equal(0, (await Run("posting", "table", "--out", At("runs.tsv"))).ExitCode);
        Assert.StartsWith("run\tmade on", await File.ReadAllTextAsync(At("runs.tsv")), StringComparison.Ordinal);

        (code, said, _) = await Run("posting", "rehearse", "--batch", $"{batch}", "--layout", "lossy");
        Assert.Equal((1, true), (code, Flat(said).Contains("It would be refused.", StringComparison.Ordinal)));
        (code, said, _) = await Run("posting", "rehearse", "--batch", $"{batch}", "--layout", "coded");
        Assert.Equal((0, true), (code, Flat(said).Contains("Nothing was posted.", StringComparison.Ordinal) && Flat(said).Contains("coded-1.csv", StringComparison.Ordinal)));
        (code, _, error) = await Run("posting", "run", "--batch", $"{batch}", "--layout", "coded");
        Assert.Equal((2, true), (code, Flat(error).Contains("--into FOLDER", StringComparison.Ordinal)));
        (code, said, _) = await Run("posting", "run", "--batch", $"{batch}", "--layout", "coded", "--into", At("ledger"));
        Assert.Equal((0, true), (code, Flat(said).Contains("Posting run 1: 3 invoices", StringComparison.Ordinal)));
        var lines = await File.ReadAllLinesAsync(At("ledger", "coded-1.csv"));
        Assert.All(lines[1..], line => Assert.Contains(",4100,", line, StringComparison.Ordinal));
        var first = $"{(await service.Invoices(batch))[0]["id"]}";
        (code, said, _) = await Run("posting", "withdraw", "1", "--because", "Wrong period", "--invoice", first, "--open", "--into", At("ledger"));
        Assert.Equal((0, true), (code, Flat(said).Contains("Posting run 2 takes 1 invoice of run 1 back", StringComparison.Ordinal)));
        Assert.StartsWith("invoiceNumber,Account,Net", await File.ReadAllTextAsync(At("ledger", "coded-2.csv")), StringComparison.Ordinal);
        (code, said, _) = await Run("posting", "show", "1");
        Assert.Equal((0, true), (code, Flat(said).Contains("back in 2", StringComparison.Ordinal) && Flat(said).Contains("Layout SHA-256", StringComparison.Ordinal)));
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Contains("takes 1 back", (await Run("posting", "list")).Said, StringComparison.Ordinal);
        Assert.Equal(0, (await Run("layout", "retire", "lossy")).ExitCode);
        Assert.Contains("retired", (await Run("layout", "list")).Said, StringComparison.Ordinal);

        // A receiver: checked, saved, reached, given a run; one that lacks its secret is given it.
        var (inbox, hook) = (At("inbox.receiver.json"), At("hook.receiver.json"));
        await File.WriteAllTextAsync(inbox, $$"""{ "name": "inbox", "folder": { "pth": "{{At("inbox")}}" } }""");
        (code, said, _) = await Run("receiver", "check", inbox);
        Assert.Equal((1, true), (code, Flat(said).Contains("line 1, folder.pth: The key “pth” is unknown here; “path” is meant, perhaps.", StringComparison.Ordinal)));
        Directory.CreateDirectory(At("inbox"));
        await File.WriteAllTextAsync(inbox, $$"""{ "name": "inbox", "folder": { "path": "{{At("inbox")}}" } }""");
        await File.WriteAllTextAsync(hook, """{ "name": "hook", "webhook": { "url": "http://localhost:1/in", "secret": "hook-key" } }""");
        (code, said, _) = await Run("receiver", "check", hook);
        Assert.Equal((0, true), (code, Flat(said).Contains("The secret “hook-key” is not kept yet: ./daxlin secret keep hook-key", StringComparison.Ordinal)));
        Assert.Contains("inbox, version 1 saved", (await Run("receiver", "save", inbox, hook)).Said, StringComparison.Ordinal);
        Assert.Equal(0, (await Run("receiver", "reach", "inbox")).ExitCode);
        Assert.Equal(1, (await Run("receiver", "reach", "hook")).ExitCode);
        (code, _, error) = await Run("posting", "run", "--all-batches", "--layout", "coded", "--deliver", "inbx");
        Assert.Equal((3, true), (code, Flat(error).Contains("There is no receiver “inbx”.", StringComparison.Ordinal)));
        (code, said, error) = await Run("posting", "deliver", "1", "inbox");
        Assert.True(code == 0 && Flat(said).Contains("Delivered to inbox (delivery 1).", StringComparison.Ordinal) && File.Exists(At("inbox", "coded-1.csv")), said + error);
        (code, _, error) = await Run("posting", "deliver", "1", "inbox");
        Assert.Equal((3, true), (code, Flat(error).Contains("To deliver it once more, say why", StringComparison.Ordinal)));
        (code, said, _) = await Run("posting", "deliver", "2", "hook");
        Assert.Equal((1, true), (code, Flat(said).Contains("Waiting for hook (delivery 2). The secret “hook-key” is not kept here yet", StringComparison.Ordinal)));
        (code, said, _) = await Run("delivery", "list", "--state", "waiting");
        Assert.Equal((0, true), (code, Flat(said).Contains("2 2 hook waiting", StringComparison.Ordinal)));
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Equal(0, (await Run("delivery", "settle", "2", "--because", "brought on a stick")).ExitCode);
        Assert.Contains("hook", (await Run("receiver", "list")).Said, StringComparison.Ordinal);
        Assert.Contains("No secrets are kept.", (await Run("secret", "list")).Said, StringComparison.Ordinal);
        Assert.Equal(3, (await Run("secret", "forget", "hook-key")).ExitCode);

        // Coding: tried, saved, said by hand, shared, and proposed as before.
        var rules = At("rules.coding.json");
        await File.WriteAllTextAsync(rules, """{ "rules": [{ "of": "all", "acount": "1" }] }""");
        (code, said, _) = await Run("coding", "try", rules);
        Assert.Equal((1, true), (code, Flat(said).Contains("rules[0].acount: The key “acount” is unknown here; “account” is meant, perhaps.", StringComparison.Ordinal)));
        Assert.Contains("No coding rules yet", (await Run("coding", "show")).Said, StringComparison.Ordinal);
        await File.WriteAllTextAsync(rules, """{ "rules": [{ "of": "all", "costCentre": "410" }] }""");
        (code, said, _) = await Run("coding", "try", rules, "--invoice", first);
        Assert.Equal((0, true), (code, Flat(said).Contains("rule 1, all: ", StringComparison.Ordinal) && Flat(said).Contains(" 410 rule 1 ", StringComparison.Ordinal)));
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.Contains("Coding rules, version 1 saved", (await Run("coding", "save", rules, "--note", "First")).Said, StringComparison.Ordinal);
        Assert.Contains("First", (await Run("coding", "versions")).Said, StringComparison.Ordinal);
        Assert.Equal(2, (await Run("coding", "set", first, "--row", "1")).ExitCode);
        Assert.Equal(2, (await Run("coding", "set", first, "--row", "1", "--share", "60,account")).ExitCode);
        (code, said, error) = await Run("coding", "set", first, "--row", "1", "--account", "6300", "--tax-code", "V20");
        Assert.True(code is 0 or 1 && Flat(said).Contains("6300 410 V20 by hand, rule 1", StringComparison.Ordinal), said + error);
        (_, said, _) = await Run("coding", "set", first, "--row", "2", "--share", "2,account=6301", "--share", "1,account=6302,costCentre=420");
        Assert.Matches("6301 410 by hand, rule 1 and [0-9,.]+ GBP 6302 420 by hand", Flat(said));
        (code, said, _) = await Run("coding", "proposals", first);
        Assert.Equal((0, true), (code, said.Contains("Nothing else is proposed", StringComparison.Ordinal)));
        Assert.Contains("6302", (await Run("invoice", "show", first)).Said, StringComparison.Ordinal);
        Assert.DoesNotContain("6302", (await Run("coding", "set", first, "--row", "2", "--as-rules-say")).Said, StringComparison.Ordinal);

        // As it reads, wherever a line ends.
        static string Flat(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

        string At(params string[] parts) => Path.Combine([scratch, .. parts]);
    }

    [Fact]
    public async Task Every_row_of_the_demo_is_posted_as_its_truth_says()
    {
        await using var service = await ServiceUnderTest.Start();
        var server = service.Address;
        var templates = Directory.GetFiles(Repository.Samples, "*.template.json", SearchOption.AllDirectories);
        Assert.Equal(4, (await Client.Json(server, ["template", "save", .. templates])).AsArray().Count);
        var (code, said, _) = await Client.Run(server, "batch", "add", "November", Repository.Samples, "--wait", "--json");
        Assert.Equal(1, code);
        var batch = JsonNode.Parse(said)!;
        Assert.Equal((24, 20, 4), ((int)batch["documents"]!, (int)batch["invoices"]!["clear"]!, (int)batch["invoices"]!["held"]!));

        var clear = batch["invoiceList"]!.AsArray().Where(invoice => (string?)invoice!["state"] == "clear").Select(invoice => $"{invoice!["id"]}");
        Assert.Equal(0, (await Client.Run(server, ["invoice", "approve", .. clear])).ExitCode);
        var file = Path.Combine(scratch, "run.csv");
        Assert.Equal(0, (await Client.Run(server, "posting", "run", "--batch", $"{batch["id"]}", "--out", file)).ExitCode);

        var posted = Posted(file);
        var truth = Repository.FamiliesOf(Repository.Samples).SelectMany(family => JsonNode.Parse(File.ReadAllText(Path.Combine(family, "truth.json")))!["invoices"]!.AsArray())
            .Where(invoice => (string?)invoice!["arithmetic"] == "consistent").Select(invoice => invoice!).ToList();
        Assert.Equal(truth.Sum(invoice => invoice["lines"]!.AsArray().Count), posted.Count);
        Assert.All(truth, invoice =>
        {
            var rows = posted.Where(row => row["invoiceNumber"] == (string?)invoice["invoiceNumber"]).ToList();
            Assert.Equal(
                invoice["lines"]!.AsArray().Select(line => ((string?)line!["itemCode"], Number(line["quantity"]), Number(line["unitPrice"]), Number(line["amount"]))),
                rows.Select(row => ((string?)row["itemCode"], decimal.Parse(row["quantity"]), decimal.Parse(row["unitPrice"]), decimal.Parse(row["amount"]))));
            Assert.All(rows, row => Assert.Equal(
                ((string?)invoice["file"], (string?)invoice["invoiceDate"], Number(invoice["total"]), Number(invoice["taxTotal"])),
                (row["file"], row["invoiceDate"], decimal.Parse(row["total"]), decimal.Parse(row["tax"]))));
            Assert.All(rows, row => Assert.InRange(int.Parse(row["page"]), 1, (int)invoice["pages"]!));
        });

        var (again, _, sentence) = await Client.Run(server, "posting", "run", "--all-batches", "--out", Path.Combine(scratch, "second.csv"));
        Assert.Equal((0, false), (again, File.Exists(Path.Combine(scratch, "second.csv"))));
        Assert.Contains("nothing to post", sentence, StringComparison.Ordinal);
        var copy = Path.Combine(scratch, "copy.csv");
        await Client.Run(server, "posting", "file", "1", "--out", copy);
        Assert.Equal(File.ReadAllBytes(file), File.ReadAllBytes(copy));
    }

    [Fact]
    public async Task Commands_print_what_a_clerk_asks_for()
    {
        await using var service = await ServiceUnderTest.Start();
        var server = service.Address;
        Assert.Contains("No batches yet", (await Client.Run(server, "batch", "list")).Out, StringComparison.Ordinal);
        await service.SaveTemplates(Repository.Samples);
        await Client.Run(server, "batch", "add", "November", Path.Combine(Repository.Samples, "halvard-marine-diesel"), "--wait");
        var held = (await Client.Json(server, "batch", "show", "1"))["invoiceList"]!.AsArray().Single(invoice => (string?)invoice!["state"] == "held")!;

        var (code, sheet, _) = await Client.Run(server, "invoice", "show", $"{held["id"]}");
        Assert.Equal(1, code);
        Assert.Contains("▲ 10,937.71 GBP plus tax 2,187.54 GBP comes to 13,125.25 GBP; the invoice states 31,125.25 GBP", sheet, StringComparison.Ordinal);
        Assert.Contains("31,125.25 GBP", sheet, StringComparison.Ordinal);
        var detail = await Client.Json(server, "invoice", "show", $"{held["id"]}");
        Assert.Equal("halvard-standard", (string?)detail["template"]);
        Assert.Contains(detail["ties"]!.AsArray(), tie => !(bool)tie!["holds"]! && (string?)tie["difference"] == "18000.00");

        var (list, templates, _) = await Client.Run(server, "template", "list");
        Assert.Equal(0, list);
        Assert.Equal(4, templates.Split('\n').Count(line => line.Contains("-standard", StringComparison.Ordinal)));
        var (_, document, _) = await Client.Run(server, "template", "show", "halvard-standard");
        var saved = Path.Combine(scratch, "again.template.json");
        await File.WriteAllTextAsync(saved, document);
        Assert.Equal(2, (int)(await Client.Json(server, "template", "save", saved))["version"]!);
        Assert.False((bool)(await Client.Json(server, "template", "save", saved))["isNew"]!);
    }

    [Fact]
    public async Task An_approval_is_bound_to_what_was_printed_last()
    {
        await using var service = await ServiceUnderTest.Start();
        var galley = Path.Combine(Repository.Samples, "port-ellery-galley");
        await service.SaveTemplates(galley);
        await Client.Run(service.Address, "batch", "add", "November", Path.Combine(galley, "port-ellery-galley-01.pdf"), Path.Combine(galley, "port-ellery-galley-02.pdf"), "--wait");
        Assert.Equal(0, (await Client.Run(service.Address, "invoice", "show", "1")).ExitCode);
        var document = await File.ReadAllTextAsync(Assert.Single(Directory.GetFiles(galley, "*.template.json")));
        await service.SaveTemplate(document.Replace("\"beside\": \"To pay\"", "\"beside\": \"Goods in all\"", StringComparison.Ordinal));
        await Client.Run(service.Address, "batch", "recapture", "1", "--wait");
        var (code, _, error) = await Client.Run(service.Address, "invoice", "approve", "1", "--despite", "It was right when I looked.");
        Assert.Equal(3, code);
        Assert.Contains("Invoice 1 is not as it was shown: it was captured again by the template port-ellery-standard, version 2", error, StringComparison.Ordinal);
        // Looked at again, or never shown, it is decided on as it is.
        await Client.Run(service.Address, "invoice", "show", "1");
        Assert.Equal(0, (await Client.Run(service.Address, "invoice", "approve", "1", "2", "--despite", "It is right as it is now.")).ExitCode);
    }

    [Fact]
    public async Task Nothing_that_a_document_holds_reaches_the_terminal_as_a_command()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, ("evil.pdf", TinyPdf.OnePage(TinyPdf.Text((50, 800, "Port Ellery Galley Supplies"), (50, 700, "Invoice"), (120, 700, "PE\u001b[2J\u0007-1"), (50, 680, "To pay"), (120, 680, "1.00")))));
        await service.UntilDone(batch);
        foreach (var arguments in new string[][] { ["batch", "show", "1"], ["invoice", "show", "1"], ["invoice", "approve", "1"] })
        {
            var (_, said, error) = await Client.Run(service.Address, arguments);
            Assert.DoesNotContain(said + error, character => char.IsControl(character) && character is not ('\n' or '\r'));
        }
    }

    [Fact]
    public async Task A_data_folder_is_looked_through_without_a_running_service()
    {
        var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, ("one.pdf", "no PDF"u8.ToArray()), ("two.pdf", "none either"u8.ToArray()), ("three.pdf", "nor this"u8.ToArray()));
        await service.UntilDone(batch);
        Assert.Equal((0, $"All is there in {service.Data}: the database and 3 documents, byte for byte."), await Check());
        await service.Terminate();
        var documents = Directory.GetFiles(Path.Combine(service.Data, "documents"), "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal).ToList();
        File.Delete(documents[0]);
        await File.AppendAllTextAsync(documents[1], "!");
        var (code, said) = await Check();
        Assert.Equal(1, code);
        Assert.Contains("are missing in the data folder", said, StringComparison.Ordinal);
        Assert.Contains("are not those that were taken in", said, StringComparison.Ordinal);
        Assert.EndsWith($"2 faults among the database and 3 documents in {service.Data}.", said, StringComparison.Ordinal);
        await File.WriteAllTextAsync(Path.Combine(service.Data, "daxlin.db"), "garbage");
        (code, said) = await Check();
        Assert.Equal(1, code);
        Assert.Contains("The database is damaged", said, StringComparison.Ordinal);
        await service.DisposeAsync();

        async Task<(int, string)> Check()
        {
            var (exit, output, error) = await Client.Run(null, "check", "--data", service.Data);
            return (exit, string.Join(' ', (output + error).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)));
        }
    }

    [Fact]
    public async Task What_cannot_be_done_is_said_in_a_sentence_with_its_exit_code()
    {
        await using var service = await ServiceUnderTest.Start();
        var server = service.Address;
        var faulty = Path.Combine(scratch, "faulty.template.json");
        await File.WriteAllTextAsync(faulty, "{\n  \"name\": \"x\",\n  \"vendr\": \"X\"\n}");
        foreach (var (exitCode, says, arguments) in new (int, string, string[])[]
        {
            (2, "There is no file or folder /nowhere; nothing was taken in.", ["batch", "add", "B", "/nowhere"]),
            (2, "There is no file none.json.", ["template", "save", "none.json"]),
            (3, "line 3, vendr: The key “vendr” is unknown here", ["template", "save", faulty]),
            (3, "There is no invoice 99.", ["invoice", "show", "99"]),
            (3, "There is no batch 99.", ["posting", "run", "--batch", "99", "--out", Path.Combine(scratch, "x.csv")]),
            (2, "cannot be written, so nothing was posted", ["posting", "run", "--all-batches", "--out", "/nowhere/x.csv"]),
            (2, "Say which approved invoices are to be posted: --batch ID, or --all-batches.", ["posting", "run", "--out", Path.Combine(scratch, "x.csv")]),
            (2, "is no address of a server", ["batch", "list", "--server", "elsewhere"]),
            (3, "No Daxlin service answers at http://localhost:1", ["batch", "list", "--server", "http://localhost:1"]),
            (2, "frobnicate", ["frobnicate"]),
        })
        {
            var (code, said, error) = await Client.Run(server, arguments);
            Assert.True(code == exitCode, $"{string.Join(' ', arguments)} ends with {code}: {said} {error}");
            Assert.Contains(says, said + error, StringComparison.Ordinal);
        }
        Assert.Empty((await service.Get("batches")).AsArray());
    }

    private static List<Dictionary<string, string>> Posted(string file)
    {
        using var csv = CsvReader.Create(File.OpenRead(file));
        var rows = new List<Dictionary<string, string>>();
        while (csv.Read())
        {
            var headers = csv.Headers.ToArray();
            rows.Add(headers.Select((name, at) => (name, value: csv.GetString(at))).ToDictionary(cell => cell.name, cell => cell.value));
        }
        return rows;
    }

    private static decimal Number(JsonNode? node) => decimal.Parse((string)node!, System.Globalization.CultureInfo.InvariantCulture);
}
