namespace Daxlin.Service.Storage;

/// <summary>One version of a posting layout. Only ever added.</summary>
public sealed class LayoutVersion
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>From 1.</summary>
    public int Version { get; set; }

    /// <summary>The document as it was saved.</summary>
    public required string Document { get; set; }

    public required DateTime SavedAt { get; set; }
    public required string SavedBy { get; set; }
    public string Note { get; set; } = "";

    /// <summary>Says that no run is made by it any more.</summary>
    public bool IsRetired { get; set; }
}
