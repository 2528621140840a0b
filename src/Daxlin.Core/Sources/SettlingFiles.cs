using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>Which files of a watched folder have stood unchanged for long enough to be taken.</summary>
/// <remarks>
/// The time is that of whoever looks, not the file's: a slow copy that keeps the time that its original had is as old as it likes from its first byte on. So each file is seen twice at
/// least, with the whole time to settle in between, and one that changes from one look to the next begins anew.
/// </remarks>
public sealed class SettlingFiles
{
    private readonly ImmutableDictionary<string, (SeenFile File, DateTimeOffset Since)> seen;
    private readonly ImmutableHashSet<SeenFile> done;

    private SettlingFiles(ImmutableDictionary<string, (SeenFile, DateTimeOffset)> seen, ImmutableHashSet<SeenFile> done) => (this.seen, this.done) = (seen, done);

    /// <summary>Before the first look.</summary>
    public static SettlingFiles None { get; } = new(ImmutableDictionary<string, (SeenFile, DateTimeOffset)>.Empty, []);

    /// <summary>What a look at the folder has shown; what is not there any more is forgotten.</summary>
    public SettlingFiles Look(IReadOnlyCollection<SeenFile> files, DateTimeOffset now) => new(
        files.ToImmutableDictionary(file => file.Place, file => seen.TryGetValue(file.Place, out var before) && before.File == file ? before : (file, now), StringComparer.Ordinal),
        done.Intersect(files));

    /// <summary>Files that have not changed for <paramref name="settle"/>, by their places, without those that are done.</summary>
    public ImmutableArray<SeenFile> Settled(TimeSpan settle, DateTimeOffset now) =>
        [.. seen.Values.Where(one => now - one.Since >= settle && !done.Contains(one.File)).Select(one => one.File).OrderBy(file => file.Place, StringComparer.Ordinal)];

    /// <summary>How many are there that are not done.</summary>
    public int Open => seen.Count - done.Count;

    /// <summary>One was taken, and stays where it is.</summary>
    public SettlingFiles Done(SeenFile file) => new(seen, done.Add(file));

    /// <summary>One was moved away, or found changed: what stands there next settles anew, however like it is.</summary>
    public SettlingFiles Without(SeenFile file) => new(seen.Remove(file.Place), done);
}
