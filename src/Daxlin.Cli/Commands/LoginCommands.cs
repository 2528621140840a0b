using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Signing the client in: it keeps an access key for its user, never the password.</summary>
internal static class LoginCommands
{
    private const int Days = 30;

    public static Command Login()
    {
        var byKey = new Option<bool>("--key") { Description = "Ask for an access key instead, made on the page You: for who signs in by an identity provider." };
        var login = new Command("login", $"Sign in with name and password; an access key is kept for {Days} days. Both are asked for, or read as lines from what is piped in.") { byKey };
        login.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            if (parsed.GetValue(byKey))
                return await KeepKey(await Ask("Access key", true, cancel), parsed.GetValue(CommandContext.Server)!, context, cancel);
            var session = await SignIn(context, cancel);
            var made = await context.Service.Post("access-keys", new JsonObject { ["name"] = $"client on {Environment.MachineName}", ["days"] = Days }, cancel);
            context.Keys.Keep(Shown.Text(made["key"]));
            await context.Service.Delete("session", cancel);
            session["formToken"] = "";
            context.Print(session, () => Terminal.Line($"{Shown.Text(session["name"])} is signed in on this machine until {Shown.Day(made["record"]!["expiresAt"])}; “./daxlin logout” ends it."));
            return ExitCodes.Done;
        }));
        return login;
    }

    private static async Task<int> KeepKey(string key, string server, CommandContext context, CancellationToken cancel)
    {
        using var shown = new ServiceClient(server, null, key.Trim());
        var session = await shown.Get("session", cancel);
        if (Shown.Text(session["key"]).Length == 0)
            throw new RefusedException("The service does not know this access key, or it has ended.");
        context.Keys.Keep(key.Trim());
        context.Print(session, () => Terminal.Line($"{Shown.Text(session["name"])} is signed in on this machine by the access key “{Shown.Text(session["key"])}”; “./daxlin logout” revokes it."));
        return ExitCodes.Done;
    }

    public static Command Logout()
    {
        var logout = new Command("logout", "Revoke the access key that is kept for this user, and forget it.");
        logout.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            if (context.Keys.Find() is not { } key)
                throw new RefusedException("Nobody is signed in on this machine.");
            var own = (await context.Service.GetAll("access-keys", cancel)).FirstOrDefault(one => key.StartsWith(Shown.Text(one!["beginning"]), StringComparison.Ordinal));
            if (own is not null)
                await context.Service.Decide($"access-keys/{Shown.Text(own["id"])}/revocation", new JsonObject(), Shown.Number(own["revision"]), cancel);
            context.Keys.Forget();
            context.Print(new JsonObject(), () => Terminal.Line("Signed out; the key is revoked."));
            return ExitCodes.Done;
        }));
        return logout;
    }

    public static Command WhoAmI()
    {
        var who = new Command("whoami", "Say who one is to the service, and what one may do.");
        who.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var session = await context.Service.Get("session", cancel);
            context.Print(session, () => Terminal.Line(Told(session)));
            return session["isSignedIn"]!.GetValue<bool>() ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        return who;
    }

    /// <summary>Asks for name and password, and for a code where one is needed, and signs in by them.</summary>
    public static async Task<JsonNode> SignIn(CommandContext context, CancellationToken cancel)
    {
        var name = context.Name ?? await Ask("Name", false, cancel);
        var password = await Ask("Password", true, cancel);
        try
        {
            return await context.Service.SignIn(name, password, null, cancel);
        }
        catch (RefusedException refused) when (refused.Code == "code-needed")
        {
            return await context.Service.SignIn(name, password, await Ask("Code of the authenticator", false, cancel), cancel);
        }
    }

    private static string Told(JsonNode session)
    {
        if (!session["isSignedIn"]!.GetValue<bool>())
            return "Nobody is signed in. “./daxlin login” signs in.";
        if (!session["hasSignIn"]!.GetValue<bool>())
            return $"{Shown.Text(session["name"])}, by word alone: this service has no sign-in, and everyone may do everything.";
        var key = Shown.Text(session["key"]);
        return $"{Shown.Text(session["name"])}, {Shown.Listed(session["roles"])}{(key.Length > 0 ? $", by the access key “{key}”" : "")}. Rights: {Shown.Listed(session["rights"])}."
            + (session["groups"]!.AsArray().Count > 0 ? $" Only for {Shown.Listed(session["groups"])}." : "");
    }

    private static async Task<string> Ask(string what, bool isSecret, CancellationToken cancel)
    {
        if (Console.IsInputRedirected)
            return await Console.In.ReadLineAsync(cancel) ?? throw new RefusedException($"{what}: nothing was piped in for it.", exitCode: ExitCodes.WrongUsage);
        return await new TextPrompt<string>($"{what}:") { IsSecret = isSecret, Mask = null }.ShowAsync(AnsiConsole.Console, cancel);
    }
}
