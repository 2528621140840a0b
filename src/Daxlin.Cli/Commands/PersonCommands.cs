using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>The people who may sign in, for administrators.</summary>
internal static class PersonCommands
{
    private static readonly Argument<string> Name = new("NAME") { Description = "The person's name, in full." };

    private static readonly Option<string[]> Roles = new("--role")
    {
        Description = "clerk, approver, administrator or auditor; said once for each role.",
        HelpName = "ROLE",
        AllowMultipleArgumentsPerToken = true,
    };

    private static readonly Option<string[]> Groups = new("--group")
    {
        Description = "A group of batches or vendors that the person is held to; all if none is said.",
        HelpName = "GROUP",
    };

    public static Command Make()
    {
        var list = new Command("list", "List all people with their roles.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var all = await context.Service.GetAll("people", cancel);
            context.Print(all, () => PrintList(all));
            return ExitCodes.Done;
        }));
        var add = new Command("add", "Add a person, who sets a password by the one-time link that is printed.") { Name, Roles, Groups };
        add.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var added = await context.Service.Post(
                "people", new JsonObject { ["name"] = parsed.GetValue(Name), ["roles"] = ArrayOf(parsed.GetValue(Roles)), ["groups"] = ArrayOf(parsed.GetValue(Groups)) }, cancel);
            context.Print(added, () => PrintLink(parsed.GetValue(Name)!, added["link"], parsed));
            return ExitCodes.Done;
        }));
        var change = new Command("change", "Say anew which roles and groups a person has.") { Name, Roles, Groups };
        change.SetAction(CommandContext.Run((parsed, context, cancel) => Keep(
            parsed, context, person => new JsonObject { ["roles"] = ArrayOf(parsed.GetValue(Roles)), ["groups"] = ArrayOf(parsed.GetValue(Groups)), ["isDisabled"] = person["isDisabled"]!.GetValue<bool>() }, cancel)));
        var disable = new Command("disable", "Keep a person out, at once; what it did stays in the history.") { Name };
        disable.SetAction(CommandContext.Run((parsed, context, cancel) => Keep(parsed, context, person => AsItIs(person, true), cancel)));
        var enable = new Command("enable", "Let a disabled person in again.") { Name };
        enable.SetAction(CommandContext.Run((parsed, context, cancel) => Keep(parsed, context, person => AsItIs(person, false), cancel)));
        var drops = new Option<bool>("--drop-second-factor") { Description = "For one who has lost the authenticator." };
        var link = new Command("link", "Print a one-time link by which a person sets a new password.") { Name, drops };
        link.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var person = await Find(parsed.GetValue(Name)!, context, cancel);
            var given = await context.Service.Decide(
                $"people/{Shown.Text(person["id"])}/link", new JsonObject { ["dropsSecondFactor"] = parsed.GetValue(drops) }, Shown.Number(person["revision"]), cancel);
            context.Print(given, () => PrintLink(parsed.GetValue(Name)!, given["link"], parsed));
            return ExitCodes.Done;
        }));
        var until = new Option<string>("--until") { Description = "The last day: 2026-12-05.", HelpName = "DAY", Required = true };
        var absent = new Option<string?>("--for") { Description = "Who is away; oneself if nobody is said.", HelpName = "NAME" };
        var standIn = new Command("stand-in", "Say who approves for an approver who is away.") { Name, until, absent };
        standIn.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var made = await context.Service.Post(
                "stand-ins", new JsonObject { ["standIn"] = parsed.GetValue(Name), ["until"] = PeriodCommands.DayOf(parsed.GetValue(until)!), ["absent"] = parsed.GetValue(absent) }, cancel);
            context.Print(made, () => Terminal.Line($"{Shown.Text(made["standIn"])} approves for {Shown.Text(made["absent"])}, up to and with {Shown.Text(made["until"])}."));
            return ExitCodes.Done;
        }));
        var back = new Command("back", "End what a person stands in for, or is stood in for, before its time.") { Name };
        back.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            bool Is(JsonNode? name) => string.Equals(Shown.Text(name), parsed.GetValue(Name)!.Trim(), StringComparison.OrdinalIgnoreCase);
            var holding = (await context.Service.GetAll("stand-ins", cancel)).FirstOrDefault(one => one!["holds"]!.GetValue<bool>() && (Is(one["absent"]) || Is(one["standIn"])))
                ?? throw new RefusedException($"Nobody approves for {parsed.GetValue(Name)}, who approves for nobody either.");
            var ended = await context.Service.Decide($"stand-ins/{Shown.Text(holding["id"])}/end", new JsonObject(), Shown.Number(holding["revision"]), cancel);
            context.Print(ended, () => Terminal.Line($"{Shown.Text(ended["standIn"])} approves for {Shown.Text(ended["absent"])} no more."));
            return ExitCodes.Done;
        }));
        return new Command("person", "The people who may sign in.") { list, add, change, disable, enable, link, standIn, back };
    }

    private static JsonObject AsItIs(JsonNode person, bool isDisabled) =>
        new() { ["roles"] = person["roles"]!.DeepClone(), ["groups"] = person["groups"]!.DeepClone(), ["isDisabled"] = isDisabled };

    private static async Task<int> Keep(ParseResult parsed, CommandContext context, Func<JsonNode, JsonObject> wanted, CancellationToken cancel)
    {
        var person = await Find(parsed.GetValue(Name)!, context, cancel);
        var kept = await context.Service.Replace($"people/{Shown.Text(person["id"])}", wanted(person), Shown.Number(person["revision"]), cancel);
        context.Print(kept, () => PrintList(new JsonArray(kept.DeepClone())));
        return ExitCodes.Done;
    }

    private static async Task<JsonNode> Find(string name, CommandContext context, CancellationToken cancel) =>
        (await context.Service.GetAll("people", cancel)).FirstOrDefault(one => string.Equals(Shown.Text(one!["name"]), name.Trim(), StringComparison.OrdinalIgnoreCase))
        ?? throw new RefusedException($"There is no person “{name}”; “./daxlin person list” names all.");

    private static void PrintList(JsonArray people)
    {
        if (people.Count == 0)
            Terminal.Line("There are no people here yet.");
        if (people.Count == 0)
            return;
        var table = Terminal.NewTable(("name", false), ("roles", false), ("only for", false), ("signed in", false), ("", false));
        foreach (var person in people)
        {
            table.AddRow(
                new Text(Shown.Cut(Shown.Text(person!["name"]), 24)), new Text(Shown.Listed(person["roles"])), new Text(Shown.Cut(Shown.Listed(person["groups"]), 16)),
                new Text(person["signedInAt"] is null ? "never" : Shown.Time(person["signedInAt"])), new Text(StateOf(person)));
        }
        Terminal.Out.Write(table);
    }

    private static string StateOf(JsonNode person) =>
        person["isDisabled"]!.GetValue<bool>() ? "disabled" : person["isLocked"]!.GetValue<bool>() ? "locked" : person["isByProvider"]!.GetValue<bool>() ? "by the identity provider" : !person["hasPassword"]!.GetValue<bool>() ? "no password yet" : person["hasSecondFactor"]!.GetValue<bool>() ? "second factor" : "";

    private static void PrintLink(string name, JsonNode? link, ParseResult parsed)
    {
        Terminal.Line($"With this link {name} sets a password; it works once and for a day, and is not shown again:");
        Terminal.Line($"  {parsed.GetValue(CommandContext.Server)!.TrimEnd('/')}{Shown.Text(link)}");
    }

    private static JsonArray ArrayOf(string[]? words) => [.. (words ?? []).Select(word => JsonValue.Create(word))];
}
