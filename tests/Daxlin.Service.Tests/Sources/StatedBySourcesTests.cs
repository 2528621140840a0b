using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Sources;

/// <summary>What cover sheets and subjects state of invoices is held against what came with them, however much else is in the batch.</summary>
public class StatedBySourcesTests
{
    /// <summary>PE71010 over 790.66, PE71017 over 1,915.03, PE71024 over 82.19 GBP.</summary>
    private static List<(string Name, byte[] Bytes)> Invoices => [.. Repository.SampleInvoices("port-ellery-galley").Take(3)];

    private static async Task<JsonObject> SheetOf(ServiceUnderTest service, string batch)
    {
        var id = (int)(await service.Get("batches")).AsArray().Single(one => (string?)one!["name"] == batch)!["id"]!;
        await service.UntilDone(id);
        return (await service.Get($"batches/{id}/sheet")).AsObject();
    }

    private static IEnumerable<string> Told(JsonObject sheet) => sheet["covers"]!.AsArray()
        .Select(cover => $"{cover!["name"]}: {cover["total"]!["statedInvoices"]?.ToString() ?? "-"} {cover["total"]!["statedSum"]?.ToString() ?? "-"} {cover["total"]!["currency"]}; {cover["total"]!["invoices"]} {cover["total"]!["sum"]}. {cover["total"]!["says"]}".TrimEnd());

    [Fact]
    public async Task Cover_sheets_in_folders_and_archives_state_what_the_invoices_beside_them_come_to()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var folder = Directory.CreateTempSubdirectory("daxlin-share-").FullName;
        foreach (var (name, bytes) in Invoices.Take(2))
        {
            Directory.CreateDirectory(Path.Combine(folder, "galley"));
            await File.WriteAllBytesAsync(Path.Combine(folder, "galley", name), bytes);
        }
        await File.WriteAllTextAsync(Path.Combine(folder, "galley", "Cover.csv"), "Currency;Invoices;Sum\r\nGBP;2;2.705,69\r\n");
        await File.WriteAllTextAsync(Path.Combine(folder, "galley", "cover of nothing.csv"), "total\n12\n");
        await using (var archive = await ZipFile.OpenAsync(Path.Combine(folder, "spring.zip"), ZipArchiveMode.Create))
        {
            foreach (var (name, bytes) in new[] { ("a.pdf", Invoices[2].Bytes), ("cover.csv", Encoding.Unicode.GetPreamble().Concat(Encoding.Unicode.GetBytes("currency\tsum\nGBP\t92.19\nEUR\t5.00")).ToArray()) })
            {
                await using var entry = await archive.CreateEntry(name).OpenAsync();
                await entry.WriteAsync(bytes);
            }
        }
        // Of nobody's cover sheet.
        await File.WriteAllBytesAsync(Path.Combine(folder, "third.pdf"), Repository.SampleInvoices("skerrow-sail-loft").First().Bytes);
        Assert.Equal(201, (await service.Post("sources", new JsonObject
        {
            ["name"] = "share",
            ["batch"] = "Autumn",
            ["totals"] = new JsonObject { ["cover"] = new JsonArray("cover*.csv") },
            ["folder"] = new JsonObject { ["path"] = folder, ["subfolders"] = true, ["settleSeconds"] = 1 },
        })).Status);
        await FolderSourceTests.Look(service);
        string[] stated =
        [
            "galley/Cover.csv: 2 2705.69 GBP; 2 2705.69.",
            "spring.zip: - 5.00 EUR; 0 0.00. 5.00 EUR were stated, the invoices come to 0.00 EUR (5.00 EUR less).",
            "spring.zip: - 92.19 GBP; 1 82.19. 92.19 GBP were stated, the invoices come to 82.19 GBP (10.00 GBP less).",
        ];
        Assert.Equal(stated, Told(await SheetOf(service, "Autumn")).Order(StringComparer.Ordinal));
        var items = await service.All("sources/share/items");
        Assert.Equal("It is a cover sheet that cannot be read. Its first line says its columns: currency, invoices and sum; one of the last two may be left out.",
            (string?)items.Single(item => (string?)item["name"] == "galley/cover of nothing.csv")["parts"]![0]!["reason"]);
        Assert.Equal(["It states any number of invoices over 92.19 GBP; any number of invoices over 5.00 EUR."],
            items.Single(item => (string?)item["name"] == "spring.zip")["parts"]!.AsArray().Where(part => (string?)part!["outcome"] == "cover").Select(part => (string?)part!["reason"]));
        Assert.True(File.Exists(Path.Combine(folder, "taken-in", "galley", "Cover.csv")) && File.Exists(Path.Combine(folder, "set-aside", "galley", "cover of nothing.csv.note.txt")));

        // Another delivery into the same folder, with a sheet of its own: both come to what both state.
        await File.WriteAllBytesAsync(Path.Combine(folder, "galley", "more.pdf"), Invoices[2].Bytes);
        await File.WriteAllTextAsync(Path.Combine(folder, "galley", "cover 2.csv"), "currency,invoices,sum\nGBP,1,82.19\n");
        await FolderSourceTests.Look(service);
        var sheet = await SheetOf(service, "Autumn");
        Assert.Contains(Told(sheet), told => told.EndsWith(": 3 2787.88 GBP; 3 2787.88.", StringComparison.Ordinal));

        // Whoever posts is asked why, with the figures.
        foreach (var invoice in await service.Invoices((int)sheet["id"]!))
            await service.Decide(invoice["id"], "approval");
        var (status, refused) = await service.PostAll();
        Assert.Equal(409, status);
        Assert.Contains("spring.zip: 92.19 GBP were stated, the invoices come to 82.19 GBP (10.00 GBP less).", (string?)refused["detail"], StringComparison.Ordinal);
        Assert.Contains("92.19", await service.Http.GetStringAsync($"batches/{sheet["id"]}/sheet/printable"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_cover_sheet_that_is_changed_where_it_stands_states_what_it_says_now()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var folder = Directory.CreateTempSubdirectory("daxlin-share-").FullName;
        await File.WriteAllBytesAsync(Path.Combine(folder, "a.pdf"), Invoices[0].Bytes);
        await File.WriteAllTextAsync(Path.Combine(folder, "cover.csv"), "currency,invoices\nGBP,2\n");
        Assert.Equal(201, (await service.Post("sources", new JsonObject
        {
            ["name"] = "share",
            ["batch"] = "Autumn",
            ["totals"] = new JsonObject { ["cover"] = new JsonArray("cover.csv") },
            ["folder"] = new JsonObject { ["path"] = folder, ["settleSeconds"] = 1, ["after"] = "leave" },
        })).Status);
        await FolderSourceTests.Look(service);
        Assert.Equal(["cover.csv: 2 - GBP; 1 790.66. 2 invoices in GBP were stated, 1 captured (1 less)."], Told(await SheetOf(service, "Autumn")));
        await File.WriteAllTextAsync(Path.Combine(folder, "cover.csv"), "currency,invoices,sum\nGBP,1,790.66\n");
        await FolderSourceTests.Look(service);
        Assert.Equal(["cover.csv: 1 790.66 GBP; 1 790.66."], Told(await SheetOf(service, "Autumn")));
        await File.WriteAllTextAsync(Path.Combine(folder, "cover.csv"), "currency,invoices\nGBP,none\n");
        await FolderSourceTests.Look(service);
        Assert.Empty(Told(await SheetOf(service, "Autumn")));
        // What it said before is on record all the same.
        Assert.Equal(["It is a cover sheet that cannot be read. Line 2: “none” is no count of invoices.", "It states 1 invoice over 790.66 GBP.", "It states 2 invoices in GBP."],
            (await service.All("sources/share/items")).Where(item => (string?)item["name"] == "cover.csv").Select(item => (string?)item["parts"]![0]!["reason"]));
    }

    [Fact]
    public async Task A_subject_states_what_a_message_s_invoices_come_to_and_its_sender_is_told_what_does_not_agree()
    {
        await using var server = await MailServer.Start();
        await using var post = new MailReceiver();
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        await server.Put(
            Letters.With("November: 2 invoices, 2,705.69 GBP", Letters.File("1.pdf", Invoices[0].Bytes), Letters.File("2.pdf", Invoices[1].Bytes)),
            Letters.With("2 invoices, 100.00 GBP", Letters.File("3.pdf", Invoices[2].Bytes), Letters.File("cover.csv", "currency,invoices\nGBP,1\n"u8.ToArray(), "text/csv")),
            Letters.With("No total", Letters.File("4.pdf", Invoices[0].Bytes)));
        await MailboxSourceTests.Save(service, server.Port, new JsonObject { ["answer"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = post.Port, ["encryption"] = "none", ["from"] = "invoices@kestrel-sound.example" } }, totals: new JsonObject
        {
            ["subject"] = "{invoices} invoices, {sum} {currency}",
            ["cover"] = new JsonArray("cover.csv"),
        });
        await MailboxSourceTests.Look(service);
        var batch = (string)(await service.Get("batches"))[0]!["name"]!;
        Assert.Equal(
            [
                "November: 2 invoices, 2,705.69 GBP: 2 2705.69 GBP; 2 2705.69.",
                "2 invoices, 100.00 GBP: 1 - GBP; 1 82.19.",
                "2 invoices, 100.00 GBP: 2 100.00 GBP; 1 82.19. 2 invoices in GBP were stated, 1 captured (1 less); 100.00 GBP were stated, the invoices come to 82.19 GBP (17.81 GBP less).",
            ], Told(await SheetOf(service, batch)));
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); post.Messages.Count < 3;)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1));
        Assert.EndsWith("1 taken in. 2 invoices in GBP were stated, 1 captured (1 less); 100.00 GBP were stated, the invoices come to 82.19 GBP (17.81 GBP less).", post.Messages.Single(message => message.Subject!.Contains("100.00", StringComparison.Ordinal)).TextBody!.TrimEnd(), StringComparison.Ordinal);
        Assert.EndsWith("2 taken in.", post.Messages.Single(message => message.Subject!.Contains("2,705.69", StringComparison.Ordinal)).TextBody!.TrimEnd(), StringComparison.Ordinal);
    }
}
