namespace Daxlin.Service.Storage;

/// <summary>A bank account of a vendor. It counts from when a second person confirmed it until it is ended.</summary>
public sealed class VendorAccount
{
    public int Id { get; set; }
    public int VendorId { get; set; }

    /// <summary>Without blanks.</summary>
    public required string Iban { get; set; }

    public required DateTime AddedAt { get; set; }
    public required string AddedBy { get; set; }
    public string Reason { get; set; } = "";
    public DateTime? ConfirmedAt { get; set; }
    public string ConfirmedBy { get; set; } = "";
    public DateTime? EndedAt { get; set; }
    public string EndedBy { get; set; } = "";
}
