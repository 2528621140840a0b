using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class TemplateCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "Template documents (*.template.json).", Arity = ArgumentArity.OneOrMore };
        var save = new Command("save", "Save templates; a changed one becomes the next version.") { files };
        save.SetAction(CommandContext.Run((parsed, context, cancel) => Save(parsed.GetValue(files)!, context, cancel)));

        var checkedFiles = new Argument<string[]>("FILE") { Description = "Template documents (*.template.json).", Arity = ArgumentArity.OneOrMore };
        var check = new Command("check", "Say what is wrong with templates, by key and line; nothing is saved.") { checkedFiles };
        check.SetAction(CommandContext.Run((parsed, context, cancel) => Check(parsed.GetValue(checkedFiles)!, context, cancel)));

        var list = new Command("list", "List all templates.");
        list.SetAction(CommandContext.Run((_, context, cancel) => List(context, cancel)));

        var name = new Argument<string>("NAME") { Description = "The template's name." };
        var show = new Command("show", "Print a template's document.") { name };
        show.SetAction(CommandContext.Run((parsed, context, cancel) => Show(parsed.GetValue(name)!, context, cancel)));

        return new Command("template", "Templates: how a vendor's invoices are recognised, captured and checked.") { check, save, list, show };
    }

    private static void MustExist(string[] files)
    {
        foreach (var file in files.Where(file => !File.Exists(file)))
            throw new RefusedException($"There is no file {file}.", exitCode: ExitCodes.WrongUsage);
    }

    private static async Task<int> Check(string[] files, CommandContext context, CancellationToken cancel)
    {
        MustExist(files);
        var answers = new JsonArray();
        foreach (var file in files)
            answers.Add(await context.Service.PostText("templates/check", await File.ReadAllTextAsync(file, cancel), cancel));
        context.Print(files.Length == 1 ? answers[0]! : answers, () =>
        {
            foreach (var (file, answer) in files.Zip(answers))
            {
                var faults = answer!["faults"]!.AsArray();
                Terminal.Line(faults.Count == 0 ? $"{file}: in order" : $"{file}: {(faults.Count == 1 ? "1 fault" : $"{faults.Count} faults")}");
                foreach (var fault in faults)
                    Terminal.Line($"  line {Shown.Text(fault!["line"])}, {Shown.Text(fault["place"])}: {Shown.Text(fault["message"])}");
            }
        });
        return answers.All(answer => answer!["faults"]!.AsArray().Count == 0) ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }

    private static async Task<int> Save(string[] files, CommandContext context, CancellationToken cancel)
    {
        MustExist(files);
        var saved = new JsonArray();
        foreach (var file in files)
        {
            try
            {
                saved.Add(await context.Service.PostText("templates", await File.ReadAllTextAsync(file, cancel), cancel));
            }
            catch (RefusedException refused)
            {
                throw new RefusedException($"{file}: {refused.Message}", refused.Code);
            }
        }
        context.Print(files.Length == 1 ? saved[0]! : saved, () =>
        {
            foreach (var one in saved)
            {
                Terminal.Line($"{Shown.Text(one!["name"])}, version {Shown.Text(one["version"])}"
                    + (one["isNew"]!.GetValue<bool>() ? " saved" : ": nothing has changed"));
            }
        });
        return ExitCodes.Done;
    }

    private static async Task<int> List(CommandContext context, CancellationToken cancel)
    {
        var templates = (await context.Service.Get("templates", cancel)).AsArray();
        context.Print(templates, () =>
        {
            if (templates.Count == 0)
            {
                Terminal.Line("No templates yet. Save one with “./daxlin template save FILE”.");
                return;
            }
            var table = Terminal.NewTable(("name", false), ("vendor", false), ("currency", false), ("version", true), ("saved", false));
            foreach (var one in templates)
            {
                table.AddRow(
                    Cell(Shown.Text(one!["name"])), Cell(Shown.Cut(Shown.Text(one["vendor"]), 36)), Cell(Shown.Text(one["currency"])),
                    Cell(Shown.Text(one["version"])), Cell(Shown.Time(one["savedAt"])));
            }
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    private static async Task<int> Show(string name, CommandContext context, CancellationToken cancel)
    {
        var template = await context.Service.Get($"templates/{Uri.EscapeDataString(name)}", cancel);
        context.Print(template, () => Console.Out.WriteLine(template["document"]!.ToJsonString(
            new System.Text.Json.JsonSerializerOptions { WriteIndented = true, Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping })));
        return ExitCodes.Done;
    }

    private static Text Cell(string text) => new(text);
}
