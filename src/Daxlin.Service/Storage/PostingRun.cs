namespace Daxlin.Service.Storage;

/// <summary>One numbered, all-or-nothing export of approved invoices, or what takes one back. Only ever added.</summary>
public sealed class PostingRun
{
    public int Number { get; set; }
    public int? BatchId { get; set; }
    public required DateTime At { get; set; }
    public required string By { get; set; }
    public int Invoices { get; set; }

    /// <summary>How many records its files have.</summary>
    public int Rows { get; set; }

    /// <summary>The layout that wrote its files; empty for a file of every value.</summary>
    public string Layout { get; set; } = "";
    public int LayoutVersion { get; set; }

    /// <summary>The versions of the translation lists that the layout and its journals looked words up in, as JSON by name.</summary>
    public string Lists { get; set; } = "{}";

    /// <summary>The version of the coding rules whose accounts its journals have; 0 for none.</summary>
    public int CodingVersion { get; set; }

    /// <summary>The last day that was closed when it was made; null if nothing was.</summary>
    public DateOnly? ClosedThrough { get; set; }

    /// <summary>The day that its invoices of closed periods are posted on; null if none was said.</summary>
    public DateOnly? PostingDate { get; set; }

    /// <summary>The run that it takes back, or parts of it; null for one that posts.</summary>
    public int? Reverses { get; set; }

    /// <summary>Why it takes a run back, or posts what does not come to what was stated.</summary>
    public string Reason { get; set; } = "";

    /// <summary>The Idempotency-Key of the request that made it, so that the same request made again makes no second run; null for none.</summary>
    public string? RequestKey { get; set; }

    /// <summary>The sums by currency, as JSON.</summary>
    public required string Sums { get; set; }
}
