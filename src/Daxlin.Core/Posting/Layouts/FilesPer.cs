namespace Daxlin.Core.Posting.Layouts;

/// <summary>What has a file of its own.</summary>
public enum FilesPer
{
    Run,
    Vendor,
    Invoice,
}
