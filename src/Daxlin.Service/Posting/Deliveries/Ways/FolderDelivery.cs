using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Puts files into a folder: each is written under a hidden name and renamed, so that it stands there whole or not at all.</summary>
internal sealed class FolderDelivery : IDeliveryWay<FolderWay>
{
    /// <summary>The receiver's program is another user, of the folder's group.</summary>
    private const UnixFileMode Readable = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.GroupRead;

    public async Task Prepare(Parcel parcel, FolderWay way, CancellationToken cancel)
    {
        try
        {
            foreach (var file in parcel.Files)
            {
                if (File.Exists(TargetOf(way, file)))
                    throw new DeliveryFaultException($"There is a file {TargetOf(way, file)} already, which is not from this delivery. It was not touched.", nothingReached: true);
                await using var part = new FileStream(PartOf(parcel, way, file), FileMode.Create, FileAccess.Write, FileShare.None);
                await part.WriteAsync(file.Content, cancel);
                // On the disk before it is renamed: after a power cut, the name must not stand for half of it.
                part.Flush(flushToDisk: true);
                if (!OperatingSystem.IsWindows())
                    File.SetUnixFileMode(part.SafeFileHandle, Readable);
            }
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw Fault(way, error, nothingReached: true);
        }
    }

    public Task<string> HandOver(Parcel parcel, FolderWay way, bool isResumed, CancellationToken cancel)
    {
        try
        {
            foreach (var file in parcel.Files)
            {
                var part = PartOf(parcel, way, file);
                // What was made ready and is gone was renamed before this process died; the receiver may have taken it since.
                if (isResumed && !File.Exists(part))
                    continue;
                File.Move(part, TargetOf(way, file), overwrite: false);
            }
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw Fault(way, error, nothingReached: false);
        }
        return Task.FromResult($"In {way.Path}: {string.Join(", ", parcel.Files.Select(file => file.Name))}.");
    }

    public Task<string> Reach(FolderWay way, CancellationToken cancel)
    {
        var probe = Path.Combine(way.Path, $".daxlin-{Guid.NewGuid():N}.part");
        try
        {
            File.WriteAllBytes(probe, []);
            File.Delete(probe);
            return Task.FromResult($"{way.Path} is there, and can be written to.");
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw Fault(way, error, nothingReached: true);
        }
    }

    private static string TargetOf(FolderWay way, PostedFile file) => Path.Combine(way.Path, file.Name);

    private static string PartOf(Parcel parcel, FolderWay way, PostedFile file) => Path.Combine(way.Path, $".{file.Name}.{parcel.Key}.part");

    private static DeliveryFaultException Fault(FolderWay way, Exception error, bool nothingReached) => new(
        error switch
        {
            DirectoryNotFoundException => $"There is no folder {way.Path}.",
            UnauthorizedAccessException => $"The service may not write to {way.Path}.",
            _ => $"{way.Path} could not be written to: {error.Message}",
        },
        nothingReached, inner: error);
}
