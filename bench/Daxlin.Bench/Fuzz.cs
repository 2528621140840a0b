using System.Diagnostics;
using Daxlin.Core.Json;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;
using Daxlin.Testing;

namespace Daxlin.Bench;

/// <summary>Reads files and templates with anything wrong in them, and tells each that is neither read nor refused for what is wrong, or takes long.</summary>
internal static class Fuzz
{
    /// <summary>Nothing so small takes longer.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(2);

    /// <returns>1 if any was told.</returns>
    public static int Run(int count, int first) => Math.Max(
        Try("files", count, first, MutatedFiles.Make, file => PdfReader.Read(file)),
        // A template is some forty times as long to read as a small file.
        Try("templates", count / 10, first, MutatedTemplates.Make, document =>
        {
            if (TemplateReader.Check(document) is { Template: null, Faults: var faults })
                throw new JsonFaultException(faults);
        }));

    private static int Try<T>(string what, int count, int first, Func<int, T> make, Action<T> read)
    {
        var (done, refused, told, slowest) = (0, 0, 0, TimeSpan.Zero);
        var lockTold = new Lock();
        Parallel.For(first, first + count, seed =>
        {
            var made = make(seed);
            var clock = Stopwatch.StartNew();
            string? wrong = null;
            try
            {
                read(made);
                Interlocked.Increment(ref done);
            }
            catch (JsonFaultException error)
            {
                Interlocked.Increment(ref refused);
                if (error.Faults.All(fault => fault.IsWarning || fault.Message.Length == 0))
                    wrong = "It was refused without a fault.";
            }
            catch (UnreadableException error)
            {
                Interlocked.Increment(ref refused);
                // A fault of ours shows as damage that it is not.
                if (error.InnerException is IndexOutOfRangeException or NullReferenceException or OverflowException or ArgumentException && error.InnerException.StackTrace!.TrimStart().StartsWith("at Daxlin.", StringComparison.Ordinal))
                    wrong = error.InnerException.ToString();
            }
            catch (Exception error)
            {
                wrong = error.ToString();
            }
            lock (lockTold)
            {
                slowest = clock.Elapsed > slowest ? clock.Elapsed : slowest;
                wrong ??= clock.Elapsed > Longest ? $"It took {clock.Elapsed.TotalSeconds:F1} s." : null;
                if (wrong is null)
                    return;
                told++;
                Console.WriteLine($"{seed}: {wrong}");
            }
        });
        Console.WriteLine($"{count} {what} from seed {first}: {done} read, {refused} refused, {told} wrong; the slowest took {slowest.TotalMilliseconds:F0} ms.");
        return told > 0 ? 1 : 0;
    }
}
