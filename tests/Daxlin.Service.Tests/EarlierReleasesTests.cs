using System.Formats.Tar;
using System.IO.Compression;
using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Sources;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>What any earlier release stored is all there, proved, and goes on: the same invoices, states and sums, and templates that still capture the same.</summary>
public class EarlierReleasesTests
{
    public static TheoryData<string> Folders => [.. Directory.GetFiles(Path.Combine(Repository.Root, "tests", "data-folders"), "*.tar.gz").Select(file => Path.GetFileName(file)).Order(StringComparer.Ordinal)];

    private static readonly string[] Stored =
    [
        "26/610 clear 32741.53", "26/613 clear 50706.26", "26/616 clear 3079.65", "PE71010 posted 790.66", "PE71017 posted 1915.03", "PE71024 approved 82.19",
    ];

    [Theory]
    [MemberData(nameof(Folders))]
    public async Task A_data_folder_of_an_earlier_release_is_taken_over_and_goes_on(string packed)
    {
        var data = Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        await using (var file = File.OpenRead(Path.Combine(Repository.Root, "tests", "data-folders", packed)))
        await using (var unpacked = new GZipStream(file, CompressionMode.Decompress))
            await TarFile.ExtractToDirectoryAsync(unpacked, data, overwriteFiles: true);
        await using var service = await ServiceUnderTest.Start(data, isOwnStore: true);
        var batch = await service.FirstBatch();
        Assert.Equal(Stored, await States(service, batch));
        Assert.True((bool)(await service.Get("history/verify"))["isWhole"]!);
        var first = await service.Http.GetStringAsync("posting-runs/1/file");
        Assert.All(["PE71010", "PE71017"], number => Assert.Contains(number, first, StringComparison.Ordinal));
        Assert.DoesNotContain("PE71024", first, StringComparison.Ordinal);
        foreach (var invoice in await service.Invoices(batch))
            Assert.Equal((string?)invoice["invoiceNumber"], (string?)(await service.Get($"invoices/{invoice["id"]}"))["fields"]!["invoiceNumber"]!["value"]);

        // Templates of then capture by the release of now what they captured then.
        Assert.Equal(200, (await service.Post($"batches/{batch}/recapture", new JsonObject())).Status);
        Assert.Equal(0, (int)(await service.UntilDone(batch))["waiting"]!);
        Assert.Equal(Stored, await States(service, batch));

        // What waited to be posted is posted, with what is approved now, and nothing twice.
        var clear = (await service.Invoices(batch)).Single(invoice => (string?)invoice["invoiceNumber"] == "26/616");
        Assert.Equal(200, (await service.Decide(clear["id"], "approval")).Status);
        var (status, run) = await service.PostAll();
        Assert.Equal((201, 2, 2), (status, (int)run["number"]!, (int)run["invoices"]!));
        Assert.Equal(["82.19", "3079.65"], run["sums"]!.AsObject().Select(sum => (string)sum.Value!).OrderBy(decimal.Parse));
        await WhatASourceTookIsNotTakenAgain(service);
        Assert.Contains("\"faults\":[]", (await ServiceUnderTest.RunToEnd("check-data", "--data", data)).Said, StringComparison.Ordinal);
    }

    /// <summary>A file that stays in a watched folder is known by its place below it and its bytes, wherever the folder is now.</summary>
    private static async Task WhatASourceTookIsNotTakenAgain(ServiceUnderTest service)
    {
        if ((await service.All("sources")).Count == 0)
            return;
        var folder = Directory.CreateTempSubdirectory("daxlin-share-").FullName;
        foreach (var invoice in Repository.SampleInvoices("halvard-marine-diesel").Skip(3).Take(3))
            await File.WriteAllBytesAsync(Path.Combine(folder, invoice.Name), invoice.Bytes);
        var source = new JsonObject { ["name"] = "share", ["batch"] = "Share", ["folder"] = new JsonObject { ["path"] = folder, ["settleSeconds"] = 1, ["after"] = "leave" } };
        Assert.Equal(201, (await service.Post("sources", source)).Status);
        await FolderSourceTests.Look(service);
        Assert.Equal(["halvard-marine-diesel-04.pdf", "halvard-marine-diesel-05.pdf", "halvard-marine-diesel-06.pdf"], (await service.All("sources/share/items")).Select(item => (string?)item["name"]).Order());
    }

    private static async Task<string[]> States(ServiceUnderTest service, int batch) =>
        [.. (await service.Invoices(batch)).Select(invoice => $"{invoice["invoiceNumber"]} {invoice["state"]} {invoice["total"]}").Order(StringComparer.Ordinal)];
}
