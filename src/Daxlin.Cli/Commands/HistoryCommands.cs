using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>What was done, by whom and when.</summary>
internal static class HistoryCommands
{
    private const int Usual = 50;

    public static Command Make()
    {
        var invoice = new Option<int?>("--invoice") { Description = "Of this invoice.", HelpName = "ID" };
        var vendor = new Option<int?>("--vendor") { Description = "Of this vendor and its invoices.", HelpName = "ID" };
        var template = new Option<string?>("--template") { Description = "Of this template.", HelpName = "NAME" };
        var run = new Option<int?>("--run") { Description = "Of this posting run.", HelpName = "NUMBER" };
        var by = new Option<string?>("--by") { Description = "By this person.", HelpName = "NAME" };
        var act = new Option<string?>("--act") { Description = "Only this act: captured, corrected, approved, posted …", HelpName = "ACT" };
        var from = new Option<string?>("--from") { Description = "From this day on.", HelpName = "YYYY-MM-DD" };
        var to = new Option<string?>("--to") { Description = "Up to this day.", HelpName = "YYYY-MM-DD" };
        var limit = new Option<int>("--limit") { Description = "So many at most, the newest.", DefaultValueFactory = _ => Usual };
        Option[] filters = [invoice, vendor, template, run, by, act, from, to];
        string Query(ParseResult parsed) => string.Concat(new[]
        {
            ("invoice", parsed.GetValue(invoice)?.ToString(CultureInfo.InvariantCulture)), ("vendor", parsed.GetValue(vendor)?.ToString(CultureInfo.InvariantCulture)),
            ("template", parsed.GetValue(template)), ("run", parsed.GetValue(run)?.ToString(CultureInfo.InvariantCulture)), ("by", parsed.GetValue(by)), ("act", parsed.GetValue(act)), ("from", parsed.GetValue(from)), ("to", parsed.GetValue(to)),
        }.Where(one => one.Item2 is not null).Select(one => $"&{one.Item1}={Uri.EscapeDataString(one.Item2!)}"));

        var list = new Command("list", "Print what was done, the newest first.");
        list.Options.Add(limit);
        var file = new Option<string>("--out") { Description = "The file to write.", HelpName = "FILE", Required = true };
        var export = new Command("export", "Write what was done into a file, from the oldest on, one JSON object a line (NDJSON).");
        export.Options.Add(file);
        var table = new Command("table", "Write what was done into a file, as a spreadsheet takes it, the newest first.") { TableFile.Out };
        foreach (var filter in filters)
        {
            table.Options.Add(filter);
            list.Options.Add(filter);
            export.Options.Add(filter);
        }
        list.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var entries = (await context.Service.Get($"history?limit={parsed.GetValue(limit)}{Query(parsed)}", cancel)).AsArray();
            context.Print(entries, () => Print(entries));
            return ExitCodes.Done;
        }));
        export.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            await File.WriteAllBytesAsync(parsed.GetValue(file)!, await context.Service.Download("history/export?" + Query(parsed).TrimStart('&'), cancel), cancel);
            context.Print(new JsonObject { ["file"] = parsed.GetValue(file) }, () => Terminal.Line($"History written to {parsed.GetValue(file)}"));
            return ExitCodes.Done;
        }));
        table.SetAction(CommandContext.Run((parsed, context, cancel) => TableFile.Write($"history/table?{Query(parsed).TrimStart('&')}", "History", parsed.GetValue(TableFile.Out)!, context, cancel)));
        var verify = new Command("verify", "Go through the whole history, and name the first link that does not hold.");
        verify.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var result = await context.Service.Get("history/verify", cancel);
            var isWhole = result["isWhole"]!.GetValue<bool>();
            context.Print(result, () => Terminal.Line(isWhole
                ? $"The history is whole: {Shown.Text(result["entries"])} entries, {Shown.Text(result["seals"])} of them seals; {Shown.Text(result["approved"])} approved invoices are as they were approved.{(Shown.Text(result["newestSeal"]) is { Length: > 0 } seal ? $" Newest seal: {seal}" : "")}"
                : Shown.Text(result["sentence"])));
            return isWhole ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        return new Command("history", "What was done, by whom and when; only ever added to, and chained so that a later change is seen.") { list, export, table, verify };
    }

    private static void Print(JsonArray entries)
    {
        if (entries.Count == 0)
            Terminal.Line("Nothing was done that is like that.");
        foreach (var entry in entries)
        {
            var (before, after, reason) = (Shown.Text(entry!["before"]), Shown.Text(entry["after"]), Shown.Text(entry["reason"]));
            BatchSheet.Hanging(
                $"{Shown.Time(entry["at"])}  {Shown.Cut(Shown.Text(entry["stream"]), 22),-22}  ",
                $"{Shown.Text(entry["what"])}{(before.Length + after.Length > 0 ? $": {(before.Length > 0 ? $"{before} → " : "")}{(after.Length > 0 ? after : "nothing")}" : "")}, by {Shown.Text(entry["by"])}{(reason.Length > 0 ? $" ({reason})" : "")}");
        }
    }
}
