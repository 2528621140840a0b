using System.CommandLine;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Cli;

/// <summary>The options that every command has, and what they were given.</summary>
internal sealed class CommandContext : IDisposable
{
    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    public static Option<bool> Json { get; } = new("--json")
    {
        Description = "Print the interface's own JSON and nothing else.",
        Recursive = true,
    };

    public static Option<string> Server { get; } = new("--server")
    {
        Description = "The service to speak to.",
        HelpName = "URL",
        Recursive = true,
        DefaultValueFactory = _ => Environment.GetEnvironmentVariable("DAXLIN_SERVER") is { Length: > 0 } server
            ? server
            : "http://localhost:7380",
    };

    public static Option<string?> Person { get; } = new("--as")
    {
        Description = "Who you are, for the history of a service without sign-in, and to log in to one that has it.",
        HelpName = "NAME",
        Recursive = true,
        DefaultValueFactory = _ => Environment.GetEnvironmentVariable("DAXLIN_PERSON"),
    };

    public CommandContext(ParseResult parsed)
    {
        WantsJson = parsed.GetValue(Json);
        var server = parsed.GetValue(Server)!;
        if (!Uri.TryCreate(server, UriKind.Absolute, out var url) || url.Scheme is not ("http" or "https"))
            throw new RefusedException($"“{server}” is no address of a server; one looks like http://localhost:7380.", exitCode: ExitCodes.WrongUsage);
        Keys = new KeptKeys(server);
        Name = parsed.GetValue(Person);
        Service = new ServiceClient(server, Name, Keys.Find());
        Seen = new SeenInvoices(server);
    }

    public bool WantsJson { get; }
    public ServiceClient Service { get; }
    public KeptKeys Keys { get; }

    /// <summary>Who the user says to be; null if nothing was said.</summary>
    public string? Name { get; }

    public SeenInvoices Seen { get; }

    /// <summary>Prints the JSON if it is wanted; else lets <paramref name="show"/> print for a person.</summary>
    public void Print(JsonNode node, Action show)
    {
        if (WantsJson)
            Console.Out.WriteLine(node.ToJsonString(Indented));
        else
            show();
    }

    /// <summary>Makes a command's action: refusals are printed as their sentence and become the exit code.</summary>
    public static Func<ParseResult, CancellationToken, Task<int>> Run(Func<ParseResult, CommandContext, CancellationToken, Task<int>> action) =>
        async (parsed, cancel) =>
        {
            try
            {
                using var context = new CommandContext(parsed);
                return await action(parsed, context, cancel);
            }
            catch (RefusedException refused)
            {
                await Console.Error.WriteLineAsync(Shown.Harmless(refused.Message));
                return refused.ExitCode;
            }
            catch (OperationCanceledException)
            {
                await Console.Error.WriteLineAsync("Stopped. What the service has taken in goes on there.");
                return ExitCodes.Refused;
            }
        };

    public void Dispose() => Service.Dispose();
}
