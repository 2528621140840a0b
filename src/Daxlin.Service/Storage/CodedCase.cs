namespace Daxlin.Service.Storage;

/// <summary>How a line of an approved invoice was coded: what later lines like it are proposed to be.</summary>
public sealed class CodedCase
{
    public int Id { get; set; }
    public int VendorId { get; set; }
    public int InvoiceId { get; set; }

    /// <summary>By what lines like it are known: the item code, or the words of the description.</summary>
    public required string Like { get; set; }

    /// <summary>Its shares and their codes, as JSON; those that are coded alike are the same letters.</summary>
    public required string Shares { get; set; }
}
