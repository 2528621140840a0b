using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Receivers: who gets the files of posting runs, and on which way.</summary>
internal static class ReceiverCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "A receiver's document, *.receiver.json.", Arity = ArgumentArity.OneOrMore };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var name = new Argument<string>("NAME") { Description = "The receiver's name." };

        var check = WrittenDocument.Check("Say what receivers' documents mean and what is wrong with them; nothing is saved, and nobody is asked.", "receivers", files);

        var save = WrittenDocument.Save("Save receivers' documents; a changed one becomes the next version.", "receivers", files, note);

        var list = new Command("list", "List the receivers.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var receivers = await context.Service.GetAll("receivers", cancel);
            context.Print(receivers, () => Print(receivers));
            return ExitCodes.Done;
        }));

        var version = new Option<int?>("--version") { Description = "This version; the newest if left out.", HelpName = "N" };
        var show = new Command("show", "Print a receiver's document.") { name, version };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = parsed.GetValue(version) is { } number ? $"?version={number}" : "";
            var receiver = await context.Service.Get($"receivers/{Uri.EscapeDataString(parsed.GetValue(name)!)}{query}", cancel);
            context.Print(receiver, () =>
            {
                Terminal.Line(Shown.Text(receiver["text"]).TrimEnd());
                WrittenDocument.PrintMeaning(receiver);
            });
            return ExitCodes.Done;
        }));

        var reach = new Command("reach", "Ask whether a receiver can be reached; nothing is handed over.") { name };
        reach.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var reached = await context.Service.Post($"receivers/{Uri.EscapeDataString(parsed.GetValue(name)!)}/reach", new JsonObject(), cancel);
            context.Print(reached, () => Terminal.Line(Shown.Text(reached["says"])));
            return reached["isReached"]!.GetValue<bool>() ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        return new Command("receiver", "Receivers of posting runs: a folder, a web address, mail, SFTP, tables in PostgreSQL.")
        {
            check, save, list, show, reach,
            WrittenDocument.Act("retire", "Retire a receiver: nothing is delivered to it any more.", "receivers", "retirement", name, note),
            WrittenDocument.Act("bring-back", "Bring a retired receiver back.", "receivers", "comeback", name, note),
        };
    }

    private static void Print(JsonArray receivers)
    {
        if (receivers.Count == 0)
        {
            Terminal.Line("No receivers yet: runs are fetched by hand. docs/DELIVERY.md tells how they reach a ledger by themselves.");
            return;
        }
        var table = Terminal.NewTable(("receiver", false), ("version", true), ("way", false), ("where", false), ("runs", false), ("waits", true), ("given up", true), ("", false));
        foreach (var one in receivers)
        {
            table.AddRow(
                new Text(Shown.Text(one!["name"])), new Text(Shown.Text(one["version"])), new Text(Shown.Text(one["way"])), new Text(Shown.Cut(Shown.Text(one["place"]), 34)),
                new Text($"{(Shown.Text(one["layout"]) is { Length: > 0 } layout ? layout : "all")}, {(one["atOnce"]!.GetValue<bool>() ? "at once" : "by hand")}"), new Text(Shown.Text(one["waiting"])),
                new Text(Shown.Text(one["givenUp"])), new Text(one["isRetired"]!.GetValue<bool>() ? "retired" : ""));
        }
        Terminal.Out.Write(table);
    }
}
