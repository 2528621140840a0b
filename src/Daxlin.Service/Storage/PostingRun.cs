namespace Daxlin.Service.Storage;

/// <summary>One numbered, all-or-nothing export of approved invoices. Only ever added.</summary>
public sealed class PostingRun
{
    public int Number { get; set; }
    public int? BatchId { get; set; }
    public required DateTime At { get; set; }
    public required string By { get; set; }
    public int Invoices { get; set; }
    public int Rows { get; set; }

    /// <summary>The Idempotency-Key of the request that made it, so that the same request made again makes no second run; null for none.</summary>
    public string? RequestKey { get; set; }

    /// <summary>The sums by currency, as JSON.</summary>
    public required string Sums { get; set; }

    /// <summary>The CSV file, so that it can be fetched again at any time.</summary>
    public required string File { get; set; }
}
