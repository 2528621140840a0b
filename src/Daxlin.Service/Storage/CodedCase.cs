namespace Daxlin.Service.Storage;

/// <summary>What a person said of the codes of an approved invoice's line: what later lines like it are proposed to be.</summary>
public sealed class CodedCase
{
    public int Id { get; set; }
    public int VendorId { get; set; }
    public int InvoiceId { get; set; }

    /// <summary>By what lines like it are known: the item code, or the words of the description.</summary>
    public required string Like { get; set; }

    /// <summary>The shares and codes that were said, as JSON; the same is the same letters. Empty brackets for a line that was left to the rules.</summary>
    public required string Shares { get; set; }
}
