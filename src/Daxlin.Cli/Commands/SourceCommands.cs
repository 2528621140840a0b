using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Sources: folders and mailboxes that invoices come from by themselves.</summary>
internal static class SourceCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "A source's document, *.source.json.", Arity = ArgumentArity.OneOrMore };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var name = new Argument<string>("NAME") { Description = "The source's name." };

        var check = WrittenDocument.Check("Say what sources' documents mean and what is wrong with them; nothing is saved, and nothing is looked at.", "sources", files);

        var list = new Command("list", "List the sources with how each is, and what came from it.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var sources = await context.Service.GetAll("sources", cancel);
            context.Print(sources, () => Print(sources));
            return sources.Any(source => Shown.Text(source!["state"]) == "trouble") ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));

        var version = new Option<int?>("--version") { Description = "This version; the newest if left out.", HelpName = "N" };
        var show = new Command("show", "Print a source's document and what it means.") { name, version };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = parsed.GetValue(version) is { } number ? $"?version={number}" : "";
            var source = await context.Service.Get($"{PathOf(parsed.GetValue(name)!)}{query}", cancel);
            context.Print(source, () =>
            {
                Terminal.Line(Shown.Text(source["text"]).TrimEnd());
                WrittenDocument.PrintMeaning(source);
            });
            return ExitCodes.Done;
        }));

        var most = new Option<int>("--last") { Description = "So many at most.", HelpName = "N", DefaultValueFactory = _ => 20 };
        var items = new Command("items", "List what came from a source and what became of it, the newest first.") { name, most };
        items.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var came = (await context.Service.Get($"{PathOf(parsed.GetValue(name)!)}/items?limit={Math.Clamp(parsed.GetValue(most), 1, 1000)}", cancel)).AsArray();
            context.Print(came, () => PrintItems(came));
            return ExitCodes.Done;
        }));

        var look = new Command("try", "Look at a source now, take what is there, and say what came of it.") { name };
        look.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var said = await context.Service.Post($"{PathOf(parsed.GetValue(name)!)}/look", new JsonObject(), cancel);
            context.Print(said, () => Terminal.Line(Shown.Text(said["says"])));
            return said["isReached"]!.GetValue<bool>() ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        return new Command("source", "Sources that invoices come from by themselves: watched folders and mailboxes.")
        {
            check, WrittenDocument.Save("Add sources, or change them: a changed document becomes the next version.", "sources", files, note, verb: "add"), list, show, items, look,
            WrittenDocument.Pausing("pause", "Stop looking at a source until somebody says to go on.", "sources", "pause", "is paused", name, note),
            WrittenDocument.Pausing("resume", "Go on looking at a source.", "sources", "resumption", "is looked at again", name, note),
            WrittenDocument.Act("retire", "Retire a source: it is not looked at any more.", "sources", "retirement", name, note),
            WrittenDocument.Act("bring-back", "Bring a retired source back.", "sources", "comeback", name, note),
        };
    }

    private static string PathOf(string name) => $"sources/{Uri.EscapeDataString(name)}";

    private static void Print(JsonArray sources)
    {
        if (sources.Count == 0)
        {
            Terminal.Line("No sources yet: invoices are taken in by hand. docs/INTAKE.md tells how they come by themselves.");
            return;
        }
        var table = Terminal.NewTable(("source", false), ("way", false), ("state", false), ("last taken (UTC)", false), ("came", true), ("documents", true), ("left out", true));
        foreach (var one in sources)
        {
            table.AddRow(
                new Text(Shown.Text(one!["name"])), new Text(Shown.Text(one["way"])), new Text(StateOf(one)), new Text(one["takenAt"] is null ? "never" : Shown.Time(one["takenAt"])),
                new Text(Shown.Text(one["items"])), new Text(Shown.Text(one["documents"])), new Text(Shown.Text(one["leftOut"])));
        }
        Terminal.Out.Write(table);
        foreach (var one in sources.Where(one => Shown.Text(one!["trouble"]).Length > 0))
            BatchSheet.Hanging($"▲ {Shown.Text(one!["name"])}:  ", Shown.Text(one["trouble"]));
    }

    private static string StateOf(JsonNode source) => Shown.Text(source["state"]) switch
    {
        "trouble" => "▲ cannot be looked at",
        "watched" => "● watched",
        "resting" => "◦ rests until its hours",
        "paused" => "◦ paused",
        var state => "× " + state,
    };

    private static void PrintItems(JsonArray items)
    {
        if (items.Count == 0)
            Terminal.Line("Nothing has come from it yet.");
        foreach (var item in items)
        {
            var from = Shown.Text(item!["from"]) is { Length: > 0 } sender ? $" from {sender}" : "";
            var batch = Shown.Text(item["batch"]) is { Length: > 0 } named ? $" → {named}" : "";
            BatchSheet.Hanging($"{Shown.Time(item["at"])}  ", $"{Shown.Text(item["name"])}{from}{batch}");
            foreach (var part in item["parts"]!.AsArray())
            {
                var isTaken = Shown.Text(part!["outcome"]) == "taken";
                BatchSheet.Hanging($"    {(isTaken ? "■" : "◦")} ", $"{Shown.Text(part["name"])}{(isTaken ? "" : $": {Shown.Text(part["reason"])}")}");
            }
            if (AnswerOf(item) is { Length: > 0 } answer)
                BatchSheet.Hanging("    ", answer);
        }
    }

    private static string AnswerOf(JsonNode item) => Shown.Text(item["answer"]) switch
    {
        "sent" => $"■ {Shown.Text(item["answerTo"])} was told.",
        "waiting" => $"◦ {Shown.Text(item["answerTo"])} will be told. {Shown.Text(item["answerSays"])}",
        "given-up" => $"▲ {Shown.Text(item["answerTo"])} was not told for sure. {Shown.Text(item["answerSays"])}",
        _ => Shown.Text(item["answerSays"]) is { Length: > 0 } why ? "◦ " + why : "",
    };
}
