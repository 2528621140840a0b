using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Prints posting runs, made and rehearsed.</summary>
internal static class PostingSheet
{
    public static void PrintRehearsed(JsonNode run)
    {
        if (Shown.Text(run["periodClosed"]) is { Length: > 0 } closed)
        {
            BatchSheet.Hanging("It needs --posting-date.  ", closed);
            return;
        }
        Terminal.Line($"Run {Shown.Text(run["number"])} would post {PostingCommands.Totals(run)}, {LayoutOf(run)}. Nothing was posted.");
        foreach (var file in run["files"]!.AsArray())
        {
            Terminal.Line($"  {Shown.Text(file!["name"])}  {PostingCommands.Count(file["records"], "record")}, {Shown.Text(file["bytes"])} bytes");
            foreach (var line in file["begins"]!.GetValue<string>().ReplaceLineEndings("\n").Split('\n').Take(4).Where(line => line.Length > 0))
                Terminal.Line("    " + Shown.Cut(Shown.Harmless(line), 110));
        }
        PrintProved(run["proved"]!.AsArray());
        if (Shown.Number(run["left"]) is > 0 and var left)
            Terminal.Line($"{left} approved {(left == 1 ? "invoice stays" : "invoices stay")} as {(left == 1 ? "it is" : "they are")}: the layout does not take {(left == 1 ? "it" : "them")}.");
        foreach (var told in run["disagreements"]!.AsArray())
            BatchSheet.Hanging("A reason would be asked for.  ", Shown.Text(told));
        foreach (var fault in run["faults"]!.AsArray())
            BatchSheet.Hanging("It would be refused.  ", Shown.Text(fault));
    }

    public static void PrintProved(JsonArray proved)
    {
        foreach (var sum in proved)
            BatchSheet.Hanging(sum!["holds"]!.GetValue<bool>() ? "  = " : "  ▲ ", Shown.Text(sum["says"]));
    }

    public static void Print(JsonNode manifest)
    {
        var run = manifest["run"]!;
        Terminal.Line($"Posting run {Shown.Text(run["number"])}, {Shown.Time(run["at"])} by {Shown.Text(run["by"])}: {PostingCommands.Totals(run)}, {LayoutOf(run)}");
        if (run["reverses"] is { } of)
            Terminal.Line($"It takes run {Shown.Text(of)} back.");
        if (Shown.Text(run["reason"]) is { Length: > 0 } reason)
            BatchSheet.Hanging("Because  ", reason);
        if (run["postingDate"] is { } day)
            Terminal.Line($"What is dated in a closed period is posted on {Shown.Text(day)}.");
        if (Shown.Text(manifest["layoutSha256"]) is { Length: > 0 } ofLayout)
            Terminal.Line($"Layout SHA-256 {ofLayout}");
        if (manifest["lists"]!.AsObject() is { Count: > 0 } lists)
            Terminal.Line("Lists  " + string.Join("; ", lists.Select(list => $"{Shown.Harmless(list.Key)}, version {Shown.Text(list.Value)}")));
        foreach (var file in manifest["files"]!.AsArray())
            Terminal.Line($"{Shown.Text(file!["name"])}  {PostingCommands.Count(file["records"], "record")}, {Shown.Text(file["bytes"])} bytes, SHA-256 {Shown.Text(file["sha256"])}");
        var table = Terminal.NewTable(("id", true), ("vendor", false), ("number", false), ("date", false), ("total", true), ("approved by", false), ("values", false), ("", false));
        foreach (var invoice in manifest["invoices"]!.AsArray())
        {
            table.AddRow(
                new Text(Shown.Text(invoice!["id"])), new Text(Shown.Cut(Shown.Text(invoice["vendor"]), 20)), new Text(Shown.Cut(Shown.Text(invoice["invoiceNumber"]), 12)),
                new Text(Shown.Text(invoice["invoiceDate"])), new Text(Shown.Amount(Shown.Text(invoice["total"]), Shown.Text(invoice["currency"]))), new Text(Shown.Cut(Shown.Text(invoice["approvedBy"]), 11)),
                new Text(Shown.Text(invoice["contentSha256"]) is { Length: > 8 } hash ? hash[..8] : ""), new Text(invoice["withdrawnIn"] is { } back ? $"back in {Shown.Text(back)}" : ""));
        }
        Terminal.Out.Write(table);
    }

    private static string LayoutOf(JsonNode run) =>
        Shown.Text(run["layout"]) is { Length: > 0 } name ? $"by the layout {name}, version {Shown.Text(run["layoutVersion"])}" : "every value in one file";
}
