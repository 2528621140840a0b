namespace Daxlin.Core.Posting.Receivers;

/// <summary>A folder on the service's machine. A file stands there whole or not at all: it is written under another name and renamed.</summary>
/// <param name="Path">Absolute.</param>
public sealed record FolderWay(string Path) : ReceivingWay
{
    public override string Word => "folder";

    public override string Place => Path;

    public override string Says => $"Its files are put into {Place}, each whole or not at all.";
}
