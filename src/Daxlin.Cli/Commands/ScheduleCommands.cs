using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Schedules: what is done by itself at set times.</summary>
internal static class ScheduleCommands
{
    public static Command Make()
    {
        var files = new Argument<string[]>("FILE") { Description = "A schedule's document, *.schedule.json.", Arity = ArgumentArity.OneOrMore };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var name = new Argument<string>("NAME") { Description = "The schedule's name." };

        var list = new Command("list", "List the schedules with when each is due, and what it did last.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var schedules = await context.Service.GetAll("schedules", cancel);
            context.Print(schedules, () => Print(schedules));
            return schedules.Any(one => Shown.Text(one!["state"]) == "trouble") ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));

        var version = new Option<int?>("--version") { Description = "This version; the newest if left out.", HelpName = "N" };
        var show = new Command("show", "Print a schedule's document and what it means.") { name, version };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = parsed.GetValue(version) is { } number ? $"?version={number}" : "";
            var schedule = await context.Service.Get($"{PathOf(parsed.GetValue(name)!)}{query}", cancel);
            context.Print(schedule, () =>
            {
                Terminal.Line(Shown.Text(schedule["text"]).TrimEnd());
                WrittenDocument.PrintMeaning(schedule);
            });
            return ExitCodes.Done;
        }));

        var most = new Option<int>("--last") { Description = "So many at most.", HelpName = "N", DefaultValueFactory = _ => 20 };
        var turns = new Command("turns", "List what a schedule did and when, the newest first.") { name, most };
        turns.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var taken = (await context.Service.Get($"{PathOf(parsed.GetValue(name)!)}/turns?limit={Math.Clamp(parsed.GetValue(most), 1, 1000)}", cancel)).AsArray();
            context.Print(taken, () =>
            {
                if (taken.Count == 0)
                    Terminal.Line("It has done nothing yet.");
                foreach (var turn in taken)
                    BatchSheet.Hanging($"{Shown.Time(turn!["at"])}  ", Came(turn));
            });
            return ExitCodes.Done;
        }));

        var now = new Command("now", "Have a schedule do its work now, beside the times at which it is due.") { name };
        now.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var turn = await context.Service.Post($"{PathOf(parsed.GetValue(name)!)}/turn", new JsonObject(), cancel);
            context.Print(turn, () => Terminal.Line(Came(turn)));
            return Shown.Text(turn["outcome"]) == "refused" ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));
        return new Command("schedule", "Schedules: posting runs and messages at set times.")
        {
            WrittenDocument.Check("Say what schedules' documents mean and what is wrong with them; nothing is saved or done.", "schedules", files),
            WrittenDocument.Save("Add schedules, or change them: a changed document becomes the next version.", "schedules", files, note, verb: "add"), list, show, turns, now,
            WrittenDocument.Pausing("pause", "Stop what a schedule does by itself until somebody says to go on.", "schedules", "pause", "is paused", name, note),
            WrittenDocument.Pausing("resume", "Let a schedule go on from now; times that have passed are not made up.", "schedules", "resumption", "goes on", name, note),
            WrittenDocument.Act("retire", "Retire a schedule: it does nothing any more.", "schedules", "retirement", name, note),
            WrittenDocument.Act("bring-back", "Bring a retired schedule back.", "schedules", "comeback", name, note),
        };
    }

    private static string PathOf(string name) => $"schedules/{Uri.EscapeDataString(name)}";

    private static void Print(JsonArray schedules)
    {
        if (schedules.Count == 0)
        {
            Terminal.Line("No schedules yet: nothing is posted or told by itself. docs/SCHEDULES.md tells how it can be.");
            return;
        }
        var table = Terminal.NewTable(("schedule", false), ("does", false), ("state", false), ("when", false), ("next (UTC)", false));
        foreach (var one in schedules)
        {
            table.AddRow(
                new Text(Shown.Text(one!["name"])), new Text(Shown.Text(one["does"])), new Text(StateOf(one)), new Text(Shown.Text(one["when"])), new Text(one["nextAt"] is null ? "–" : Shown.Time(one["nextAt"])));
        }
        Terminal.Out.Write(table);
        foreach (var one in schedules.Where(one => one!["last"] is not null))
            BatchSheet.Hanging($"{Shown.Text(one!["name"])}, {Shown.Time(one["last"]!["at"])}:  ", Came(one["last"]!));
        foreach (var one in schedules.Where(one => Shown.Text(one!["state"]) == "trouble" && Shown.Text(one["trouble"]) != Shown.Text(one["last"]?["says"])))
            BatchSheet.Hanging($"▲ {Shown.Text(one!["name"])}:  ", Shown.Text(one["trouble"]));
    }

    private static string StateOf(JsonNode schedule) => Shown.Text(schedule["state"]) switch
    {
        "trouble" => "▲ to be looked at",
        "in-use" => "● in use",
        "paused" => "◦ paused",
        var state => "× " + state,
    };

    /// <summary>What came of a turn, with its sign.</summary>
    private static string Came(JsonNode turn)
    {
        var (sign, says) = (Shown.Text(turn["outcome"]), Shown.Text(turn["mail"])) switch
        {
            ("refused", _) or (_, "given-up") => ("▲", ""),
            (_, "waiting") => ("◦", $"“{Shown.Text(turn["subject"])}” is on its way."),
            (_, "sent") => ("■", $"“{Shown.Text(turn["subject"])}” was sent."),
            ("nothing", _) => ("◦", ""),
            _ => ("■", ""),
        };
        var by = Shown.Text(turn["by"]) is { Length: > 0 } person ? $" (by {person}, at once)" : "";
        return $"{sign} {$"{says} {Shown.Text(turn["says"])}".Trim()}{by}";
    }
}
