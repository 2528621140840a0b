using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Reading.Pictures;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Scans and pictures go the way of print, from taking in to posting.</summary>
public class ScanTests
{
    private static readonly string[] Printed = [.. new[] { "skerrow-sail-loft/skerrow-sail-loft-01", "port-ellery-galley/port-ellery-galley-01", "port-ellery-galley/port-ellery-galley-03" }
        .Select(name => Path.Combine(Repository.Samples, name + ".pdf"))];

    private static List<(string Of, string Value, JsonNode? Box)> ValuesOf(JsonNode invoice) =>
    [
        .. invoice["fields"]!.AsObject().Select(field => (field.Key, (string)field.Value!["value"]!, field.Value!["box"])),
        .. invoice["lines"]!.AsArray().SelectMany((line, row) => line!["cells"]!.AsObject().Select(cell => ($"lines[{row + 1}].{cell.Key}", (string)cell.Value!["value"]!, cell.Value!["box"]))),
    ];

    private static async Task<JsonNode> Single(ServiceUnderTest service, int batch, string file) =>
        await service.Get($"invoices/{(await service.Invoices(batch)).Single(one => (string?)one["file"] == file)["id"]}");

    [Fact]
    public async Task What_is_scanned_is_captured_as_what_is_printed_and_recognised_once()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var (print, scans) = (await service.OpenBatch("Print"), await service.OpenBatch("Scans"));
        await service.Upload(print, Printed.Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(print);
        var photo = await ScannedPdf.PictureOf(Printed[1], PageRaster.Dpi);
        await service.Upload(scans, [("0.pdf", await ScannedPdf.Of(Printed[0])), ("1.png", PngFile.Of(photo.Width, photo.Height, photo.Dots)), ("2.pdf", await ScannedPdf.Of(Printed[2]))]);
        var done = await service.UntilDone(scans);
        Assert.Equal((0, 3, true), ((int)done["unreadable"]!, (int)done["invoices"]!["total"]!, done["recognising"] is null));

        for (var at = 0; at < Printed.Length; at++)
        {
            var (own, scanned) = (await Single(service, print, Path.GetFileName(Printed[at])), await Single(service, scans, at == 1 ? "1.png" : $"{at}.pdf"));
            var values = ValuesOf(scanned).ToDictionary(one => one.Of);
            Assert.Contains(scanned["findings"]!.AsArray(), finding => (string?)finding!["code"] == "seen-before");
            foreach (var (of, value, box) in ValuesOf(own).Where(one => one.Value.Any(char.IsAsciiDigit) && !one.Of.EndsWith(".description", StringComparison.Ordinal)))
            {
                Assert.True(value == values[of].Value, $"{Printed[at]}: {of} is {values[of].Value} instead of {value}");
                if (box is null)
                    continue;
                foreach (var side in new[] { "left", "top", "right", "bottom" })
                    Assert.InRange((double)values[of].Box![side]! - (double)box[side]!, -5, 5);
            }
        }

        // Captured again, nothing is recognised again; what is lost is, and the picture is shown upright.
        var kept = Directory.GetFiles(Path.Combine(service.Data, "recognised"), "*", SearchOption.AllDirectories);
        Assert.Equal(4, kept.Length);
        var before = kept.ToDictionary(file => file, File.GetLastWriteTimeUtc);
        await service.Post($"batches/{scans}/recapture", new JsonObject());
        await service.UntilDone(scans);
        Assert.All(kept, file => Assert.Equal(before[file], File.GetLastWriteTimeUtc(file)));
        var sha256 = (string)(await Single(service, scans, "1.png"))["document"]!["sha256"]!;
        Directory.Delete(Path.Combine(service.Data, "recognised"), recursive: true);
        var shown = await service.Http.GetByteArrayAsync(new Uri($"documents/{sha256}/pages/1/picture", UriKind.Relative));
        Assert.Equal((photo.Width, photo.Height), (PictureFile.Page(shown, 1).Width, PictureFile.Page(shown, 1).Height));
        using var of0 = await service.Http.GetAsync(new Uri($"documents/{(await Single(service, scans, "0.pdf"))["document"]!["sha256"]}/pages/1/picture", UriKind.Relative));
        Assert.Equal(404, (int)of0.StatusCode);
    }

    /// <summary>What was read in two ways is proposed in both, and settled by one correction.</summary>
    [Fact]
    public async Task A_doubtful_reading_is_settled_by_taking_the_other()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Scans");
        await service.Upload(batch, [("scan.pdf", await ScannedPdf.Of(Printed[2]))]);
        await service.UntilDone(batch);
        var invoice = await Single(service, batch, "scan.pdf");
        var doubt = Assert.Single(invoice["findings"]!.AsArray(), finding => (string?)finding!["code"] == "reading-doubtful")!;
        var of = (string)doubt["about"]![0]!;
        var readings = doubt["readings"]!.AsArray().Select(one => (string)one!).ToList();
        Assert.All(readings, reading => Assert.Contains(reading, (string)doubt["message"]!, StringComparison.Ordinal));
        var proposals = (await service.Get($"invoices/{invoice["id"]}/proposals")).AsArray();
        Assert.Equal(readings.Select(reading => ("enter", of, reading)), proposals.Select(one => ((string)one!["act"]!, (string)one["of"]!, (string)one["value"]!)));
        Assert.All(proposals, one => Assert.NotNull(one!["place"]));
        var (status, after) = await service.Decide(invoice["id"], "corrections", new JsonObject { ["act"] = "enter", ["of"] = of, ["text"] = readings[^1] });
        Assert.Equal(200, status);
        Assert.Equal((readings[^1], "clear"), ((string?)after["entered"]![of]!["value"], (string?)after["state"]));
    }

    [Fact]
    public async Task A_bomb_a_fax_of_many_pages_and_a_page_without_a_word_are_set_aside_and_the_rest_is_done()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Scans");
        var bomb = PngFile.Of(10, 10, new byte[100]);
        new byte[] { 0, 0, 0x9C, 0x40, 0, 0, 0x9C, 0x40 }.CopyTo(bomb, 16);
        byte[] endless = [.. "II*\0"u8, 8, 0, 0, 0, 0, 0, 8, 0, 0, 0];
        var blank = Enumerable.Repeat((byte)255, 800 * 1100).ToArray();
        await service.Upload(batch, [("bomb.png", bomb), ("endless.tif", endless), ("blank.png", PngFile.Of(800, 1100, blank)), ("mixed.pdf", await ScannedPdf.Behind(TinyPdf.Text((50, 780, "Dear colleagues, the invoice is on the next page")), Printed[0]))]);
        await service.UntilDone(batch);
        var documents = (await service.Get($"batches/{batch}/documents")).AsArray().ToDictionary(one => (string)one!["file"]!, one => ((string)one!["state"]!, (string)one["reasonCode"]!));
        Assert.Equal([("unreadable", "too-large"), ("unreadable", "too-large"), ("unreadable", "no-text"), ("done", "")], new[] { "bomb.png", "endless.tif", "blank.png", "mixed.pdf" }.Select(file => documents[file]));
        var mixed = await Single(service, batch, "mixed.pdf");
        Assert.Equal(("26/610", 2), ((string)mixed["fields"]!["invoiceNumber"]!["value"]!, (int)mixed["lastPage"]!));
        Assert.Equal("32741.53", ((string)mixed["fields"]!["total"]!["value"]!).ToString(CultureInfo.InvariantCulture));
    }
}
