using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Passwords and keys of receivers, kept apart from their documents.</summary>
internal static class SecretCommands
{
    public static Command Make()
    {
        var name = new Argument<string>("NAME") { Description = "The secret's name, by which documents speak of it." };
        var keep = new Command("keep", "Keep a password or a key, asked for here or read from what is piped in.") { name };
        keep.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            // Never as an argument: what is typed on the command line stands in the shell's history and in the list of processes.
            var secret = Console.IsInputRedirected ? await Console.In.ReadToEndAsync(cancel)
                : await new TextPrompt<string>($"{parsed.GetValue(name)}:") { IsSecret = true, Mask = null }.ShowAsync(AnsiConsole.Console, cancel);
            await context.Service.PutText($"secrets/{Uri.EscapeDataString(parsed.GetValue(name)!)}", secret, "text/plain", cancel);
            context.Print(new JsonObject { ["name"] = parsed.GetValue(name) }, () => Terminal.Line($"{parsed.GetValue(name)} is kept."));
            return ExitCodes.Done;
        }));
        var forget = new Command("forget", "Forget a secret.") { name };
        forget.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            await context.Service.Delete($"secrets/{Uri.EscapeDataString(parsed.GetValue(name)!)}", cancel);
            context.Print(new JsonObject { ["name"] = parsed.GetValue(name) }, () => Terminal.Line($"{parsed.GetValue(name)} is forgotten."));
            return ExitCodes.Done;
        }));
        var list = new Command("list", "List the names of the secrets that are kept; what they say is never printed.");
        list.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var all = await context.Service.GetAll("secrets", cancel);
            context.Print(all, () =>
            {
                if (all.Count == 0)
                    Terminal.Line("No secrets are kept.");
                foreach (var one in all)
                    Terminal.Line($"{Shown.Text(one!["name"])}, kept {Shown.Time(one["keptAt"])}");
            });
            return ExitCodes.Done;
        }));
        return new Command("secret", "Passwords and keys of receivers.") { keep, forget, list };
    }
}
