using System.Globalization;
using Daxlin.Core.Drafting;
using Spectre.Console;

namespace Daxlin.Accuracy;

/// <summary>Prints what templates drafted from one and from three invoices come to, family by family.</summary>
internal static class DraftTable
{
    public static int Print(IReadOnlyList<string> directories, bool tells)
    {
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumn("family");
        foreach (var heading in new[] { "from", "header %", "rows %", "whole", "clear", "false clear" })
            table.AddColumn(new TableColumn(heading).RightAligned());
        var scores = new List<DraftScore>();
        foreach (var directory in directories)
        {
            foreach (var samples in new[] { 1, 3 })
            {
                DraftScore score;
                try
                {
                    score = DraftScore.Of(directory, samples);
                }
                catch (DraftException error)
                {
                    table.AddRow(Path.GetFileName(Path.TrimEndingDirectorySeparator(directory)), $"{samples}", error.Message, "", "", "", "");
                    continue;
                }
                scores.Add(score);
                table.AddRow(
                    score.Family, $"{samples}", Percent(score.Fields), Percent(score.Columns), $"{score.Whole} of {score.Invoices}", $"{score.Clear}", $"{score.FalseClear}");
                if (tells)
                    Tell(score);
            }
        }
        foreach (var part in scores.GroupBy(score => score.Samples))
        {
            table.AddRow(
                $"all {part.Count()}, {part.Count(score => score.IsWhole)} whole", $"{part.Key}", Percent((part.Sum(one => one.Fields.All), part.Sum(one => one.Fields.Exact))),
                Percent((part.Sum(one => one.Columns.All), part.Sum(one => one.Columns.Exact))), $"{part.Sum(one => one.Whole)} of {part.Sum(one => one.Invoices)}",
                $"{part.Sum(one => one.Clear)}", $"{part.Sum(one => one.FalseClear)}");
        }
        AnsiConsole.Profile.Width = Math.Max(AnsiConsole.Profile.Width, 110);
        AnsiConsole.Write(table);
        var kinds = new Table { Border = TableBorder.Simple };
        kinds.AddColumn("kind of cell, drafted from one");
        foreach (var heading in new[] { "cells", "exact %" })
            kinds.AddColumn(new TableColumn(heading).RightAligned());
        var ofOne = scores.Where(score => score.Samples == 1).SelectMany(score => score.Scores).ToList();
        foreach (var kind in ofOne.SelectMany(invoice => invoice.Cells).GroupBy(FamilyScore.KindOf).OrderBy(group => group.Key.Contains('.', StringComparison.Ordinal)).ThenBy(group => group.Key, StringComparer.Ordinal))
            kinds.AddRow(kind.Key, $"{kind.Count()}", Percent((kind.Count(), kind.Count() - ofOne.Sum(invoice => invoice.Wrong.Count(cell => FamilyScore.KindOf(cell.Name) == kind.Key)))));
        AnsiConsole.Write(kinds);
        return scores.Sum(score => score.FalseClear) == 0 ? 0 : 1;
    }

    private static void Tell(DraftScore score)
    {
        Console.WriteLine($"=== {score.Family} from {score.Samples}");
        if (score.Samples == 1)
            Console.WriteLine(score.Draft.Document);
        foreach (var note in score.Draft.Notes)
            Console.WriteLine($"  {note.Certainty} {note.Key}: {note.Says}");
        foreach (var invoice in score.Draft.Invoices)
        {
            foreach (var finding in invoice.Findings.Take(6))
                Console.WriteLine($"  sample: {finding.Message}");
        }
        foreach (var invoice in score.Scores)
        {
            if (invoice.Wrong.IsEmpty && invoice.IsClear)
                continue;
            Console.WriteLine($"  {invoice.Truth.File}: {(invoice.IsClear ? "clear" : "held")}{(invoice.IsFalseClear ? " FALSE CLEAR" : "")} {invoice.WhyHeld}");
            foreach (var (name, truth, captured) in invoice.Wrong.Take(6))
                Console.WriteLine($"      {name}: “{captured}” instead of “{truth}”");
        }
    }

    private static string Percent((int All, int Exact) cells) => (100.0 * cells.Exact / Math.Max(1, cells.All)).ToString("F1", CultureInfo.InvariantCulture);
}
