namespace Daxlin.Service.Storage;

/// <summary>A name that a vendor goes by: its own, or another spelling. No two vendors have the same.</summary>
public sealed class VendorSpelling
{
    /// <summary>The letters and figures of the name, in capitals.</summary>
    public required string Key { get; set; }
    public int VendorId { get; set; }
    public required string Name { get; set; }
}
