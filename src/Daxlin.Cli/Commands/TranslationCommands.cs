using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Translation lists: what words of invoices are called in the ledger.</summary>
internal static class TranslationCommands
{
    public static Command Make()
    {
        var name = new Argument<string>("NAME") { Description = "The list's name." };
        var list = new Command("list", "List the translation lists.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var lists = await context.Service.GetAll("translation-lists", cancel);
            context.Print(lists, () =>
            {
                if (lists.Count == 0)
                {
                    Terminal.Line("No translation lists yet; “translation import NAME FILE” takes one in.");
                    return;
                }
                var table = Terminal.NewTable(("list", false), ("version", true), ("entries", true), ("saved", false), ("by", false));
                foreach (var one in lists)
                    table.AddRow(new Text(Shown.Text(one!["name"])), new Text(Shown.Text(one["version"])), new Text(Shown.Text(one["entries"])), new Text(Shown.Time(one["savedAt"])), new Text(Shown.Text(one["savedBy"])));
                Terminal.Out.Write(table);
            });
            return ExitCodes.Done;
        }));
        var show = new Command("show", "Print a list's entries.") { name };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var shown = await context.Service.Get($"translation-lists/{Uri.EscapeDataString(parsed.GetValue(name)!)}", cancel);
            context.Print(shown, () =>
            {
                var table = Terminal.NewTable(("word", false), ("meaning", false), ("from", false));
                foreach (var entry in shown["entries"]!.AsArray())
                    table.AddRow(new Text(Shown.Cut(Shown.Text(entry!["word"]), 40)), new Text(Shown.Cut(Shown.Text(entry["meaning"]), 40)), new Text(Shown.Text(entry["from"])));
                Terminal.Out.Write(table);
            });
            return ExitCodes.Done;
        }));
        var file = new Argument<string>("FILE") { Description = "A CSV file with the columns word, meaning and, if entries begin on a day, from." };
        var import = new Command("import", "Take a list from a CSV file, in the place of what it said before.") { name, file };
        import.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var place = parsed.GetValue(file)!;
            if (!File.Exists(place))
                throw new RefusedException($"There is no file {place}.", exitCode: ExitCodes.WrongUsage);
            var saved = await context.Service.PutText($"translation-lists/{Uri.EscapeDataString(parsed.GetValue(name)!)}/file", await File.ReadAllTextAsync(place, cancel), "text/csv", cancel);
            context.Print(saved, () => Terminal.Line($"{Shown.Text(saved["name"])}, version {Shown.Text(saved["version"])}: {(Shown.Number(saved["entries"]) is 1 ? "1 entry" : $"{Shown.Text(saved["entries"])} entries")}"));
            return ExitCodes.Done;
        }));
        var target = new Option<string>("--out") { Description = "The CSV file to write.", HelpName = "FILE", Required = true };
        var export = new Command("export", "Write a list into a CSV file.") { name, target };
        export.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            await File.WriteAllBytesAsync(parsed.GetValue(target)!, await context.Service.Download($"translation-lists/{Uri.EscapeDataString(parsed.GetValue(name)!)}/file", cancel), cancel);
            context.Print(new JsonObject { ["file"] = parsed.GetValue(target) }, () => Terminal.Line($"{parsed.GetValue(name)} written to {parsed.GetValue(target)}"));
            return ExitCodes.Done;
        }));
        return new Command("translation", "Translation lists: what words of invoices are called in the ledger.") { list, show, import, export };
    }
}
