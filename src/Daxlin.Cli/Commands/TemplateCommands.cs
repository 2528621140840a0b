using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class TemplateCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "Template documents (*.template.json).", Arity = ArgumentArity.OneOrMore };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var save = new Command("save", "Save templates; a changed one becomes the next version, and captures anew what is held or unplaced.") { files, note };
        save.SetAction(CommandContext.Run((parsed, context, cancel) => Save(parsed.GetValue(files)!, parsed.GetValue(note), context, cancel)));

        var rehearsed = new Argument<string>("FILE") { Description = "A template document (*.template.json) that is not saved." };
        var batch = new Option<int?>("--batch") { Description = "Take this batch's invoices only.", HelpName = "ID" };
        var rehearse = new Command("rehearse", "Say what a draft would change on the invoices captured before; exit code 1 when values change.") { rehearsed, batch };
        rehearse.SetAction(CommandContext.Run((parsed, context, cancel) => TemplateRehearsal.Run(parsed.GetValue(rehearsed)!, parsed.GetValue(batch), context, cancel)));

        var checkedFiles = new Argument<string[]>("FILE") { Description = "Template documents (*.template.json).", Arity = ArgumentArity.OneOrMore };
        var check = new Command("check", "Say what is wrong with templates, by key and line; nothing is saved.") { checkedFiles };
        var aloud = new Option<bool>("--aloud") { Description = "Read them aloud as well: each rule as a sentence." };
        check.Options.Add(aloud);
        check.SetAction(CommandContext.Run((parsed, context, cancel) => Check(parsed.GetValue(checkedFiles)!, parsed.GetValue(aloud), context, cancel)));

        var tried = new Argument<string[]>("FILE") { Description = "Template documents (*.template.json), PDF files and electronic invoices, in any order.", Arity = ArgumentArity.OneOrMore };
        var trial = new Command("try", "Capture and check PDF files by templates that are not saved; nothing is stored, no service need run.") { tried };
        trial.SetAction(CommandContext.Run((parsed, context, cancel) => Try(parsed.GetValue(tried)!, context, cancel)));

        var samples = new Argument<string[]>("PDF") { Description = "Invoices of one vendor, 1 to 10; two or three tell more than one.", Arity = ArgumentArity.OneOrMore };
        var vendor = new Option<string?>("--vendor") { Description = "The vendor's name; left out, it is looked for on the pages." };
        var outFile = new Option<string>("--out") { Description = "The file to write (*.template.json); one that is there is not written over.", Required = true };
        var draft = new Command("draft", "Propose a template from invoices of one vendor, and say what of it is certain; no service need run.") { samples, vendor, outFile };
        draft.SetAction(CommandContext.Run((parsed, context, cancel) =>
            TemplateDrafting.Draft(parsed.GetValue(samples)!, parsed.GetValue(vendor), parsed.GetValue(outFile)!, context, cancel)));

        var list = new Command("list", "List all templates.");
        list.SetAction(CommandContext.Run((_, context, cancel) => List(context, cancel)));
        var table = new Command("table", "Write all templates into a file, as a spreadsheet takes them, with what came of each.") { TableFile.Out };
        table.SetAction(CommandContext.Run((parsed, context, cancel) => TableFile.Write("template-table", "Templates", parsed.GetValue(TableFile.Out)!, context, cancel)));

        var name = new Argument<string>("NAME") { Description = "The template's name." };
        var show = new Command("show", "Print a template's document.") { name };
        show.SetAction(CommandContext.Run((parsed, context, cancel) => Show(parsed.GetValue(name)!, context, cancel)));

        var all = new Command("template", "Templates: how a vendor's invoices are recognised, captured and checked.") { draft, check, trial, rehearse, save, list, table, show };
        foreach (var command in TemplateHistoryCommands.Make())
            all.Subcommands.Add(command);
        return all;
    }

    internal static void MustExist(string[] files)
    {
        foreach (var file in files.Where(file => !File.Exists(file)))
            throw new RefusedException($"There is no file {file}.", exitCode: ExitCodes.WrongUsage);
    }

    private static async Task<int> Check(string[] files, bool aloud, CommandContext context, CancellationToken cancel)
    {
        MustExist(files);
        var templates = (await TrialProcess.Run(["try-templates", .. files], 0, cancel))["templates"]!.AsArray();
        context.Print(files.Length == 1 ? templates[0]! : templates, () =>
        {
            PrintFaults(templates, tellsOrder: true);
            foreach (var sentence in aloud ? templates.SelectMany(one => one!["sentences"]!.AsArray()) : [])
                Terminal.Indented(2, Shown.Text(sentence!["says"]));
        });
        return templates.All(one => one!["faults"]!.AsArray().Count == 0) ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }

    private static void PrintFaults(JsonArray templates, bool tellsOrder)
    {
        foreach (var one in templates)
        {
            var faults = one!["faults"]!.AsArray();
            var (wrong, doubtful) = (faults.Count(IsFault), faults.Count(fault => !IsFault(fault)));
            string[] counts = [.. wrong > 0 ? [wrong == 1 ? "1 fault" : $"{wrong} faults"] : Array.Empty<string>(), .. doubtful > 0 ? [doubtful == 1 ? "1 warning" : $"{doubtful} warnings"] : Array.Empty<string>()];
            if (faults.Count > 0 || tellsOrder)
                Terminal.Line($"{Shown.Text(one["file"])}: {(faults.Count == 0 ? "in order" : string.Join(" and ", counts))}");
            foreach (var fault in faults)
                Terminal.Line($"  line {Shown.Text(fault!["line"])}, {Shown.Text(fault["place"])}: {(IsFault(fault) ? "" : "warning: ")}{Shown.Text(fault["message"])}");
        }
    }

    private static bool IsFault(JsonNode? fault) => Shown.Text(fault!["severity"]) == "fault";

    private static async Task<int> Try(string[] files, CommandContext context, CancellationToken cancel)
    {
        MustExist(files);
        var templates = files.Where(file => file.EndsWith(".json", StringComparison.OrdinalIgnoreCase)).ToList();
        var documents = files.Except(templates).ToList();
        if (templates.Count == 0 || documents.Count == 0)
            throw new RefusedException("Name at least one template (*.template.json) and one PDF file.", exitCode: ExitCodes.WrongUsage);
        var result = await TrialProcess.Run(["try-templates", .. templates, "--", .. documents], documents.Count, cancel);
        context.Print(result, () => PrintTrial(result));
        if (result["templates"]!.AsArray().Any(one => one!["faults"]!.AsArray().Any(IsFault)))
            return ExitCodes.Refused;
        return result["unreadable"]!.AsArray().Count > 0 || result["invoices"]!.AsArray().Any(invoice => Shown.Text(invoice!["state"]) != "clear")
            ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static void PrintTrial(JsonNode result)
    {
        PrintFaults(result["templates"]!.AsArray(), tellsOrder: false);
        foreach (var invoice in result["invoices"]!.AsArray())
            InvoiceSheet.Print(invoice!);
        foreach (var file in result["unreadable"]!.AsArray())
            Terminal.Line($"{Shown.Text(file!["file"])}: {Shown.Text(file["reason"])}");
    }

    private static async Task<int> Save(string[] files, string? note, CommandContext context, CancellationToken cancel)
    {
        MustExist(files);
        var saved = new JsonArray();
        foreach (var file in files)
        {
            try
            {
                // Once all are there, what none recognised before is captured anew.
                var query = $"?recapture={(file == files[^1] ? "true" : "false")}" + (note is null ? "" : $"&note={Uri.EscapeDataString(note)}");
                saved.Add(await context.Service.PostText("templates" + query, await File.ReadAllTextAsync(file, cancel), cancel));
            }
            catch (RefusedException refused)
            {
                throw new RefusedException($"{file}: {refused.Message}", refused.Code);
            }
        }
        context.Print(files.Length == 1 ? saved[0]! : saved, () =>
        {
            foreach (var one in saved)
                Terminal.Line(TemplateHistoryCommands.SavedLine(one!));
        });
        return ExitCodes.Done;
    }

    private static async Task<int> List(CommandContext context, CancellationToken cancel)
    {
        var templates = await context.Service.GetAll("templates", cancel);
        context.Print(templates, () =>
        {
            if (templates.Count == 0)
            {
                Terminal.Line("No templates yet. Save one with “./daxlin template save FILE”.");
                return;
            }
            var table = Terminal.NewTable(("name", false), ("vendor", false), ("currency", false), ("version", true), ("invoices", true), ("untouched", true), ("", false));
            IReadOnlyList<string> headings = ["name", "vendor", "currency", "version", "invoices", "untouched", ""];
            Terminal.LetWrap(table, 1, templates.Select(one => Row(one!)).Prepend(headings).ToList());
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    private static IReadOnlyList<string> Row(JsonNode template)
    {
        var (invoices, untouched) = (Shown.Number(template["invoices"]), Shown.Number(template["untouched"]));
        return
        [
            Shown.Text(template["name"]), Shown.Text(template["vendor"]), Shown.Text(template["currency"]), Shown.Text(template["version"]),
            $"{invoices}", invoices == 0 ? "–" : $"{100 * untouched / invoices} %", template["isRetired"]!.GetValue<bool>() ? "retired" : "",
        ];
    }

    private static async Task<int> Show(string name, CommandContext context, CancellationToken cancel)
    {
        var template = await context.Service.Get($"templates/{Uri.EscapeDataString(name)}", cancel);
        context.Print(template, () => Console.Out.WriteLine(template["document"]!.ToJsonString(
            new System.Text.Json.JsonSerializerOptions { WriteIndented = true, Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping })));
        return ExitCodes.Done;
    }
}
