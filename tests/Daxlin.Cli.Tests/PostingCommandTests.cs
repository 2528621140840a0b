using System.Text.Json.Nodes;
using CsvHelper;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Layouts, codes, runs and deliveries in the terminal.</summary>
public sealed class PostingCommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

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
        (code, said, _) = await Run("layout", "names", "lines");
        Assert.Equal(0, code);
        Assert.Matches(@"lines:\s+text\s+account, [\s\S]*number\s+[\s\S]*amount, [\s\S]*yes or no\s+reversal", said);
        Assert.DoesNotContain("entryText", said, StringComparison.Ordinal);
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
        Assert.Equal(0, (await Run("vendor", "table", "--search", "halvard", "--out", At("vendors.csv"))).ExitCode);
        Assert.StartsWith("Halvard Marine Diesel Ltd,", File.ReadAllLines(At("vendors.csv"))[1], StringComparison.Ordinal);
        Assert.Equal(0, (await Run("template", "table", "--out", At("templates.tsv"))).ExitCode);
        Assert.StartsWith("template\tvendor\t", File.ReadAllText(At("templates.tsv")), StringComparison.Ordinal);
        Assert.Equal(0, (await Run("history", "table", "--act", "approved", "--out", At("history.csv"))).ExitCode);
        Assert.Contains(",approved", File.ReadAllText(At("history.csv")), StringComparison.OrdinalIgnoreCase);
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
        var (code, said, _) = await Client.Run(server, ["batch", "add", "November", .. templates.Select(template => Path.GetDirectoryName(template)!), "--wait", "--json"]);
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
    public async Task Electronic_invoices_are_tried_and_taken_in_and_a_closed_period_asks_for_a_posting_date()
    {
        var folder = Repository.Path("docs/electronic");
        var template = Path.Combine(Repository.Samples, "skerrow-sail-loft", "skerrow.template.json");
        var (code, said, _) = await Client.Run(null, ["template", "try", template, .. Directory.GetFiles(folder).Order(StringComparer.Ordinal)]);
        var flat = said.ReplaceLineEndings(" ");
        Assert.Equal(1, code);
        Assert.Contains("corrigan-rope-walk.xml, 3 pages, read as an electronic invoice", flat, StringComparison.Ordinal);
        Assert.Contains("▲ Row 2, quantity: the electronic invoice invoice.xml states 47; the page states 46 (1 less).", flat, StringComparison.Ordinal);
        Assert.Contains("The electronic invoice invoice.xml (UBL) states 27 of these figures, 8 of them otherwise.", flat, StringComparison.Ordinal);
        (code, said, _) = await Client.Run(null, "document", "words", Path.Combine(folder, "corrigan-rope-walk.xml"), "--page", "1");
        Assert.Equal((0, true), (code, said.Contains("TaxInclusiveAmount", StringComparison.Ordinal)));

        await using var service = await ServiceUnderTest.Start();
        Task<(int ExitCode, string Said, string Error)> Run(params string[] arguments) => Client.Run(service.Address, arguments);
        await service.SaveTemplate(await File.ReadAllTextAsync(template));
        (code, said, _) = await Run("batch", "add", "Electronic", folder, "--wait");
        Assert.Equal((1, true), (code, said.Contains("3 documents   1 ▲ held   2 ○ clear", StringComparison.Ordinal)));
        var xml = (await service.Invoices(1)).Single(one => ((string)one["file"]!).EndsWith(".xml", StringComparison.Ordinal));
        (code, said, _) = await Run("invoice", "show", $"{xml["id"]}");
        Assert.Contains("batch 1 “Electronic”, read as an electronic invoice", said.ReplaceLineEndings(" "), StringComparison.Ordinal);
        Assert.Equal(0, (await Run("invoice", "approve", $"{xml["id"]}")).ExitCode);

        Assert.Contains("No period is closed.", (await Run("period", "show")).Said, StringComparison.Ordinal);
        Assert.Equal(2, (await Run("period", "close", "May")).ExitCode);
        (code, said, _) = await Run("period", "close", "2026-06-30");
        Assert.Equal((0, true), (code, said.Contains("All up to 2026-06-30 is closed.", StringComparison.Ordinal)));
        (code, said, _) = await Run("posting", "rehearse", "--all-batches");
        Assert.Equal((1, true), (code, said.ReplaceLineEndings(" ").Contains("It needs --posting-date.", StringComparison.Ordinal)));
        var file = Path.Combine(scratch, "dated.csv");
        (code, _, var error) = await Run("posting", "run", "--all-batches", "--out", file);
        Assert.Equal((3, true), (code, error.Contains("1 invoice is dated in that time: CRW-4404 of 2026-05-25.", StringComparison.Ordinal)));
        Assert.Equal(0, (await Run("posting", "run", "--all-batches", "--out", file, "--posting-date", "2026-07-01")).ExitCode);
        Assert.Equal(["2026-07-01"], Posted(file).Select(row => row["postingDate"]).Distinct());
        (code, said, _) = await Run("posting", "show", "1");
        Assert.Contains("What is dated in a closed period is posted on 2026-07-01.", said, StringComparison.Ordinal);
        Assert.All(said.Split('\n'), line => Assert.True(line.Length <= 100, $"wider than 100 columns: {line}"));
        Assert.DoesNotMatch(@"\n +2026", said);
        (code, said, _) = await Run("sums", "--by", "vendor", "--state", "posted");
        Assert.Matches(@"Corrigan Rope Walk\s+1\s+11,563\.46 EUR\s+all\s+1\s+11,563\.46 EUR", said.ReplaceLineEndings(" "));
        (code, said, _) = await Run("sums", "--by", "account", "--rows", "");
        Assert.Equal((0, 6), (code, said.Split('\n').Count(line => line.Contains("CRW-4404", StringComparison.Ordinal))));
        var sums = Path.Combine(scratch, "sums.csv");
        Assert.Equal(0, (await Run("sums", "--by", "month", "--out", sums)).ExitCode);
        Assert.Equal("month,invoices,amount,currency\r\n2026-05,1,11563.46,EUR\r\n", await File.ReadAllTextAsync(sums));
        Assert.Equal(3, (await Run("sums", "--by", "colour")).ExitCode);
        Assert.Equal(3, (await Run("period", "open", "--because", "no")).ExitCode);
        Assert.Equal(0, (await Run("period", "open", "--through", "2026-05-31", "--because", "A correction of June")).ExitCode);
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
