using System.Diagnostics;
using System.Globalization;
using Daxlin.Bench;
using Spectre.Console;

// Full capture against the PDF library's bare reading and against pdftotext, side by side in one run.
//   run NAME=DIR…          the times, the ratios, pages a second
//   growth DIR…            invoices of one vendor with more rows in each folder: what twice the rows cost
//   memory DIR TIMES       captures the folder TIMES times over and prints its peak memory; a process of its own
if (args is ["memory", var folder, var times])
{
    var workload = Workload.Of("memory", folder);
    for (var round = 0; round < int.Parse(times, CultureInfo.InvariantCulture); round++)
        Parallel.ForEach(workload.Files, file => Contenders.Capture(File.ReadAllBytes(file), workload));
    var peak = File.ReadLines("/proc/self/status").First(line => line.StartsWith("VmHWM", StringComparison.Ordinal));
    Console.WriteLine(string.Concat(peak.Where(char.IsAsciiDigit)));
    return 0;
}
if (args is ["growth", ..])
{
    Growth.Print(args[1..]);
    return 0;
}
if (args.Length < 2 || args[0] != "run")
{
    Console.Error.WriteLine("bench/run, which makes the invoices and calls this");
    return 2;
}

// At least so many rounds, and as many more as fit into the time: a round over a few files is over in a blink.
const int Rounds = 5;
var warmUp = TimeSpan.FromSeconds(12);
var enough = TimeSpan.FromSeconds(8);
var table = new Table { Border = TableBorder.Simple };
table.AddColumn("invoices");
foreach (var heading in new[] { "files", "pages", "library s", "capture s", "capture ÷ library", "pages/s", "pdftotext s", "capture ÷ pdftotext" })
    table.AddColumn(new TableColumn(heading).RightAligned());
foreach (var pair in args[1..])
{
    var workload = Workload.Of(pair.Split('=')[0], pair.Split('=')[1]);
    var bytes = workload.Files.Select(File.ReadAllBytes).ToList();
    var (library, capture, pages) = (new List<double>(), new List<double>(), 0);
    // Turn about, so that whatever the machine does besides falls on both; the first rounds only warm up.
    var clock = Stopwatch.StartNew();
    var begun = TimeSpan.Zero;
    while (capture.Count < Rounds || clock.Elapsed - begun < enough)
    {
        var bare = Seconds(() => Parallel.ForEach(bytes, file => Contenders.Library(file)));
        var full = Seconds(() =>
        {
            pages = 0;
            Parallel.ForEach(bytes, file => Interlocked.Add(ref pages, Contenders.Capture(file, workload)));
        });
        if (clock.Elapsed < warmUp)
            continue;
        if (capture.Count == 0)
            begun = clock.Elapsed;
        library.Add(bare);
        capture.Add(full);
    }
    var other = Seconds(() => Parallel.ForEach(workload.Files, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, Contenders.PdfToText));
    var (l, c) = (Median(library), Median(capture));
    table.AddRow(
        workload.Name, $"{workload.Files.Length}", $"{pages}", $"{l:F2}", $"{c:F2}", $"{c / l:F2}", $"{pages / c:F0}", $"{other:F2}", $"{c / other:F2}");
}
AnsiConsole.Profile.Width = 120;
AnsiConsole.Write(table);
Console.WriteLine($"{Environment.ProcessorCount} cores; medians of {Rounds} rounds or more, turn about; pdftotext is started once a file, one round.");
return 0;

static double Seconds(Action work)
{
    GC.Collect();
    var clock = Stopwatch.StartNew();
    work();
    return clock.Elapsed.TotalSeconds;
}

static double Median(List<double> seconds) => seconds.Order().ElementAt(seconds.Count / 2);
