namespace Daxlin.Service.Storage;

/// <summary>Keeps a second service off a data folder.</summary>
internal static class FolderLock
{
    /// <exception cref="SettingsException">Another service has the folder.</exception>
    public static FileStream Take(string data)
    {
        Directory.CreateDirectory(data);
        try
        {
            return new FileStream(Path.Combine(data, "in-use"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException)
        {
            throw new SettingsException($"Another Daxlin service is running on the data in {Path.GetFullPath(data)}.");
        }
    }
}
