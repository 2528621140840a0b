using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Access keys, by which programs act in one's name.</summary>
internal static class KeyCommands
{
    public static Command Make()
    {
        var name = new Argument<string>("NAME") { Description = "What the key is for; it stands in the history." };
        var rights = new Option<string[]>("--right")
        {
            Description = "see, work, approve, post or administer; all of one's own if none is said.",
            HelpName = "RIGHT",
            AllowMultipleArgumentsPerToken = true,
        };
        var days = new Option<int?>("--days") { Description = "How long it lasts: 90 if left out, at most 366.", HelpName = "N" };
        var add = new Command("add", "Make an access key. It is made by name and password, asked for like those of login, and printed once.") { name, rights, days };
        add.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            await LoginCommands.SignIn(context, cancel);
            var wanted = new JsonObject { ["name"] = parsed.GetValue(name), ["days"] = parsed.GetValue(days) };
            if (parsed.GetValue(rights) is { Length: > 0 } said)
                wanted["rights"] = new JsonArray([.. said.Select(word => JsonValue.Create(word))]);
            var made = await context.Service.Post("access-keys", wanted, cancel);
            await context.Service.Delete("session", cancel);
            context.Print(made, () =>
            {
                Terminal.Line($"The access key “{parsed.GetValue(name)}”, until {Shown.Day(made["record"]!["expiresAt"])}, with the rights {Shown.Listed(made["record"]!["rights"])}. It is not shown again:");
                Terminal.Line($"  {Shown.Text(made["key"])}");
            });
            return ExitCodes.Done;
        }));
        var list = new Command("list", "List one's own access keys; an administrator sees everyone's.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var all = await context.Service.GetAll("access-keys", cancel);
            context.Print(all, () => PrintList(all));
            return ExitCodes.Done;
        }));
        var number = new Argument<int>("KEY") { Description = "The key's number." };
        var revoke = new Command("revoke", "Revoke an access key: it works no more.") { number };
        revoke.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var key = (await context.Service.GetAll("access-keys", cancel)).FirstOrDefault(one => Shown.Number(one!["id"]) == parsed.GetValue(number))
                ?? throw new RefusedException($"There is no access key {parsed.GetValue(number)}.");
            var revoked = await context.Service.Decide($"access-keys/{parsed.GetValue(number)}/revocation", new JsonObject(), Shown.Number(key["revision"]), cancel);
            context.Print(revoked, () => Terminal.Line($"The access key “{Shown.Text(revoked["name"])}” is revoked."));
            return ExitCodes.Done;
        }));
        return new Command("key", "Access keys, by which programs act in one's name.") { add, list, revoke };
    }

    private static void PrintList(JsonArray keys)
    {
        if (keys.Count == 0)
        {
            Terminal.Line("There are no access keys.");
            return;
        }
        var table = Terminal.NewTable(("no.", true), ("for", false), ("of", false), ("until", false), ("used", false), ("rights", false));
        foreach (var key in keys)
        {
            table.AddRow(
                new Text(Shown.Text(key!["id"])), new Text(Shown.Cut(Shown.Text(key["name"]), 20)), new Text(Shown.Cut(Shown.Text(key["owner"]), 16)),
                new Text(key["revokedAt"] is null ? Shown.Day(key["expiresAt"]) : "revoked"), new Text(key["lastUsedAt"] is null ? "never" : Shown.Day(key["lastUsedAt"])), new Text(Shown.Listed(key["rights"])));
        }
        Terminal.Out.Write(table);
    }
}
