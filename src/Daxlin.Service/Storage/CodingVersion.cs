namespace Daxlin.Service.Storage;

/// <summary>One version of the coding rules. Only ever added.</summary>
public sealed class CodingVersion
{
    /// <summary>From 1.</summary>
    public int Version { get; set; }

    /// <summary>The document as it was saved.</summary>
    public required string Document { get; set; }

    public required DateTime SavedAt { get; set; }
    public required string SavedBy { get; set; }
    public string Note { get; set; } = "";
}
