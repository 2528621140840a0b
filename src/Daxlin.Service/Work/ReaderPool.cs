using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Daxlin.Service.Work;

/// <summary>Reading processes that wait for their next document, and the start of new ones.</summary>
/// <remarks>A task names all that it is done by, so that services within one process can share a pool.</remarks>
/// <param name="program">The program that they run: the service's own.</param>
public sealed class ReaderPool(string program) : IDisposable
{
    /// <summary>How much memory a reading process may take.</summary>
    private const long MemoryBytes = 768L << 20;

    private readonly ConcurrentBag<Reader> idle = [];

    /// <summary>Those that recognise pictures: they hold the recognisers' models, which the others need not.</summary>
    private readonly ConcurrentBag<Reader> idleRecognisers = [];

    private ConcurrentBag<Reader> Idle(bool isRecogniser) => isRecogniser ? idleRecognisers : idle;

    /// <summary>One that waits, or a new one.</summary>
    /// <param name="log">Takes what it says on its error output until it is given back.</param>
    /// <param name="isRecogniser">Says that it is to recognise a picture.</param>
    internal Reader Take(ILogger log, bool isRecogniser)
    {
        while (Idle(isRecogniser).TryTake(out var kept))
        {
            if (!kept.HasEnded)
            {
                kept.Log = log;
                return kept;
            }
            kept.Dispose();
        }
        return Start(log);
    }

    /// <summary>Keeps one that did its work for the next.</summary>
    internal void GiveBack(Reader reader, bool isRecogniser)
    {
        if (reader.HasServed)
            reader.Dispose();
        else
            Idle(isRecogniser).Add(reader);
    }

    private Reader Start(ILogger log)
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
            start.ArgumentList.Add(program);
        }
        start.ArgumentList.Add(ReaderProcess.Argument);
        start.Environment["DOTNET_GCHeapHardLimit"] = MemoryBytes.ToString("X", CultureInfo.InvariantCulture);
        // It lives for thousands of documents: a method is compiled once and well, not thrice and in the way of the others.
        start.Environment["DOTNET_TieredCompilation"] = "0";
        // Nobody waits for this process but for its result: collecting beside the work costs as much as the work.
        start.Environment["DOTNET_gcConcurrent"] = "0";
        // No door for tools that look into it: it is to have none.
        start.Environment["DOTNET_EnableDiagnostics"] = "0";
        // Pages are recognised side by side, each by one processor: threads within one page only wait for each other.
        start.Environment["OMP_THREAD_LIMIT"] = "1";
        return new Reader(Process.Start(start) ?? throw new InvalidOperationException("The reading process could not be started."), log);
    }

    public void Dispose()
    {
        foreach (var waiting in new[] { idle, idleRecognisers })
        {
            while (waiting.TryTake(out var reader))
                reader.Dispose();
        }
    }
}
