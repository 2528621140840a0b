using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>No document keeps others waiting or takes the service's memory, however it is built.</summary>
public class LimitsTests
{
    [Fact]
    public async Task Documents_built_to_take_all_time_and_memory_take_neither_from_others()
    {
        await using var service = await ServiceUnderTest.Start(apart: true);
        await service.SaveTemplates(Repository.Samples);
        var (heavy, light) = (await service.OpenBatch("Heavy"), await service.OpenBatch("Light"));
        var files = Directory.GetFiles(Path.Combine(Repository.Cases, "limits"), "*.pdf").Order(StringComparer.Ordinal);
        await service.Upload(heavy, files.Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.Upload(heavy, ("forms in forms.pdf", TinyPdf.FormsInForms(deep: 9)), ("a font without end.pdf", TinyPdf.FontInflatingWithoutEnd(megabytes: 2000)));
        await service.Upload(light, Repository.SampleInvoices("port-ellery-galley"));
        Assert.Equal(6, (int)(await service.UntilDone(light))["invoices"]!["total"]!);
        var done = await service.UntilDone(heavy);
        Assert.Equal((4, 0), ((int)done["documents"]!, (int)done["waiting"]!));
        var told = (await service.Get($"batches/{heavy}/documents")).AsArray().ToDictionary(document => (string)document!["file"]!, document => (string?)document!["reasonCode"]);
        Assert.Equal("too-large", told["a font without end.pdf"]);
        Assert.NotEqual("", told["forms in forms.pdf"]);
        // Captured or set aside with a reason; nothing in between.
        Assert.All((await service.Get($"batches/{heavy}/documents")).AsArray(), document =>
            Assert.True((string?)document!["state"] == "done" || ((string?)document["reason"])!.EndsWith('.'), document.ToJsonString()));
        Assert.True(service.HighestMemory < 300, $"the service took {service.HighestMemory} MB");
    }

    /// <summary>What a stranger's bytes could make a reading process do: it tries whether it can reach the network before its first document, and says so.</summary>
    [Fact]
    public async Task A_reading_process_reaches_no_network_and_starts_no_program()
    {
        var (code, said, complained) = await ServiceUnderTest.RunToEnd("read-documents");
        Assert.Equal((0, "", ""), (code, said.Trim(), complained));
        await using var service = await ServiceUnderTest.Start(apart: true);
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Shut off");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley"));
        Assert.Equal(6, (int)(await service.UntilDone(batch))["invoices"]!["total"]!);
        var readers = service.StatusOfReaders.ToList();
        Assert.NotEmpty(readers);
        Assert.All(readers, reader => Assert.Equal(("1", "2"), (reader["NoNewPrivs"], reader["Seccomp"])));
    }

    /// <summary>Eight of one person are worked on, 200 wait their turn, and the next one is told to come again.</summary>
    [Fact]
    public async Task Too_many_uploads_of_one_person_at_once_are_refused_and_the_others_wait_their_turn()
    {
        const int atOnce = 8;
        const int waiting = 200;
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("Heavy");
        // Bodies are asked for by the service when it takes a request on; those that wait send none.
        using var handler = new SocketsHttpHandler { MaxConnectionsPerServer = 2 * waiting, Expect100ContinueTimeout = Timeout.InfiniteTimeSpan };
        using var http = new HttpClient(handler) { BaseAddress = service.Http.BaseAddress };
        var (file, mayGoOn) = (Repository.SampleInvoices("port-ellery-galley").First(), new TaskCompletionSource());
        async Task<(int Status, string Body)> Upload()
        {
            using var form = new MultipartFormDataContent { { new StalledContent(file.Bytes, mayGoOn.Task), "files", file.Name } };
            using var request = new HttpRequestMessage(HttpMethod.Post, $"batches/{batch}/documents") { Content = form, Headers = { ExpectContinue = true } };
            using var answer = await http.SendAsync(request);
            return ((int)answer.StatusCode, await answer.Content.ReadAsStringAsync());
        }
        var uploads = Enumerable.Range(0, atOnce + waiting + 1).Select(_ => Upload()).ToList();
        // None of them goes on yet, so that the first that is answered is the one too many.
        var first = await Task.WhenAny(uploads);
        var (status, body) = await first;
        Assert.Equal((429, true), (status, body.Contains($"{atOnce} such requests of", StringComparison.Ordinal) && body.Contains($"and {waiting} wait. Send this one again later.", StringComparison.Ordinal)));
        mayGoOn.SetResult();
        uploads.Remove(first);
        Assert.All(await Task.WhenAll(uploads), one => Assert.Equal(200, one.Status));
    }

    /// <summary>A body that does not end before it may.</summary>
    private sealed class StalledContent(byte[] bytes, Task mayGoOn) : HttpContent
    {
        protected override async Task SerializeToStreamAsync(Stream stream, System.Net.TransportContext? context)
        {
            // Some of it is sent, so that the request has begun.
            await stream.WriteAsync(bytes.AsMemory(0, 1));
            await stream.FlushAsync();
            await mayGoOn;
            await stream.WriteAsync(bytes.AsMemory(1));
        }

        protected override bool TryComputeLength(out long length) => (length = bytes.Length) > 0;
    }

    [Fact]
    public async Task A_pattern_that_takes_too_long_is_named_with_its_key_and_holds_nothing_else_up()
    {
        await using var service = await ServiceUnderTest.Start();
        var (status, saved) = await service.SaveTemplate("""
            {
              "name": "slow", "vendor": "Slow & Sons", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Slow and Sons"] },
              "fields": { "invoiceNumber": { "where": { "matching": "(?<!z)(([a-z]+)+)+!(?<=!)" } }, "total": { "where": { "beside": "Total" } } }
            }
            """);
        Assert.True(status == 201, saved.ToJsonString());
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch,
            ("slow.pdf", TinyPdf.OnePage(TinyPdf.Text((50, 800, "Slow and Sons"), (50, 780, new string('a', 80)), (50, 700, "Total"), (450, 700, "1.00")))),
            ("good.pdf", File.ReadAllBytes(Path.Combine(Repository.Samples, "port-ellery-galley", "port-ellery-galley-01.pdf"))));
        Assert.Equal(1, (int)(await service.UntilDone(batch))["invoices"]!["clear"]!);
        var slow = (await service.Get($"batches/{batch}/documents")).AsArray().Single(one => (string?)one!["file"] == "slow.pdf")!;
        Assert.Equal("pattern-slow", (string?)slow["reasonCode"]);
        Assert.StartsWith("A pattern took too long on this document and was given up: fields.invoiceNumber.where.matching of the template slow, (?<!z)", (string?)slow["reason"], StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(40, 60)]
    [InlineData(400, 30)]
    public async Task A_page_as_dense_as_none_is_printed_is_captured_within_the_limits(int lines, int words)
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await service.OpenBatch("November");
        var text = Enumerable.Range(0, lines).SelectMany(line => Enumerable.Range(0, words).Select(word => (30 + word * 9, 820 - line * 2, (char)('a' + (line + word) % 26) + "")));
        await service.Upload(batch, ("dense.pdf", TinyPdf.OnePage(TinyPdf.Text([(30, 830, "Port Ellery Galley Supplies"), .. text]))));
        Assert.Equal((1, 0), ((int)(await service.UntilDone(batch))["documents"]!, (int)(await service.Get($"batches/{batch}"))["unreadable"]!));
    }
}
