namespace Daxlin.Service.Storage;

/// <summary>Something that a person decided about an invoice. Only ever added.</summary>
public sealed class Decision
{
    public int Id { get; set; }
    public int InvoiceId { get; set; }
    public required DateTime At { get; set; }
    public required string By { get; set; }

    /// <summary>What was done: approved, posted.</summary>
    public required string What { get; set; }

    public required string Before { get; set; }
    public required string After { get; set; }
    public string Reason { get; set; } = "";

    /// <summary>What the vendor was told; empty where nothing was.</summary>
    public string Letter { get; set; } = "";
}
