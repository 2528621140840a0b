using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Diagnostics;
using Daxlin.Core.Pages;
using Daxlin.Reading;

namespace Daxlin.Service.Work;

/// <summary>Reads documents in processes of their own and keeps those processes for the next document.</summary>
public sealed class DocumentReader(ILogger<DocumentReader> log) : IDisposable
{
    /// <summary>How long one document may take before it is set aside.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    /// <summary>How much memory a reading process may take.</summary>
    private const long MemoryBytes = 768L << 20;

    private readonly ConcurrentBag<Process> idle = [];
    private readonly SemaphoreSlim places = new(Environment.ProcessorCount);

    /// <exception cref="UnreadableException">The document cannot be read, or its reading did not come to an end.</exception>
    public async Task<ImmutableArray<Page>> Read(string path, CancellationToken cancel)
    {
        await places.WaitAsync(cancel);
        try
        {
            return await ReadInPlace(path, cancel);
        }
        finally
        {
            places.Release();
        }
    }

    private async Task<ImmutableArray<Page>> ReadInPlace(string path, CancellationToken cancel)
    {
        var process = idle.TryTake(out var kept) && !kept.HasExited ? kept : Start();
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        try
        {
            await process.StandardInput.WriteLineAsync(path.AsMemory(), patience.Token);
            await process.StandardInput.FlushAsync(patience.Token);
            var answer = Task.Run(() => Answer(process), CancellationToken.None);
            await answer.WaitAsync(patience.Token);
            idle.Add(process);
            return answer.Result;
        }
        catch (UnreadableException)
        {
            idle.Add(process);
            throw;
        }
        catch (OperationCanceledException)
        {
            Stop(process);
            cancel.ThrowIfCancellationRequested();
            throw new UnreadableException(
                "too-slow", $"Reading the document took longer than {Patience.TotalSeconds:F0} seconds; it was set aside.");
        }
        catch (Exception error) when (error is IOException or EndOfStreamException or InvalidOperationException)
        {
            log.LogWarning(error, "The reading process ended on {Path}", path);
            Stop(process);
            throw new UnreadableException(
                "damaged", "The document is built so that reading it never ends or takes all memory; it was set aside.", error);
        }
    }

    private static ImmutableArray<Page> Answer(Process process)
    {
        // Not disposed: the stream belongs to the process, which answers again.
        var reader = new BinaryReader(process.StandardOutput.BaseStream);
        if (reader.ReadByte() == 1)
            return PageStream.Read(reader);
        throw new UnreadableException(reader.ReadString(), reader.ReadString());
    }

    private Process Start()
    {
        var start = new ProcessStartInfo
        {
            FileName = Environment.ProcessPath!,
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        // Run as `dotnet Daxlin.Service.dll` or by its own name, whichever the service was.
        if (Path.GetFileNameWithoutExtension(start.FileName) == "dotnet" || !start.FileName.Contains("Daxlin.Service", StringComparison.Ordinal))
        {
            start.FileName = "dotnet";
            start.ArgumentList.Add(typeof(DocumentReader).Assembly.Location);
        }
        start.ArgumentList.Add(ReaderProcess.Argument);
        start.Environment["DOTNET_GCHeapHardLimit"] = MemoryBytes.ToString("X", System.Globalization.CultureInfo.InvariantCulture);
        var process = Process.Start(start) ?? throw new InvalidOperationException("The reading process could not be started.");
        process.ErrorDataReceived += (_, line) =>
        {
            if (!string.IsNullOrEmpty(line.Data))
                log.LogDebug("Reading process: {Line}", line.Data);
        };
        process.BeginErrorReadLine();
        return process;
    }

    private static void Stop(Process process)
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

    public void Dispose()
    {
        while (idle.TryTake(out var process))
            Stop(process);
        places.Dispose();
    }
}
