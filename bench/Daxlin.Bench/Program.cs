using System.Diagnostics;
using System.Globalization;
using Daxlin.Bench;
using Spectre.Console;

// Full capture against the PDF library's bare reading and against pdftotext, side by side in one run.
//   run NAME=DIR…          the times, the ratios, pages a second
//   growth DIR…            invoices of one vendor with more rows in each folder: what twice the rows cost
//   words DIR…             our words and letters beside those of other readers
//   fuzz COUNT [SEED]      files and templates with anything wrong in them: what is neither read nor refused with a sentence, and what takes long
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
if (args is ["words", ..])
{
    WordComparison.Print(args[1..]);
    return 0;
}
if (args is ["fuzz", var count, ..])
    return Fuzz.Run(int.Parse(count, CultureInfo.InvariantCulture), args.Length > 2 ? int.Parse(args[2], CultureInfo.InvariantCulture) : 0);
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
var warmUp = TimeSpan.FromSeconds(5);
var enough = TimeSpan.FromSeconds(8);
var table = new Table { Border = TableBorder.Simple };
table.AddColumn("invoices");
foreach (var heading in new[] { "files", "pages", "library", "structure", "reading", "capture", "pdftotext", "capture ÷ library", "÷ pdftotext", "pages/s" })
    table.AddColumn(new TableColumn(heading).RightAligned());
foreach (var pair in args[1..])
{
    var workload = Workload.Of(pair.Split('=')[0], pair.Split('=')[1]);
    var bytes = workload.Files.Select(File.ReadAllBytes).ToList();
    var (pages, elapsed) = (0, new List<double>());
    Func<byte[], int>[] contenders = [Contenders.Library, Contenders.Structure, Contenders.Reading, file => Contenders.Capture(file, workload)];
    var spent = contenders.Select(_ => new List<double>()).ToArray();
    // Turn about, so that whatever the machine does besides falls on all; the first rounds only warm up.
    var clock = Stopwatch.StartNew();
    var begun = TimeSpan.Zero;
    while (spent[0].Count < Rounds || clock.Elapsed - begun < enough)
    {
        var isWarm = clock.Elapsed >= warmUp;
        if (isWarm && spent[0].Count == 0)
            begun = clock.Elapsed;
        for (var one = 0; one < contenders.Length; one++)
        {
            pages = 0;
            var (seconds, processor) = Seconds(() => Parallel.ForEach(bytes, file => Interlocked.Add(ref pages, contenders[one](file))));
            if (!isWarm)
                continue;
            spent[one].Add(processor);
            if (one == contenders.Length - 1)
                elapsed.Add(seconds);
        }
    }
    var other = Contenders.PdfToText(workload.Files);
    var medians = spent.Select(Median).ToArray();
    string Each(double seconds) => $"{1000 * seconds / pages:F2}";
    table.AddRow(
        workload.Name, $"{workload.Files.Length}", $"{pages}", Each(medians[0]), Each(medians[1]), Each(medians[2]), Each(medians[3]), Each(other),
        $"{medians[3] / medians[0]:F2}", $"{medians[3] / other:F2}", $"{pages / Median(elapsed):F0}");
}
AnsiConsole.Profile.Width = 120;
AnsiConsole.Write(table);
Console.WriteLine("Processor time in ms a page: the library's letters; our document's structure and unpacked content; with its words; with its invoice, captured and checked.");
Console.WriteLine($"{Environment.ProcessorCount} cores; medians of {Rounds} rounds or more, turn about, warm; pdftotext -bbox is started once a file, one round, with its start.");
return 0;

static (double Elapsed, double Processor) Seconds(Action work)
{
    GC.Collect();
    var (clock, before) = (Stopwatch.StartNew(), Environment.CpuUsage.TotalTime);
    work();
    return (clock.Elapsed.TotalSeconds, (Environment.CpuUsage.TotalTime - before).TotalSeconds);
}

static double Median(List<double> seconds) => seconds.Order().ElementAt(seconds.Count / 2);
