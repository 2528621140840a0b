using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Posting layouts: what the files of a run look like.</summary>
internal static class LayoutCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "A layout document, *.layout.json.", Arity = ArgumentArity.OneOrMore };
        var file = new Argument<string>("FILE") { Description = "A layout document, *.layout.json." };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var name = new Argument<string>("NAME") { Description = "The layout's name." };
        var invoices = new Option<int[]>("--invoice") { Description = "Try it on this invoice; may be said again. On those approved last if left out.", HelpName = "ID" };

        var check = new Command("check", "Say what is wrong with layout documents; nothing is saved.") { files };
        check.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var results = new JsonArray();
            foreach (var one in parsed.GetValue(files)!)
                results.Add(new JsonObject { ["file"] = one, ["faults"] = (await Try(one, [], context, cancel))["documentFaults"]!.DeepClone() });
            context.Print(results, () =>
            {
                foreach (var result in results)
                    WrittenDocument.PrintFaults(Shown.Text(result!["file"]), result["faults"]!.AsArray());
            });
            return results.Any(result => result!["faults"]!.AsArray().Count > 0) ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));

        var tried = new Command("try", "Print what a layout makes of invoices, and what it cannot write; nothing is saved.") { file, invoices };
        tried.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var result = await Try(parsed.GetValue(file)!, parsed.GetValue(invoices) ?? [], context, cancel);
            context.Print(result, () => PrintTried(parsed.GetValue(file)!, result));
            return result["documentFaults"]!.AsArray().Count + result["faults"]!.AsArray().Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));

        var save = WrittenDocument.Save("Save layout documents; a changed one becomes the next version.", "posting-layouts", files, note);

        var list = new Command("list", "List the layouts.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var layouts = await context.Service.GetAll("posting-layouts", cancel);
            context.Print(layouts, () => Print(layouts));
            return ExitCodes.Done;
        }));

        var version = new Option<int?>("--version") { Description = "This version; the newest if left out.", HelpName = "N" };
        var show = new Command("show", "Print a layout's document.") { name, version };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = parsed.GetValue(version) is { } number ? $"?version={number}" : "";
            var layout = await context.Service.Get($"posting-layouts/{Uri.EscapeDataString(parsed.GetValue(name)!)}{query}", cancel);
            context.Print(layout, () => Terminal.Line(Shown.Text(layout["text"]).TrimEnd()));
            return ExitCodes.Done;
        }));
        var records = new Argument<string?>("RECORDS") { Description = "invoices, lines, taxes or journal; all of them if left out.", Arity = ArgumentArity.ZeroOrOne };
        records.AcceptOnlyFromAmong("invoices", "lines", "taxes", "journal");
        var names = new Command("names", "Print what the columns of a layout can speak of.") { records };
        names.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var wanted = parsed.GetValue(records);
            var offered = new JsonArray([.. (await context.Service.Get("layout-names", cancel)).AsArray().Where(one => wanted is null || Shown.Text(one!["records"]) == wanted).Select(one => one!.DeepClone())]);
            context.Print(offered, () => PrintNames(offered));
            return ExitCodes.Done;
        }));
        return new Command("layout", "Posting layouts: which records a run writes, in the form in which a ledger takes them.")
        {
            check, tried, names, save, list, show,
            WrittenDocument.Act("retire", "Retire a layout: no run is made by it any more.", "posting-layouts", "retirement", name, note),
            WrittenDocument.Act("bring-back", "Bring a retired layout back.", "posting-layouts", "comeback", name, note),
        };
    }

    private static Task<JsonNode> Try(string file, int[] invoices, CommandContext context, CancellationToken cancel) =>
        WrittenDocument.Try("posting-layouts/trial", file, invoices, context, cancel);

    private static void PrintNames(JsonArray offered)
    {
        foreach (var records in offered)
        {
            Terminal.Line($"{Shown.Text(records!["records"])}:");
            foreach (var type in records["names"]!.AsArray().GroupBy(name => Shown.Text(name!["type"]) switch { "yesNo" => "yes or no", var known => known }))
                BatchSheet.Hanging($"  {type.Key,-10}", string.Join(", ", type.Select(name => Shown.Text(name!["name"]))));
        }
        Terminal.Line("Names of a template's own are said under “names” of the layout.");
    }

    private static void PrintTried(string file, JsonNode tried)
    {
        if (tried["documentFaults"]!.AsArray() is { Count: > 0 } faults)
        {
            WrittenDocument.PrintFaults(file, faults);
            return;
        }
        var invoices = tried["invoices"]!.AsArray();
        Terminal.Line($"{Shown.Text(tried["name"])} on {invoices.Count} {(invoices.Count == 1 ? "invoice" : "invoices")}, of which a run would take {invoices.Count(one => one!["isTaken"]!.GetValue<bool>())}:");
        foreach (var table in tried["tables"]!.AsArray())
        {
            var columns = table!["columns"]!.AsArray();
            var shown = Terminal.NewTable([.. columns.Select(column => (Shown.Text(column!["heading"]), Shown.Text(column["type"]) == "number"))]);
            foreach (var row in table["rows"]!.AsArray().Take(20))
                shown.AddRow([.. row!.AsArray().Select(cell => new Text(Shown.Cut(Shown.Text(cell), 28)))]);
            Terminal.Line($"{Shown.Text(table["name"])}: {PostingCommands.Count(table["count"], "record")}");
            Terminal.Out.Write(shown);
        }
        foreach (var one in tried["files"]!.AsArray())
            Terminal.Line($"{Shown.Text(one!["name"])}  {PostingCommands.Count(one["records"], "record")}, {Shown.Text(one["bytes"])} bytes");
        PostingSheet.PrintProved(tried["proved"]!.AsArray());
        foreach (var fault in tried["faults"]!.AsArray())
            BatchSheet.Hanging("A run would be refused.  ", Shown.Text(fault));
    }

    private static void Print(JsonArray layouts)
    {
        if (layouts.Count == 0)
        {
            Terminal.Line("No layouts yet: runs write every value into one CSV file. docs/POSTING.md tells how a layout is written.");
            return;
        }
        var table = Terminal.NewTable(("layout", false), ("version", true), ("format", false), ("saved", false), ("by", false), ("runs", true), ("", false), ("note", false));
        foreach (var one in layouts)
        {
            table.AddRow(
                new Text(Shown.Text(one!["name"])), new Text(Shown.Text(one["version"])), new Text(Shown.Text(one["format"])), new Text(Shown.Time(one["savedAt"])), new Text(Shown.Text(one["savedBy"])),
                new Text(Shown.Text(one["runs"])), new Text(one["isRetired"]!.GetValue<bool>() ? "retired" : ""), new Text(Shown.Cut(Shown.Text(one["note"]), 40)));
        }
        Terminal.Out.Write(table);
    }
}
