using System.Collections.Concurrent;
using System.Globalization;
using System.IO.Enumeration;
using Daxlin.Core.Sources;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Sources.Folders;

/// <summary>Looks at a folder: takes files that have settled, once each, and puts them away.</summary>
/// <remarks>
/// It asks the folder again and again: what a share of another machine says of changes by itself, it says late or never. A file that is still written to changes its size or time
/// from one look to the next; one that is copied with the time that it had before is seen twice all the same before it is taken. Taking is stored before a file is moved, so what
/// a kill leaves unmoved is known by its place and bytes, and is only moved.
/// </remarks>
internal sealed class FolderLook(Taking taking, DocumentStore documents, DataFolder data, TimeProvider clock) : ISourceWay<FolderSource>
{
    /// <summary>So many files are taken in one look; the next comes at once.</summary>
    private const int MostFiles = 200;

    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<string, Dictionary<string, Observed>> observed = new(StringComparer.Ordinal);

    public async Task<LookedAt> Look(Source source, FolderSource way, CancellationToken cancel)
    {
        if (IsWithin(way.Path, data.Root) || IsWithin(data.Root, way.Path))
            throw new SourceTroubleException($"The folder {way.Path} and Daxlin's own data folder lie in each other; a source is a folder of its own.");
        var files = FilesIn(way);
        var before = observed.GetOrAdd(source.Name, _ => new Dictionary<string, Observed>(StringComparer.Ordinal));
        var now = clock.GetUtcNow();
        var settled = new List<(string Relative, Observed File)>();
        var waiting = 0;
        foreach (var (relative, length, modified) in files)
        {
            if (!before.TryGetValue(relative, out var known) || known.Length != length || known.Modified != modified)
                before[relative] = known = new Observed(length, modified, now, IsDone: false);
            if (known.IsDone)
                continue;
            if (now - known.Since >= TimeSpan.FromSeconds(way.SettleSeconds) && settled.Count < MostFiles)
                settled.Add((relative, known));
            else
                waiting++;
        }
        foreach (var gone in before.Keys.Except(files.Select(file => file.Relative)).ToList())
            before.Remove(gone);
        var (taken, documentsTaken, leftOut) = (0, 0, 0);
        var trouble = default(SourceTroubleException);
        foreach (var (relative, file) in settled)
        {
            (SourceItem Item, bool IsNew)? came;
            try
            {
                if (!way.Moves && await taking.Knows(source.Name, relative, file.Stamp, cancel))
                {
                    before[relative] = file with { IsDone = true };
                    continue;
                }
                came = await Take(source, way, relative, file, cancel);
            }
            catch (SourceTroubleException error)
            {
                // The others are none the worse for it.
                trouble ??= error;
                continue;
            }
            if (came is not { } item)
            {
                // It changed while it was read: it settles anew.
                before.Remove(relative);
                waiting++;
                continue;
            }
            before[relative] = file with { IsDone = true };
            if (item.IsNew)
                (taken, documentsTaken, leftOut) = (taken + 1, documentsTaken + item.Item.Documents, leftOut + item.Item.LeftOut);
        }
        if (trouble is not null)
            throw trouble;
        var rest = settled.Count == MostFiles ? TimeSpan.Zero : TimeSpan.FromSeconds(way.SettleSeconds) < LongestRest ? TimeSpan.FromSeconds(way.SettleSeconds) : LongestRest;
        return new LookedAt(taken, documentsTaken, leftOut, waiting, rest);
    }

    /// <returns>Null if it changed meanwhile.</returns>
    private async Task<(SourceItem Item, bool IsNew)?> Take(Source source, FolderSource way, string relative, Observed file, CancellationToken cancel)
    {
        var path = Path.Combine(way.Path, relative);
        string sha256;
        try
        {
            await using var content = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete, 1 << 16, useAsync: true);
            (sha256, _) = await documents.Keep(content, cancel);
        }
        catch (TooLargeException)
        {
            sha256 = "";
        }
        catch (FileNotFoundException)
        {
            return null;
        }
        catch (Exception error) when (error is UnauthorizedAccessException or IOException && !StorageFaults.IsFull(error))
        {
            throw new SourceTroubleException($"The file {path} cannot be read: {error.Message} It waits for the next look.", error);
        }
        var info = new FileInfo(path);
        if (!info.Exists || info.Length != file.Length || info.LastWriteTimeUtc != file.Modified)
            return null;
        // One that is too large is known by its size and time.
        var key = $"{relative}\n{(sha256.Length > 0 ? sha256 : file.Stamp)}";
        var came = new ComingItem(source.Name, key, relative, "", sha256, file.Length, source.Batch.Of(DateOnly.FromDateTime(clock.GetLocalNow().DateTime), FolderOf(way, relative)), file.Stamp, IsMessage: false);
        var known = await taking.Before(source.Name, key, cancel);
        var item = known ?? (sha256.Length == 0 ? await taking.LeaveOut(came, new TooLargeException().Message, cancel) : await taking.Take(came, cancel));
        if (way.Moves)
            PuttingAway.Put(way, relative, item);
        return (item, known is null);
    }

    private static List<(string Relative, long Length, DateTime Modified)> FilesIn(FolderSource way)
    {
        if (!Directory.Exists(way.Path))
            throw new SourceTroubleException($"The folder {way.Path} is not there. Where it is of another machine, that one or the line to it may be down; it is looked at again by itself.");
        try
        {
            // What a link points to may lie anywhere.
            var options = new EnumerationOptions { RecurseSubdirectories = way.HasSubfolders, AttributesToSkip = FileAttributes.ReparsePoint, IgnoreInaccessible = false, MaxRecursionDepth = 20 };
            var files = new FileSystemEnumerable<(string Relative, long Length, DateTime Modified)>(
                way.Path, (ref entry) => (Path.GetRelativePath(way.Path, entry.ToFullPath()).Replace('\\', '/'), entry.Length, entry.LastWriteTimeUtc.UtcDateTime), options)
            {
                ShouldIncludePredicate = (ref entry) => !entry.IsDirectory,
                // What was put away is not gone through again and again.
                ShouldRecursePredicate = (ref entry) => !entry.FileName.StartsWith('.')
                    && !(entry.Directory.SequenceEqual(way.Path) && (entry.FileName.SequenceEqual(FolderSource.Done) || entry.FileName.SequenceEqual(FolderSource.SetAside))),
            };
            return [.. files.Where(file => way.Takes(file.Relative)).OrderBy(file => file.Relative, StringComparer.Ordinal)];
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new SourceTroubleException($"The folder {way.Path} cannot be looked into: {error.Message}", error);
        }
    }

    private static string FolderOf(FolderSource way, string relative) => relative.Contains('/', StringComparison.Ordinal) ? relative.Split('/')[0] : Path.GetFileName(way.Path);

    private static bool IsWithin(string path, string outer) => (path + "/").StartsWith(Path.TrimEndingDirectorySeparator(outer) + "/", StringComparison.Ordinal);

    /// <summary>A file as it was seen.</summary>
    /// <param name="Since">When it was first seen so.</param>
    /// <param name="IsDone">Whether it was taken as it is.</param>
    private sealed record Observed(long Length, DateTime Modified, DateTimeOffset Since, bool IsDone)
    {
        public string Stamp => string.Create(CultureInfo.InvariantCulture, $"{Length} {Modified.Ticks}");
    }
}
