namespace Daxlin.Service.Storage;

/// <summary>One version of a receiver of posting runs. Only ever added.</summary>
public sealed class ReceiverVersion
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

    /// <summary>Says that nothing is delivered to it any more.</summary>
    public bool IsRetired { get; set; }
}
