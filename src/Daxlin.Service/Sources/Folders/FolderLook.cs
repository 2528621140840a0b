using System.Collections.Concurrent;
using System.IO.Enumeration;
using Daxlin.Core.Sources;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Sources.Folders;

/// <summary>Looks at a folder: takes files that have settled, once each, and puts them away.</summary>
/// <remarks>
/// It asks the folder again and again: what a share of another machine says of changes by itself, it says late or never. Taking is stored before a file is moved, so what
/// a kill leaves unmoved is known by its place and bytes, and is only moved.
/// </remarks>
internal sealed class FolderLook(Taking taking, DocumentStore documents, DataFolder data, TimeProvider clock) : ISourceWay<FolderSource>
{
    /// <summary>So many files are taken in one look; the next comes at once.</summary>
    private const int MostFiles = 200;

    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<string, SettlingFiles> settling = new(StringComparer.Ordinal);

    public async Task<LookedAt> Look(Source source, FolderSource way, CancellationToken cancel)
    {
        if (IsWithin(way.Path, data.Root) || IsWithin(data.Root, way.Path))
            throw new SourceTroubleException($"The folder {way.Path} and Daxlin's own data folder lie in each other; a source is a folder of its own.");
        var (now, settle) = (clock.GetUtcNow(), TimeSpan.FromSeconds(way.SettleSeconds));
        var files = settling.GetValueOrDefault(source.Name, SettlingFiles.None).Look(FilesIn(way, source.Totals), now);
        var settled = files.Settled(settle, now);
        var (taken, documentsTaken, leftOut) = (0, 0, 0);
        var trouble = default(SourceTroubleException);
        foreach (var file in settled.Take(MostFiles))
        {
            try
            {
                if (!way.Moves && await taking.Knows(source.Name, StampOf(file), cancel))
                {
                    files = files.Done(file);
                    continue;
                }
                if (await Take(source, way, file, cancel) is not var (item, isNew))
                {
                    files = files.Without(file);
                    continue;
                }
                files = way.Moves ? files.Without(file) : files.Done(file);
                if (isNew)
                    (taken, documentsTaken, leftOut) = (taken + 1, documentsTaken + item.Documents, leftOut + item.LeftOut);
            }
            catch (SourceTroubleException error)
            {
                // The others are none the worse for it.
                trouble ??= error;
            }
        }
        settling[source.Name] = files;
        if (trouble is not null)
            throw trouble;
        return new LookedAt(taken, documentsTaken, leftOut, files.Open, settled.Length > MostFiles ? TimeSpan.Zero : settle < LongestRest ? settle : LongestRest);
    }

    /// <returns>Null if it changed meanwhile.</returns>
    private async Task<(SourceItem Item, bool IsNew)?> Take(Source source, FolderSource way, SeenFile file, CancellationToken cancel)
    {
        var path = Path.Combine(way.Path, file.Place);
        // What cannot be said in letters cannot be opened by them either.
        if (file.Place.Contains('\uFFFD', StringComparison.Ordinal))
            throw new SourceTroubleException($"The file {path} has a name that is no UTF-8, and cannot be opened by it. Rename it.");
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
        var came = new ComingItem(
            source.Name, ComingItem.KeyOf(file.Place, sha256.Length > 0 ? sha256 : file.Stamp), PlainLine.Of(file.Place, ComingItem.LongestName), sha256, file.Length,
            source.Batch.Of(DateOnly.FromDateTime(clock.GetLocalNow().DateTime), FolderOf(way, file.Place)))
        { Stamp = StampOf(file), Totals = source.Totals, Template = source.Template, Stays = !way.Moves };
        var (item, isNew) = await taking.TakeOnce(came, cancel);
        if (way.Moves)
            PuttingAway.Put(way, file.Place, item);
        return (item, isNew);
    }

    private static List<SeenFile> FilesIn(FolderSource way, SourceTotals totals)
    {
        if (!Directory.Exists(way.Path))
            throw new SourceTroubleException($"The folder {way.Path} is not there. Where it is of another machine, that one or the line to it may be down; it is looked at again by itself.");
        try
        {
            // What a link points to may lie anywhere.
            var options = new EnumerationOptions { RecurseSubdirectories = way.HasSubfolders, AttributesToSkip = FileAttributes.ReparsePoint, IgnoreInaccessible = false, MaxRecursionDepth = 20 };
            var files = new FileSystemEnumerable<SeenFile>(
                way.Path, (ref entry) => new SeenFile(Path.GetRelativePath(way.Path, entry.ToFullPath()).Replace('\\', '/'), entry.Length, entry.LastWriteTimeUtc.UtcDateTime), options)
            {
                ShouldIncludePredicate = (ref entry) => !entry.IsDirectory,
                // What was put away is not gone through again and again.
                ShouldRecursePredicate = (ref entry) => !entry.FileName.StartsWith('.')
                    && !(entry.Directory.SequenceEqual(way.Path) && (entry.FileName.SequenceEqual(FolderSource.Done) || entry.FileName.SequenceEqual(FolderSource.SetAside))),
            };
            return [.. files.Where(file => way.Takes(file.Place, totals))];
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new SourceTroubleException($"The folder {way.Path} cannot be looked into: {error.Message}", error);
        }
    }

    private static string StampOf(SeenFile file) => ComingItem.KeyOf(file.Place, file.Stamp);

    private static string FolderOf(FolderSource way, string place) => place.Contains('/', StringComparison.Ordinal) ? place.Split('/')[0] : Path.GetFileName(way.Path);

    private static bool IsWithin(string path, string outer) => (path + "/").StartsWith(Path.TrimEndingDirectorySeparator(outer) + "/", StringComparison.Ordinal);
}
