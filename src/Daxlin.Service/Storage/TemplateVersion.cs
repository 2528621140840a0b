namespace Daxlin.Service.Storage;

/// <summary>One version of a template's document. Only ever added.</summary>
public sealed class TemplateVersion
{
    public int Id { get; set; }
    public required string Name { get; set; }
    public int Version { get; set; }
    public required string Vendor { get; set; }

    /// <summary>What the template reads amounts as: an ISO 4217 code.</summary>
    public required string Currency { get; set; }

    /// <summary>The document as it was saved.</summary>
    public required string Document { get; set; }

    public required DateTime SavedAt { get; set; }
    public required string SavedBy { get; set; }
}
