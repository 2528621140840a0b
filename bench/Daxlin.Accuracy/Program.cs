using Daxlin.Accuracy;
using Spectre.Console;

// Three figures a family: cells captured exactly, false clears, needless holds. See docs/ARCHITECTURE.md, "How we know".
var directories = args.Where(arg => !arg.StartsWith('-')).ToList();
var tells = args.Contains("--tell");
var isFirst = args.Contains("--first");
if (directories.Count == 0 || args.Contains("--help"))
{
    Console.Error.WriteLine("bench/accuracy DIR… [--tell] [--first]   each DIR holds PDFs, truth.json and *.template.json; --tell lists what is wrong,"
        + " --first prints beside it what the first try came to");
    return 2;
}
if (args.Contains("--drafts"))
    return DraftTable.Print(directories, tells);
var table = new Table { Border = TableBorder.Simple };
table.AddColumn("family");
foreach (var heading in new[] { "invoices", "cells", "exact", "exact %", "false clear", "needless hold" })
    table.AddColumn(new TableColumn(heading).RightAligned());
if (isFirst)
    table.AddColumn(new TableColumn("first try: exact, false clear, needless hold").RightAligned());
var (cells, exact, falseClear, needless, count) = (0, 0, 0, 0, 0);
var kinds = new SortedDictionary<string, (int Cells, int Wrong)>(StringComparer.Ordinal);
foreach (var directory in directories)
{
    if (!File.Exists(Path.Combine(directory, "truth.json")))
    {
        Console.Error.WriteLine($"There is no truth.json in {directory}.");
        return 2;
    }
    var score = FamilyScore.Of(directory);
    // Files with several invoices are a row of their own: taking them apart can fail where capture does not.
    foreach (var part in score.Invoices.GroupBy(invoice => invoice.Truth.IsOneOfSeveral))
    {
        var (all, wrong) = (part.Sum(invoice => invoice.Cells.Length), part.Sum(invoice => invoice.Wrong.Length));
        var (clears, holds) = (part.Count(invoice => invoice.IsFalseClear), part.Count(invoice => invoice.IsNeedlessHold));
        string[] row =
        [
            score.Family + (part.Key ? ", several in one file" : ""), $"{part.Count()}", $"{all}", $"{all - wrong}",
            $"{100.0 * (all - wrong) / all:F2}", $"{clears}", $"{holds}",
        ];
        table.AddRow(isFirst ? [.. row, part.Key ? "" : FirstTry.Of(directory)?.ToString() ?? "not written down"] : row);
        (cells, exact, falseClear, needless, count) =
            (cells + all, exact + all - wrong, falseClear + clears, needless + holds, count + part.Count());
    }
    foreach (var name in score.Invoices.SelectMany(invoice => invoice.Cells))
        kinds[FamilyScore.KindOf(name)] = kinds.GetValueOrDefault(FamilyScore.KindOf(name)) is var (all, wrong) ? (all + 1, wrong) : default;
    foreach (var (name, _, _) in score.Invoices.SelectMany(invoice => invoice.Wrong))
        kinds[FamilyScore.KindOf(name)] = kinds.GetValueOrDefault(FamilyScore.KindOf(name)) is var (all, wrong) ? (all, wrong + 1) : default;
    if (tells)
    {
        foreach (var invoice in score.Invoices)
        {
            Console.WriteLine($"{score.Family}/{invoice.Truth.File}: {(invoice.IsClear ? "clear" : "held")}"
                + $"{(invoice.IsFalseClear ? " FALSE CLEAR" : "")}{(invoice.IsNeedlessHold ? " NEEDLESS HOLD" : "")} {invoice.WhyHeld}");
            foreach (var (name, truth, captured) in invoice.Wrong.Take(12))
                Console.WriteLine($"    {name}: “{captured}” instead of “{truth}”");
        }
    }
}
string[] sum = ["all", $"{count}", $"{cells}", $"{exact}", $"{100.0 * exact / Math.Max(1, cells):F2}", $"{falseClear}", $"{needless}"];
table.AddRow(isFirst ? [.. sum, ""] : sum);
AnsiConsole.Profile.Width = Math.Max(AnsiConsole.Profile.Width, isFirst ? 140 : 100);
AnsiConsole.Write(table);
var byKind = new Table { Border = TableBorder.Simple };
byKind.AddColumn("kind of cell");
foreach (var heading in new[] { "cells", "exact", "exact %" })
    byKind.AddColumn(new TableColumn(heading).RightAligned());
// The header first, then rows, as they stand on an invoice.
foreach (var (kind, (all, wrong)) in kinds.OrderBy(entry => entry.Key.Contains('.', StringComparison.Ordinal)))
    byKind.AddRow(kind, $"{all}", $"{all - wrong}", $"{100.0 * (all - wrong) / all:F2}");
AnsiConsole.Write(byKind);
return falseClear == 0 ? 0 : 1;
