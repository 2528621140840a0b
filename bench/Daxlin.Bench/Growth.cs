using System.Collections.Immutable;
using System.Diagnostics;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;
using Daxlin.Reading;
using Spectre.Console;

namespace Daxlin.Bench;

/// <summary>
/// How the work on one invoice grows with its rows: recognising, capturing and checking, corrections and proposals. The yardstick is
/// n log n, by which twice 1,200 rows take 2.2 times as long.
/// </summary>
internal static class Growth
{
    private const int Rounds = 5;

    /// <param name="folders">The same vendors' invoices, one file each, with twice the rows in each next folder.</param>
    public static void Print(IReadOnlyList<string> folders)
    {
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumn("vendor");
        foreach (var heading in new[] { "pages", "rows", "capture ms", "twice", "corrections ms", "twice", "proposals ms", "twice" })
            table.AddColumn(new TableColumn(heading).RightAligned());
        foreach (var vendor in Directory.GetDirectories(folders[0]).Select(path => Path.GetFileName(path)!).Order(StringComparer.Ordinal))
        {
            (double Capture, double Correct, double Propose)? before = null;
            foreach (var workload in folders.Select(folder => Workload.Of(vendor, Path.Combine(folder, vendor))))
            {
                var now = Times(workload, out var pages, out var rows);
                table.AddRow(
                    vendor, $"{pages}", $"{rows}", $"{now.Capture:F0}", Factor(now.Capture, before?.Capture), $"{now.Correct:F1}", Factor(now.Correct, before?.Correct),
                    $"{now.Propose:F1}", Factor(now.Propose, before?.Propose));
                before = now;
            }
        }
        AnsiConsole.Profile.Width = 120;
        AnsiConsole.Write(table);
        Console.WriteLine($"medians of {Rounds} rounds; by n log n twice the rows take 2.2 times as long");
    }

    private static string Factor(double now, double? before) => before is { } half ? $"{now / half:F1}" : "";

    private static (double Capture, double Correct, double Propose) Times(Workload workload, out int pages, out int rows)
    {
        var read = PdfReader.Read(File.ReadAllBytes(workload.Files[0]));
        // Lines are worked out once a page and kept on it: each round has pages of its own.
        ImmutableArray<Page> Fresh() => [.. read.Select(page => new Page(page.Number, page.Width, page.Height, page.Words, page.Strokes) { Drawn = page.Drawn })];
        var invoice = InvoicePath.Take(Fresh(), workload.Templates, DocumentFacts.Unknown)[0].Checked!.Captured;
        (pages, rows) = (read.Length, invoice.Lines.Length);
        // One figure wrong in the middle, so that there is something to propose.
        var line = invoice.Lines[rows / 2];
        var amount = line.Find("amount")!;
        RecordedCorrection wrong = new(1, new ValueEntered(
            new ValueAddress(RowAddress.Of("lines", line), "amount"), (amount.Number!.Value + 90).ToString(System.Globalization.CultureInfo.InvariantCulture), amount.Value, "", null));
        var corrected = InvoiceCorrections.Apply(invoice, [wrong]);
        ImmutableArray<PrintedLine> printed = [.. PrintedLine.Of(read)];
        return (
            Median(() => InvoicePath.Take(Fresh(), workload.Templates, DocumentFacts.Unknown)),
            Median(() => InvoiceCorrections.Apply(invoice, [wrong])),
            Median(() => Proposals.Of(corrected, printed)));
    }

    private static double Median(Action work) => Enumerable.Range(0, Rounds + 1).Select(_ =>
    {
        var begun = Stopwatch.GetTimestamp();
        work();
        return Stopwatch.GetElapsedTime(begun).TotalMilliseconds;
    }).Skip(1).Order().ElementAt(Rounds / 2);
}
