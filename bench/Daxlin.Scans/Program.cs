using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Diagnostics;
using Daxlin.Accuracy;
using Daxlin.Core.Pages;
using Daxlin.Reading;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;
using Daxlin.Scans;

// Invoices as scans: exact cells, false clears and needless holds by kind of scan. See docs/ARCHITECTURE.md, "How we know".
var tells = args.Contains("--tell");
var kinds = ValueOf("--kind") is { } named ? [Enum.Parse<ScanKind>(named, ignoreCase: true)] : Enum.GetValues<ScanKind>();
var most = ValueOf("--most") is { } number ? int.Parse(number, System.Globalization.CultureInfo.InvariantCulture) : 2;
var directories = args.Where((arg, index) => !arg.StartsWith('-') && (index == 0 || args[index - 1] is not ("--kind" or "--most" or "--languages"))).ToList();

string? ValueOf(string option) => Array.IndexOf(args, option) is >= 0 and var at && at + 1 < args.Length ? args[at + 1] : null;

var languages = ValueOf("--languages");
var pages = 0;
var recognisers = new ConcurrentBag<PageRecogniser>();
if (args.Contains("--words"))
{
    foreach (var line in Scanned(directories[0], kinds[0])[0].Lines)
        Console.WriteLine(string.Join("  ", line.Words.Select(word => $"{word.Text}{(word.Reading!.IsSure ? "" : word.Reading.IsTwice ? "{" + string.Join("|", word.Reading.Others) + "}" : "·")}@{word.Box.Left:F0}/{word.Size:F0}")));
    return 0;
}
foreach (var kind in kinds)
{
    var clock = Stopwatch.StartNew();
    var (cells, wrong, clears, falseClears, needless, invoices) = (0, 0, 0, 0, 0, 0);
    pages = 0;
    Parallel.ForEach(directories, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, directory =>
    {
        var score = FamilyScore.Of(directory, most, file => Scanned(file, kind));
        lock (recognisers)
        {
            var (own, bad) = (score.Invoices.Sum(invoice => invoice.Cells.Length), score.Invoices.Sum(invoice => invoice.Wrong.Length));
            cells += own;
            wrong += bad;
            invoices += score.Invoices.Length;
            clears += score.Invoices.Count(invoice => invoice.IsClear);
            falseClears += score.Invoices.Count(invoice => invoice.IsFalseClear);
            needless += score.Invoices.Count(invoice => invoice.IsNeedlessHold);
            Console.WriteLine($"{kind} {score.Family}: {own - bad} of {own}, {100.0 * (own - bad) / Math.Max(1, own):F2} %, {score.Invoices.Count(invoice => invoice.IsFalseClear)} false clear, {score.Invoices.Count(invoice => invoice.IsNeedlessHold)} of {score.Invoices.Length} held needlessly");
            foreach (var invoice in score.Invoices.Where(_ => tells))
            {
                Console.WriteLine($"   {invoice.Truth.File} {(invoice.IsClear ? "clear" : "held")} {(invoice.IsFalseClear ? "FALSE CLEAR" : "")} {invoice.WhyHeld}");
                foreach (var (name, truth, captured) in invoice.Wrong.Take(8))
                    Console.WriteLine($"        {name}: “{captured}” instead of “{truth}”");
            }
        }
    });
    Console.WriteLine($"{kind}: {invoices} invoices, {cells - wrong} of {cells} cells exact, {100.0 * (cells - wrong) / Math.Max(1, cells):F2} %; {falseClears} false clear; {needless} held needlessly; {clears} clear; {pages} pages, {clock.Elapsed.TotalSeconds:F1} s");
}
return 0;

ImmutableArray<Page> Scanned(string file, ScanKind kind)
{
    var printed = PdfReader.Read(File.ReadAllBytes(file));
    Interlocked.Add(ref pages, printed.Length);
    var scanned = new Page[printed.Length];
    for (var index = 0; index < scanned.Length; index++)
    {
        var page = printed[index];
        var (width, height) = page.Drawn is Drawn.Upwards or Drawn.Downwards ? (page.Height, page.Width) : (page.Width, page.Height);
        var scan = ScanMaker.Of(PageRaster.InGrey(file, page.Number, PageRaster.DpiFor(width, height), TimeSpan.FromSeconds(60), default).Result, kind, HashCode.Combine(index, printed.Length, 7));
        if (!recognisers.TryTake(out var recogniser))
            recogniser = languages is null ? PageRecogniser.Start() : PageRecogniser.Start(languages);
        scanned[index] = recogniser.Recognise(page.Number, scan);
        recognisers.Add(recogniser);
    }
    return [.. scanned];
}
