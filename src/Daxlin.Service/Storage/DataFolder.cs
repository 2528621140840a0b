namespace Daxlin.Service.Storage;

/// <summary>The folder that holds all of a service's data: its database and its documents.</summary>
public sealed class DataFolder
{
    public DataFolder(string path)
    {
        Root = Path.GetFullPath(path);
        Directory.CreateDirectory(Documents);
        // Parts of uploads that a kill left behind belong to nothing.
        if (Directory.Exists(Incoming))
            Directory.Delete(Incoming, recursive: true);
        Directory.CreateDirectory(Incoming);
    }

    public string Root { get; }
    public string Database => Path.Combine(Root, "daxlin.db");
    public string Documents => Path.Combine(Root, "documents");
    public string Incoming => Path.Combine(Root, "incoming");
    public string Log => Path.Combine(Root, "log", "daxlin-.log");

    /// <summary>Held while a service runs on the folder.</summary>
    public string Lock => Path.Combine(Root, "in-use");
}
