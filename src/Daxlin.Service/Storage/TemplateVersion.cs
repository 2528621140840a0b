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

    /// <summary>Why it was made, in words of the person who made it; empty for none.</summary>
    public string Note { get; set; } = "";

    /// <summary>Says that the template is retired from this version on: it recognises nothing, and its history is kept.</summary>
    public bool IsRetired { get; set; }

    /// <summary>The name that the template had before it was renamed; empty if it was not.</summary>
    public string Formerly { get; set; } = "";

    public required DateTime SavedAt { get; set; }
    public required string SavedBy { get; set; }
}
