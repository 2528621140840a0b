using System.Collections.Immutable;
using System.IO.Enumeration;

namespace Daxlin.Core.Sources;

/// <summary>A folder on the service's machine, or one that is mounted there.</summary>
/// <param name="Path">Absolute.</param>
/// <param name="Files">What names must look like, with <c>*</c> and <c>?</c>; upper and lower case are alike.</param>
/// <param name="HasSubfolders">Whether what stands in folders below it is taken, too.</param>
/// <param name="SettleSeconds">A file is taken once its size and time have not changed for so long.</param>
/// <param name="Moves">Whether what was taken is moved to <see cref="Done"/> or <see cref="SetAside"/>; else it stays and is remembered.</param>
public sealed record FolderSource(string Path, ImmutableArray<string> Files, bool HasSubfolders, int SettleSeconds, bool Moves) : SourceWay
{
    /// <summary>Below the folder: what was taken in.</summary>
    public const string Done = "taken-in";

    /// <summary>Below the folder: what holds no invoice that can be read, each with a note beside it.</summary>
    public const string SetAside = "set-aside";

    public override string Word => "folder";

    public override string Place => Path;

    public override ImmutableArray<string> Says =>
    [
        $"Files in {Path}{(HasSubfolders ? " and the folders below it" : "")} that are named {string.Join(" or ", Files)} are taken in once they have not changed for {SettleSeconds} {(SettleSeconds == 1 ? "second" : "seconds")}.",
        Moves ? $"What was taken is moved to {Done}, what cannot be to {SetAside} with a note beside it." : "What was taken stays where it is, and is remembered.",
    ];

    /// <summary>Says that a file is to be taken, by its name and the folders that it stands in below the source.</summary>
    /// <remarks>Names that begin with a point or <c>~</c>, and those that programs give to what they still write, are of no one's invoice yet.</remarks>
    /// <param name="relative">From the folder on, with <c>/</c> between folders.</param>
    /// <param name="totals">Whose cover sheets are taken, too.</param>
    public bool Takes(string relative, SourceTotals totals)
    {
        var parts = relative.Split('/');
        if (parts.Any(part => part.StartsWith('.')) || parts[^1].StartsWith('~') || Unfinished.Any(end => parts[^1].EndsWith(end, StringComparison.OrdinalIgnoreCase)))
            return false;
        if (parts.Length > 1 && (!HasSubfolders || parts[0] is Done or SetAside))
            return false;
        return totals.IsCover(parts[^1]) || Files.Any(file => FileSystemName.MatchesSimpleExpression(file, parts[^1], ignoreCase: true));
    }

    private static readonly string[] Unfinished = [".part", ".tmp", ".crdownload", ".filepart", ".partial"];
}
