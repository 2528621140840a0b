using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Daxlin.Cli;

/// <summary>The service's own program, run once to try something: no service need run, and nothing is stored.</summary>
internal static class TrialProcess
{
    /// <summary>How much memory it may take, as a reading process of the service may.</summary>
    private const long MemoryBytes = 768L << 20;

    /// <summary>How long it may take, for each document.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    /// <param name="documents">How many documents it is to read.</param>
    /// <exception cref="RefusedException">It cannot be started, or does not come to an end.</exception>
    public static async Task<JsonNode> Run(IEnumerable<string> arguments, int documents, CancellationToken cancel)
    {
        var start = ServiceProcess.StartInfo(arguments);
        start.RedirectStandardError = true;
        start.Environment["DOTNET_GCHeapHardLimit"] = MemoryBytes.ToString("X", CultureInfo.InvariantCulture);
        // It runs for less than a second, so code compiled quickly serves it better than code compiled well.
        start.Environment["DOTNET_TieredPGO"] = "0";
        start.Environment["DOTNET_gcConcurrent"] = "0";
        using var process = Process.Start(start)!;
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience * Math.Max(1, documents));
        try
        {
            var said = process.StandardOutput.ReadToEndAsync(patience.Token);
            var complained = process.StandardError.ReadToEndAsync(patience.Token);
            await process.WaitForExitAsync(patience.Token);
            if (process.ExitCode == 0)
                return JsonNode.Parse(await said)!;
            await complained;
            throw new RefusedException("Reading ended before its end: a file is built so that it takes all memory. Try the files one by one.");
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            throw new RefusedException($"Reading took longer than {Patience.TotalSeconds:F0} seconds a file; it was stopped.");
        }
        finally
        {
            if (!process.HasExited)
                process.Kill(entireProcessTree: true);
        }
    }
}
