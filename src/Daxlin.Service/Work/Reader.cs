using System.Diagnostics;
using System.Text.Json;

namespace Daxlin.Service.Work;

/// <summary>A reading process, seen from the service.</summary>
internal sealed class Reader : IDisposable
{
    /// <summary>What a reader holds on to in its memory does not outlive so many documents.</summary>
    private const int MostTasks = 5000;

    private readonly Process process;
    private int tasks;

    public Reader(Process process, ILogger log)
    {
        (this.process, Log) = (process, log);
        process.ErrorDataReceived += (_, line) =>
        {
            if (!string.IsNullOrEmpty(line.Data))
                Log.LogWarning("Reading process: {Line}", line.Data);
        };
        process.BeginErrorReadLine();
    }

    /// <summary>Takes what it says on its error output.</summary>
    public ILogger Log { get; set; }

    public bool HasEnded => process.HasExited;

    /// <summary>It has done its share and is to be replaced.</summary>
    public bool HasServed => tasks >= MostTasks;

    /// <exception cref="IOException">The process has ended.</exception>
    public async Task<ReadingAnswer> Ask(ReadingTask task, CancellationToken cancel)
    {
        if (tasks++ == 0 && await process.StandardOutput.ReadLineAsync(cancel) is not ("" or null) and var why)
            Log.LogWarning("A reading process could not be shut off from the network and other programs: {Why}", why);
        await process.StandardInput.WriteLineAsync(JsonSerializer.Serialize(task).AsMemory(), cancel);
        await process.StandardInput.FlushAsync(cancel);
        var line = await process.StandardOutput.ReadLineAsync(cancel) ?? throw new EndOfStreamException();
        return JsonSerializer.Deserialize<ReadingAnswer>(line)!;
    }

    /// <summary>Ends the process, whatever it is at.</summary>
    public void Dispose()
    {
        try
        {
            process.Kill(entireProcessTree: true);
        }
        catch (InvalidOperationException)
        {
            // It has ended by itself.
        }
        process.Dispose();
    }
}
