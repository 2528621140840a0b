using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>What persons decide on invoices, in the terminal.</summary>
public sealed class ReviewCommandTests : IDisposable
{
    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-cli-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

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
        // A mailbox that answers can send the letter; until it is reached, its invoice says that it waits, and why.
        (code, _, said) = await Client.Run(service.Address, "invoice", "return", id, "--reason", "Two figures of the total are swapped", "--send-to", "billing@vendor.example");
        Assert.Equal((3, true), (code, said.Contains("No mailbox here answers anybody", StringComparison.Ordinal)));
        var nowhere = new JsonObject { ["host"] = "127.0.0.1", ["port"] = Programs.FreePort(), ["encryption"] = "none" };
        var mailbox = nowhere.DeepClone().AsObject();
        (mailbox["user"], mailbox["password"], mailbox["answer"]) = ("invoices", "post", nowhere);
        nowhere["from"] = "invoices@kestrel-sound.example";
        Assert.Equal(201, (await service.Post("sources", new JsonObject { ["name"] = "post", ["batch"] = "Post", ["mailbox"] = mailbox })).Status);
        (code, said, _) = await Client.Run(service.Address, "invoice", "return", id, "--reason", "Two figures of the total are swapped", "--send-to", "billing@vendor.example");
        Assert.Equal((0, true), (code, said.Contains("A letter goes to billing@vendor.example:", StringComparison.Ordinal)));
        Assert.Contains("We return your invoice HMD/5452 of 2026-07-30", said, StringComparison.Ordinal);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); !(await Client.Run(service.Address, "invoice", "show", id)).Out.ReplaceLineEndings(" ").Contains("◦ The letter to billing@vendor.example waits to be sent. 127.0.0.1", StringComparison.Ordinal);)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1));
        Assert.Equal((0, "Nothing is to be looked at."), ((await Client.Run(service.Address, "review", "next")) is var (last, nothing, _) ? (last, nothing.Trim()) : default));
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
    public async Task What_was_shown_by_another_installation_at_the_same_address_binds_nothing()
    {
        var galley = Path.Combine(Repository.Samples, "port-ellery-galley");
        async Task<string> Captured(ServiceUnderTest service)
        {
            await service.SaveTemplates(galley);
            await Client.Run(service.Address, "batch", "add", "November", Path.Combine(galley, "port-ellery-galley-01.pdf"), "--wait");
            return service.Address;
        }

        string address;
        await using (var first = await ServiceUnderTest.Start())
        {
            address = await Captured(first);
            // It is at revision 2 when it is looked at.
            await first.Decide(1, "hand-over", new() { ["to"] = "Ida Moe" });
            Assert.Equal(0, (await Client.Run(address, "invoice", "show", "1")).ExitCode);
            await first.Terminate();
        }
        await using var second = await ServiceUnderTest.Start(port: new Uri(address).Port);
        Assert.Equal(address, await Captured(second));
        var (code, _, error) = await Client.Run(address, "invoice", "approve", "1");
        Assert.True(code == 0, error);
    }
}
