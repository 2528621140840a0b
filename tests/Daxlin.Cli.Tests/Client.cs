using System.Diagnostics;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Runs the client as a person would, in a process of its own.</summary>
internal static class Client
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(120);

    /// <summary>Where the clients of this run remember what they were shown.</summary>
    private static readonly string State = Directory.CreateTempSubdirectory("daxlin-state-").FullName;

    public static Task<(int ExitCode, string Out, string Error)> Run(string? server, params string[] arguments) => Type("", server, arguments);

    /// <summary>Runs with some lines piped in.</summary>
    public static async Task<(int ExitCode, string Out, string Error)> Type(string piped, string? server, params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardInput = piped.Length > 0, RedirectStandardOutput = true, RedirectStandardError = true };
        start.ArgumentList.Add(Path.Combine(AppContext.BaseDirectory, "daxlin.dll"));
        foreach (var argument in arguments)
            start.ArgumentList.Add(argument);
        start.Environment["DAXLIN_SERVER"] = server ?? "http://localhost:1";
        start.Environment["DAXLIN_SERVICE"] = Repository.Service;
        start.Environment["DAXLIN_STATE"] = State;
        start.Environment["DAXLIN_SAMPLES"] = Repository.Samples;
        using var process = Process.Start(start)!;
        if (piped.Length > 0)
        {
            await process.StandardInput.WriteAsync(piped);
            process.StandardInput.Close();
        }
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        using var patience = new CancellationTokenSource(Patience);
        await process.WaitForExitAsync(patience.Token);
        return (process.ExitCode, await output, await error);
    }

    /// <summary>Runs with --json and reads what comes back.</summary>
    public static async Task<JsonNode> Json(string server, params string[] arguments) =>
        JsonNode.Parse((await Run(server, [.. arguments, "--json"])).Out)!;
}
