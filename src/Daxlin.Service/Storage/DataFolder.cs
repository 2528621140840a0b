using System.Runtime.InteropServices;

namespace Daxlin.Service.Storage;

/// <summary>The folder that holds all of a service's data: its database and its documents. Only its owner may look into it.</summary>
public sealed partial class DataFolder
{
    private const UnixFileMode OnlyOwner = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;

    /// <param name="node">Which of the services it is that share the folder; empty for one that has it for itself.</param>
    /// <param name="isLookedAtOnly">Says that nothing is to be made or cleared in it.</param>
    public DataFolder(string path, string node = "", bool isLookedAtOnly = false)
    {
        Root = Path.GetFullPath(path);
        Own = OwnOf(Root, node);
        if (isLookedAtOnly)
            return;
        Directory.CreateDirectory(Documents);
        // Parts of uploads that a kill left behind belong to nothing.
        if (Directory.Exists(Incoming))
            Directory.Delete(Incoming, recursive: true);
        Directory.CreateDirectory(Incoming);
    }

    public string Root { get; }

    /// <summary>What no other service writes to: where several share the folder, each has a part of its own.</summary>
    public string Own { get; }

    public string Database => Path.Combine(Root, "daxlin.db");
    public string Documents => Path.Combine(Root, "documents");

    /// <summary>Pages that were recognised in pictures. Nothing is lost with it but time, so no backup holds it; the number goes up when pages are to be recognised anew by a later release.</summary>
    public string Recognised => Path.Combine(Root, "recognised", "1");

    public string Incoming => Path.Combine(Own, "incoming");
    public string Secrets => Path.Combine(Root, "secrets");

    /// <summary>The keys by which the framework protects cookies and tokens; without them all sign-ins end, and nothing else is lost.</summary>
    public string ProtectionKeys => Path.Combine(Root, "protection-keys");

    public string Log => Path.Combine(Own, "log", "daxlin-.log");

    /// <summary>The part of a folder that one service has for itself.</summary>
    public static string OwnOf(string data, string node) => node.Length == 0 ? data : Path.Combine(data, "nodes", node);

    /// <summary>A name for a file of passing use; whoever asks deletes it, and a start deletes what a kill left.</summary>
    public string NewPart() => Path.Combine(Incoming, Guid.NewGuid().ToString("N"));

    /// <summary>Makes the folder if need be, and keeps everybody but its owner out of it and of all that this process writes.</summary>
    public static void Secure(string path)
    {
        if (OperatingSystem.IsWindows())
        {
            Directory.CreateDirectory(path);
            return;
        }
        // Whatever umask the service was started with, its files are 0600 and its folders 0700.
        _ = SetCreationMask(0x3F);
        File.SetUnixFileMode(Directory.CreateDirectory(path).FullName, OnlyOwner);
    }

    public bool HasDocuments => Directory.EnumerateFiles(Documents, "*", SearchOption.AllDirectories).Any();

    [LibraryImport("libc", EntryPoint = "umask")]
    private static partial uint SetCreationMask(uint mask);
}
