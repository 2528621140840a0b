using System.Diagnostics;
using System.Globalization;
using System.Text;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;
using Daxlin.ServiceBench;
using Daxlin.Testing;
using Spectre.Console;

// How fast the service is over HTTP, beside the same capture in one process on the same cores, in one run.
//   Daxlin.ServiceBench FOLDER INVOICES     made invoices of the demo's vendors to capture, invoices in the store for the lists
//   Daxlin.ServiceBench --posting INVOICES    how long posting runs over so many invoices take, by layout
//   Daxlin.ServiceBench --nodes FOLDER      documents a second of one service and of two on one database server, by processors
//   Daxlin.ServiceBench --sign-in TRIES     how long refused sign-ins take, by why they are refused
if (args[0] == "--sign-in")
{
    await SignInBench.Run(int.Parse(args[1], CultureInfo.InvariantCulture));
    return;
}
if (args[0] == "--nodes")
{
    await NodesBench.Run(args[1]);
    return;
}
if (args[0] == "--posting")
{
    await PostingBench.Run(int.Parse(args[1], CultureInfo.InvariantCulture), args.Length > 2 ? args[2..] : null);
    return;
}
var stored = int.Parse(args[1], CultureInfo.InvariantCulture);
var own = Directory.GetFiles(Repository.Samples, "*.template.json", SearchOption.AllDirectories).Select(File.ReadAllText).ToList();
var batch = Directory.GetFiles(args[0], "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal)
    .Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))).ToList();
var documents = batch.Count;

var table = new Table { Border = TableBorder.Simple };
table.AddColumns("documents / s", "5 templates", "5,000 templates");
var (rates, peaks, times) = (new List<double>(), new List<string>(), new List<string>());
var listsOnly = args.Contains("--lists");
foreach (var templates in listsOnly ? [] : new[] { 5, 5000 })
{
    await using var service = await ServiceUnderTest.Start(apart: true);
    foreach (var document in MadeTemplates.Of(own, templates))
        await service.SaveTemplate(document);
    var warm = await service.OpenBatch("Warm");
    await service.Upload(warm, Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
    await service.UntilDone(warm);
    var id = await service.OpenBatch("Bench");
    var (before, readersBefore, ownBefore) = (service.ProcessorTime, service.ProcessorTimeOfReaders, Environment.CpuUsage.TotalTime);
    var watch = Stopwatch.StartNew();
    foreach (var part in batch.Chunk(25))
        await service.Upload(id, part);
    var done = await service.UntilDone(id);
    rates.Add(documents / watch.Elapsed.TotalSeconds);
    if ((int)done["documents"]! != documents || (int)done["unreadable"]! > 0)
        throw new InvalidOperationException($"{done.ToJsonString()} {(await service.Get($"batches/{id}/documents"))[0]!.ToJsonString()}");
    times.Add(string.Create(CultureInfo.InvariantCulture, $"service {PerDocument(service.ProcessorTime - before)}, readers {PerDocument(service.ProcessorTimeOfReaders - readersBefore)}, uploading {PerDocument(Environment.CpuUsage.TotalTime - ownBefore)}"));
    peaks.Add($"{service.HighestMemory} MB, readers {string.Join(" and ", service.HighestMemoryOfReaders)} MB");
}
TemplateSet set = [.. own.Select(TemplateReader.Read)];
if (!listsOnly)
{
    table.AddRow("service, upload to stored result", Rate(rates[0]), Rate(rates[1]));
    _ = Capture(batch.Take(8));
    var (yard, yardBefore) = (Stopwatch.StartNew(), Environment.CpuUsage.TotalTime);
    _ = Capture(batch);
    var inProcess = documents / yard.Elapsed.TotalSeconds;
    table.AddRow("capture in one process, same cores", Rate(inProcess), string.Create(CultureInfo.InvariantCulture, $"{PerDocument(Environment.CpuUsage.TotalTime - yardBefore)} ms a document"));
    table.AddRow("service ÷ in process", (rates[0] / inProcess).ToString("F2", CultureInfo.InvariantCulture), (rates[1] / inProcess).ToString("F2", CultureInfo.InvariantCulture));
    table.AddRow("processor time, ms a document", times[0], times[1]);
    table.AddRow("most memory of the service", peaks[0], peaks[1]);
    AnsiConsole.Write(table);
}

var lists = new Table { Border = TableBorder.Simple };
lists.AddColumns($"first part of a list, {stored.ToString("N0", CultureInfo.InvariantCulture)} invoices stored", "ms, median of 9");
await using (var service = await StoredInvoices.Start(stored))
{
    foreach (var path in new[]
    {
        "batches", "templates", "posting-runs", "batches/1/invoices", "batches/1/documents", "review", "review?order=amount", "review?order=vendor", "review?order=age",
        "review?search=N-99", "review?search=no+such+number", "review?vendor=Vendor+123", "review?limit=1", $"review?limit=1&after={stored / 2}", "batches/1/sheet", "figures", "vendors", "vendors/7",
        "history", "history?vendor=7", "history?invoice=7",
    })
    {
        var answers = new List<double>();
        for (var round = 0; round < 9; round++)
        {
            var watch = Stopwatch.StartNew();
            _ = await service.Get(path);
            answers.Add(watch.Elapsed.TotalMilliseconds);
        }
        lists.AddRow(path, answers.Order().ElementAt(4).ToString("F0", CultureInfo.InvariantCulture));
    }
}
AnsiConsole.Write(lists);
return;

double PerDocument(TimeSpan time) => Math.Round(time.TotalMilliseconds / documents, 1);

static string Rate(double rate) => rate.ToString("F1", CultureInfo.InvariantCulture);

int Capture(IEnumerable<(string, byte[])> entries)
{
    var rows = 0;
    Parallel.ForEach(entries, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, entry =>
        Interlocked.Add(ref rows, InvoicePath.Take(PdfReader.Read(entry.Item2), set, DocumentFacts.Unknown).Sum(taken => taken.Checked?.Captured.Lines.Length ?? 0)));
    return rows;
}
