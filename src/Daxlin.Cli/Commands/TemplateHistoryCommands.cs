using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>A template's versions: what they say otherwise, and which is the current one.</summary>
internal static class TemplateHistoryCommands
{
    private static readonly Option<string?> Note = new("--note") { Description = "Why, for the history.", HelpName = "TEXT" };

    public static IEnumerable<Command> Make()
    {
        var name = new Argument<string>("NAME") { Description = "The template's name." };
        var from = new Option<int?>("--from") { Description = "The older version; the one before the newest if left out.", HelpName = "N" };
        var to = new Option<int?>("--to") { Description = "The newer version; the newest if left out.", HelpName = "N" };
        var history = new Command("history", "List a template's versions, with who saved each and why.") { name };
        history.SetAction(CommandContext.Run((parsed, context, cancel) => History(parsed.GetValue(name)!, context, cancel)));
        yield return history;

        var compare = new Command("compare", "Say what two versions of a template say otherwise, key by key.") { name, from, to };
        compare.SetAction(CommandContext.Run((parsed, context, cancel) => Compare(parsed.GetValue(name)!, parsed.GetValue(from), parsed.GetValue(to), context, cancel)));
        yield return compare;

        var take = new Option<int?>("--take") { Description = "Write the template changed as the correction of this number says, with --out.", HelpName = "NUMBER" };
        var output = new Option<string?>("--out") { Description = "The file to write; rehearse it before it is saved.", HelpName = "FILE" };
        var corrections = new Command("corrections", "Print what persons corrected again and again on this template's invoices, and the change that would mend it.") { name, take, output };
        corrections.SetAction(CommandContext.Run((parsed, context, cancel) =>
            Corrections(parsed.GetValue(name)!, parsed.GetValue(take), parsed.GetValue(output), context, cancel)));
        yield return corrections;

        var version = new Option<int>("--version") { Description = "The version to go back to.", HelpName = "N", Required = true };
        yield return Act("return", "Make an older version the current one again, as a new version.", "return", [version],
            parsed => new JsonObject { ["version"] = parsed.GetValue(version) });
        yield return Act("retire", "Retire a template: it recognises nothing any more, and its history is kept.", "retirement", [], _ => []);
        yield return Act("bring-back", "Bring a retired template back.", "comeback", [], _ => []);
        var newName = new Option<string>("--to") { Description = "The new name: lower-case words, joined by hyphens.", HelpName = "NAME", Required = true };
        yield return Act("rename", "Give a template another name; its invoices keep the name that captured them.", "renaming", [newName],
            parsed => new JsonObject { ["name"] = parsed.GetValue(newName) });
    }

    private static async Task<int> Corrections(string name, int? take, string? output, CommandContext context, CancellationToken cancel)
    {
        var found = (await context.Service.Get($"templates/{Uri.EscapeDataString(name)}/corrections", cancel)).AsArray();
        if (take is null != output is null)
            throw new RefusedException("Say which change with --take, and where it is written to with --out.", exitCode: ExitCodes.WrongUsage);
        if (take is { } number)
        {
            if (number < 1 || number > found.Count)
                throw new RefusedException($"There is no correction {number} of {name}; there are {found.Count}.", exitCode: ExitCodes.Refused);
            if (found[number - 1]!["template"] is not { } template)
                throw new RefusedException($"No change of {name} is known that gives it; open the desk on invoice {Shown.Text(found[number - 1]!["invoices"]![0])}.", exitCode: ExitCodes.Refused);
            await File.WriteAllTextAsync(output!, Shown.Text(template) + "\n", cancel);
            context.Print(found[number - 1]!, () => Terminal.Line($"{output} written: {Shown.Text(found[number - 1]!["change"])}. Rehearse it: template rehearse {output}"));
            return ExitCodes.Done;
        }
        context.Print(found, () =>
        {
            if (found.Count == 0)
                Terminal.Line($"Nothing was corrected in the same way on three invoices of {name}'s newest version.");
            foreach (var (one, at) in found.Select((one, at) => (one!, at)))
            {
                Terminal.Line($"{at + 1}  {Shown.Text(one["says"])} Invoices {Shown.Ranges(one["invoices"]!.AsArray().Select(Shown.Number))}.");
                Terminal.Line(Shown.Text(one["change"]) is { Length: > 0 } change ? $"   Mended if {change}." : "   No one change gives that; look at it on the desk.");
            }
        });
        return found.Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    /// <summary>An act on the newest version: the service refuses if somebody else saves one meanwhile.</summary>
    private static Command Act(string verb, string description, string path, Option[] options, Func<ParseResult, JsonObject> body)
    {
        var name = new Argument<string>("NAME") { Description = "The template's name." };
        var command = new Command(verb, description) { name };
        foreach (var option in options)
            command.Options.Add(option);
        command.Options.Add(Note);
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var of = Uri.EscapeDataString(parsed.GetValue(name)!);
            var newest = Shown.Number((await context.Service.Get($"templates/{of}", cancel))["newest"]);
            var said = body(parsed);
            said["note"] = parsed.GetValue(Note);
            var saved = await context.Service.Decide($"templates/{of}/{path}", said, newest, cancel);
            context.Print(saved, () => Terminal.Line(SavedLine(saved)));
            return ExitCodes.Done;
        }));
        return command;
    }

    /// <summary>What saving came to, on a line.</summary>
    public static string SavedLine(JsonNode saved)
    {
        var again = Shown.Number(saved["recaptured"]);
        return $"{Shown.Text(saved["name"])}, version {Shown.Text(saved["version"])}" + (saved["isNew"]!.GetValue<bool>() ? " saved" : ": nothing has changed")
            + (again > 0 ? $"; {again} {(again == 1 ? "document is" : "documents are")} captured anew" : "");
    }

    private static async Task<int> History(string name, CommandContext context, CancellationToken cancel)
    {
        var versions = await context.Service.Get($"templates/{Uri.EscapeDataString(name)}/versions", cancel);
        context.Print(versions, () =>
        {
            var table = Terminal.NewTable(("version", true), ("saved", false), ("by", false), ("invoices", true), ("", false), ("note", false));
            foreach (var one in versions.AsArray())
            {
                table.AddRow(
                    new Text(Shown.Text(one!["version"])), new Text(Shown.Time(one["savedAt"])), new Text(Shown.Text(one["savedBy"])), new Text(Shown.Text(one["invoices"])),
                    new Text(one["isRetired"]!.GetValue<bool>() ? "retired" : ""), new Text(Shown.Cut(Shown.Text(one["note"]), 40)));
            }
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    private static async Task<int> Compare(string name, int? from, int? to, CommandContext context, CancellationToken cancel)
    {
        var of = Uri.EscapeDataString(name);
        var newer = to ?? Shown.Number((await context.Service.Get($"templates/{of}", cancel))["newest"]);
        var older = from ?? newer - 1;
        if (older < 1)
            throw new RefusedException($"The template “{name}” has one version only; there is nothing to compare it with.");
        var differences = await context.Service.Get($"templates/{of}/comparison?from={older}&to={newer}", cancel);
        context.Print(differences, () =>
        {
            Terminal.Line(differences.AsArray().Count == 0 ? $"{name}: versions {older} and {newer} say the same." : $"{name}, version {older} → version {newer}");
            foreach (var one in differences.AsArray())
            {
                Terminal.Indented(2, Shown.Text(one!["place"]));
                Terminal.Indented(4, $"{Said(one["before"])} → {Said(one["after"])}");
            }
        });
        return differences.AsArray().Count == 0 ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }

    private static string Said(JsonNode? json) => Shown.Text(json) is { Length: > 0 } text ? Shown.Cut(text, 200) : "–";
}
