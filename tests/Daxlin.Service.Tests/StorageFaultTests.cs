using System.Diagnostics;
using System.Text.Json.Nodes;
using Daxlin.Testing;
using Microsoft.Data.Sqlite;

namespace Daxlin.Service.Tests;

/// <summary>Faults of disks and databases are told in sentences, lose nothing, and mend where they can.</summary>
public class StorageFaultTests
{
    private const string OfFiles = "The database is no file of the folder.";

    private static readonly byte[] Pdf = File.ReadAllBytes(Path.Combine(Repository.Samples, "port-ellery-galley", "port-ellery-galley-01.pdf"));

    private static async Task<string> FolderWithOneInvoice()
    {
        var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, [("one.pdf", Pdf)]);
        await service.UntilDone(batch);
        Assert.Equal(0, await service.Terminate());
        return service.Data;
    }

    private static Task<(int ExitCode, string Said)> Refused(string data) => ServiceUnderTest.Refused("--data", data, "--port", "0", "--ends-with-input");

    private static string DocumentOf(string data) => Assert.Single(Directory.GetFiles(Path.Combine(data, "documents"), "*", SearchOption.AllDirectories));

    [Fact]
    public async Task A_start_takes_over_what_a_start_that_was_killed_left()
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, OfFiles);
        var data = await FolderWithOneInvoice();
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(data, "daxlin.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = "CREATE TABLE IF NOT EXISTS \"__EFMigrationsLock\" (\"Id\" INTEGER PRIMARY KEY, \"Timestamp\" TEXT NOT NULL); INSERT OR IGNORE INTO \"__EFMigrationsLock\" VALUES (1, '2026-11-26');";
            await command.ExecuteNonQueryAsync();
        }
        await File.WriteAllTextAsync(Path.Combine(data, "incoming", "left-by-a-kill"), "half an upload");
        await using var service = await ServiceUnderTest.Start(data);
        Assert.Equal("clear", (string?)(await service.Get("invoices/1"))["state"]);
        Assert.False(File.Exists(Path.Combine(data, "incoming", "left-by-a-kill")));
    }

    [Fact]
    public async Task Nobody_but_its_owner_can_look_into_the_data_folder()
    {
        await using var service = await ServiceUnderTest.Start(await FolderWithOneInvoice());
        Assert.All(Directory.GetDirectories(service.Data, "*", SearchOption.AllDirectories).Append(service.Data), one => Assert.Equal("700", ModeOf(one)));
        Assert.All(Directory.GetFiles(service.Data, "*", SearchOption.AllDirectories), one => Assert.Equal("600", ModeOf(one)));
    }

    [Fact]
    public async Task A_database_that_is_gone_beside_documents_is_not_begun_anew()
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, OfFiles);
        var data = await FolderWithOneInvoice();
        foreach (var file in Directory.GetFiles(data, "daxlin.db*"))
            File.Delete(file);
        var (code, said) = await Refused(data);
        Assert.Equal(4, code);
        Assert.StartsWith($"{data} holds documents but no database (daxlin.db). Restore", said, StringComparison.Ordinal);
        Directory.Delete(data, recursive: true);
    }

    [Theory]
    [InlineData("garbage from its first byte")]
    [InlineData(null)]
    public async Task A_database_that_is_damaged_is_said_to_be(string? content)
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, OfFiles);
        var data = await FolderWithOneInvoice();
        var file = Path.Combine(data, "daxlin.db");
        if (content is not null)
            await File.WriteAllTextAsync(file, content);
        else
            await using (var stream = File.OpenWrite(file))
                stream.SetLength(stream.Length / 2);
        var (code, said) = await Refused(data);
        Assert.Equal(4, code);
        Assert.StartsWith("The database is damaged", said, StringComparison.Ordinal);
        Assert.Contains("restore the data folder from a backup", said, StringComparison.Ordinal);
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task Pages_of_the_database_overwritten_while_it_runs_show_in_its_health_and_in_no_trace()
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, OfFiles);
        var data = await FolderWithOneInvoice();
        var file = Path.Combine(data, "daxlin.db");
        await using (var stream = File.OpenWrite(file))
        {
            // All but the first pages, which hold the schema.
            stream.Position = 4096 * 3;
            var garbage = new byte[stream.Length - stream.Position];
            new Random(7).NextBytes(garbage);
            await stream.WriteAsync(garbage);
        }
        var start = await Refused(data);
        Assert.Equal(4, start.ExitCode);
        Assert.StartsWith("The database is damaged", start.Said, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", start.Said, StringComparison.Ordinal);
        Directory.Delete(data, recursive: true);
    }

    [Theory]
    [InlineData(false, "document-missing", "are missing in the data folder")]
    [InlineData(true, "document-altered", "are not those that were taken in")]
    public async Task A_document_that_is_lost_or_altered_is_told_and_mended_when_it_is_taken_in_again(bool isAltered, string code, string says)
    {
        var data = await FolderWithOneInvoice();
        var document = DocumentOf(data);
        if (isAltered)
            await File.WriteAllBytesAsync(document, [.. Pdf[..^1], (byte)'!']);
        else
            File.Delete(document);
        await using var service = await ServiceUnderTest.Start(data);
        foreach (var path in new[] { $"documents/{Path.GetFileName(document)}", $"documents/{Path.GetFileName(document)}/pages" })
        {
            using var answer = await service.Http.GetAsync(new Uri(path, UriKind.Relative));
            var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
            Assert.Equal((code, true), ((string?)problem["code"], (int)answer.StatusCode is 410 or 422));
            Assert.Contains(says, (string?)problem["detail"], StringComparison.Ordinal);
        }
        // Captured again, it keeps what was captured while it was whole.
        await service.Post("batches/1/recapture", new JsonObject());
        Assert.Equal(1, (int)(await service.UntilDone(1))["unreadable"]!);
        Assert.Equal("clear", (string?)(await service.Get("invoices/1"))["state"]);
        Assert.Contains(says, (string?)(await service.Get("batches/1/documents"))[0]!["reason"], StringComparison.Ordinal);

        var again = await service.Upload(1, [("one.pdf", Pdf)]);
        Assert.Equal("The batch holds this document as one.pdf; its bytes are mended.", (string?)again[0]!["reason"]);
        Assert.Equal(0, (int)(await service.UntilDone(1))["unreadable"]!);
        Assert.Equal(Pdf, await service.Http.GetByteArrayAsync(new Uri($"documents/{Path.GetFileName(document)}", UriKind.Relative)));
    }

    [Fact]
    public async Task On_a_full_disk_nothing_is_lost_and_work_goes_on_by_itself_when_there_is_room()
    {
        var disk = Directory.CreateTempSubdirectory("daxlin-full-").FullName;
        var data = Path.Combine(disk, "data");
        Assert.SkipUnless(await Sh("mount", "-t", "tmpfs", "-o", "size=4m", "tmpfs", disk) == 0, "A small file system can be mounted by root only.");
        try
        {
            await using var service = await ServiceUnderTest.Start(data);
            await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
            var batch = await service.OpenBatch("November");
            var filler = Path.Combine(disk, "filler");
            await Sh("dd", "if=/dev/zero", $"of={filler}", "bs=64k");
            using var form = new MultipartFormDataContent { { new ByteArrayContent(Pdf), "files", "one.pdf" } };
            using var refused = await service.Http.PostAsync(new Uri($"batches/{batch}/documents", UriKind.Relative), form);
            var problem = JsonNode.Parse(await refused.Content.ReadAsStringAsync())!;
            Assert.Equal((507, "disk-full"), ((int)refused.StatusCode, (string?)problem["code"]));
            Assert.StartsWith("The disk of the data folder is full", (string?)problem["detail"], StringComparison.Ordinal);

            File.Delete(filler);
            Assert.Equal("taken", (string?)(await service.Upload(batch, [("one.pdf", Pdf)]))[0]!["outcome"]);
            Assert.Equal(1, (int)(await service.UntilDone(batch))["invoices"]!["clear"]!);
            // Full again while a capture waits: it says so, and goes on when there is room.
            await Sh("dd", "if=/dev/zero", $"of={filler}", "bs=4k");
            var (status, _) = await service.Post($"batches/{batch}/recapture", new JsonObject());
            File.Delete(filler);
            if (status != 200)
                Assert.Equal(507, status);
            Assert.Equal(1, (int)(await service.UntilDone(batch))["invoices"]!["clear"]!);
            Assert.True((bool)(await service.Get("state"))["isWell"]!);
        }
        finally
        {
            await Sh("umount", "-l", disk);
            Directory.Delete(disk);
        }
    }

    private static string ModeOf(string path) => OperatingSystem.IsWindows() ? "" : Convert.ToString((int)File.GetUnixFileMode(path), 8);

    private static async Task<int> Sh(string program, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardError = true })!;
        await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        return process.ExitCode;
    }
}
