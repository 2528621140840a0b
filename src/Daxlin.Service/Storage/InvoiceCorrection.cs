namespace Daxlin.Service.Storage;

/// <summary>Something that a person said of an invoice's values, or takes back. Only ever added.</summary>
public sealed class InvoiceCorrection
{
    public int Id { get; set; }
    public int InvoiceId { get; set; }
    public required DateTime At { get; set; }
    public required string By { get; set; }

    /// <summary>The correction, as JSON; empty for one that takes another back.</summary>
    public string Act { get; set; } = "";

    /// <summary>The correction that this one takes back; taken back itself, that one holds again.</summary>
    public int? Undoes { get; set; }
}
