namespace Daxlin.Service.Storage;

/// <summary>One version of a document that is known by its name. Only ever added.</summary>
public abstract class NamedDocument
{
    public int Id { get; set; }
    public string Name { get; set; } = "";

    /// <summary>From 1.</summary>
    public int Version { get; set; }

    /// <summary>The document as it was saved.</summary>
    public string Document { get; set; } = "";

    public DateTime SavedAt { get; set; }
    public string SavedBy { get; set; } = "";
    public string Note { get; set; } = "";

    /// <summary>Says that it is not used any more.</summary>
    public bool IsRetired { get; set; }
}
