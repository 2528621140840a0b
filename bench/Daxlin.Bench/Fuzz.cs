using System.Diagnostics;
using Daxlin.Reading;
using Daxlin.Testing;

namespace Daxlin.Bench;

/// <summary>Reads files with anything wrong in their content, fonts and maps, and tells each that is neither read nor refused for its damage, or takes long.</summary>
internal static class Fuzz
{
    /// <summary>No small file takes longer.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(2);

    /// <returns>1 if any was told.</returns>
    public static int Run(int count, int first)
    {
        var (read, refused, told, slowest) = (0, 0, 0, TimeSpan.Zero);
        var lockTold = new Lock();
        Parallel.For(first, first + count, seed =>
        {
            var file = MutatedFiles.Make(seed);
            var clock = Stopwatch.StartNew();
            string? wrong = null;
            try
            {
                PdfReader.Read(file);
                Interlocked.Increment(ref read);
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
        Console.WriteLine($"{count} files from seed {first}: {read} read, {refused} refused, {told} wrong; the slowest took {slowest.TotalMilliseconds:F0} ms.");
        return told > 0 ? 1 : 0;
    }
}
