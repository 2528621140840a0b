namespace Daxlin.Service.Storage;

/// <summary>Keeps a second service off a data folder, or off a node's part of one.</summary>
internal static class FolderLock
{
    /// <summary>What Linux answers when another process holds the file: EWOULDBLOCK, errno(3).</summary>
    private const int HeldByAnother = 11;

    /// <remarks>The system lets go of the lock when the process dies, however it dies.</remarks>
    /// <exception cref="SettingsException">Another service has the folder.</exception>
    /// <exception cref="StorageException">The folder cannot be written.</exception>
    public static FileStream Take(string data, string node)
    {
        var own = DataFolder.OwnOf(data, node);
        try
        {
            DataFolder.Secure(data);
            Directory.CreateDirectory(own);
            return new FileStream(Path.Combine(own, "in-use"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException error) when (error.HResult == HeldByAnother || (OperatingSystem.IsWindows() && StorageFaults.Of(error) is null))
        {
            throw new SettingsException(node.Length == 0 ? $"Another Daxlin service is running on the data in {Path.GetFullPath(data)}."
                : $"Another Daxlin service is running as “{node}” on the data in {Path.GetFullPath(data)}. Give this one a name of its own with --node.");
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException && StorageFaults.Of(error) is not { Code: "disk-full" })
        {
            throw new StorageException("folder-read-only", $"The data folder {Path.GetFullPath(data)} cannot be written: {Reason(error)}.", error);
        }
    }

    private static string Reason(Exception error) => error is UnauthorizedAccessException
        ? "it belongs to another user, or is read-only" : "it is on a disk that is read-only, or is no folder";
}
