using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>What all commands have in common: the demo, what they print, what they refuse.</summary>
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

        var (well, operation, _) = await Client.Run(server, "operation", "show");
        Assert.Equal(0, well);
        Assert.StartsWith("● All is well.", operation, StringComparison.Ordinal);
        Assert.Contains("Waiting: 0 documents; 0 deliveries, and 0 given up.", operation, StringComparison.Ordinal);
        Assert.Contains("Last backup: none was made yet", operation, StringComparison.Ordinal);
        Assert.Contains("There is no service “three”", (await Client.Run(server, "operation", "forget", "three")).Error, StringComparison.Ordinal);

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
    public async Task What_is_stored_is_backed_up_while_it_works_and_put_back_elsewhere()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(3));
        await service.UntilDone(batch);
        var (backup, elsewhere) = (Path.Combine(scratch, "backup"), Path.Combine(scratch, "elsewhere"));
        async Task<(int, string)> Run(params string[] arguments)
        {
            var (exit, output, error) = await Client.Run(null, arguments);
            return (exit, string.Join(' ', (output + error).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)));
        }
        var (code, said) = await Run("backup", backup, "--data", service.Data);
        Assert.Equal(0, code);
        Assert.Matches(@"^Backed up: 3 documents \(0\.\d MB\), 1 batch, 3 invoices, 0 posting runs, \d+ entries of the history\. Each document has its hash, and the history is whole\.$", said);
        (code, said) = await Run("backup", backup, "--data", service.Data);
        Assert.Equal((2, $"There is something in {backup} already. A backup wants a folder of its own. It was not done."), (code, said));
        (code, said) = await Run("restore", backup, "--data", elsewhere);
        Assert.Equal(0, code);
        Assert.StartsWith("Restored: 3 documents", said, StringComparison.Ordinal);
        await using var again = await ServiceUnderTest.Start(elsewhere);
        Assert.Equal(3, (await again.Invoices(batch)).Count);
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
}
