namespace Daxlin.Service.Storage;

/// <summary>Says in which run an invoice was posted. An invoice is in one run at most that was not withdrawn; the database sees to it.</summary>
public sealed class PostedInvoice
{
    public int Id { get; set; }
    public int InvoiceId { get; set; }
    public int RunNumber { get; set; }

    /// <summary>The run that took it back; null while it is posted.</summary>
    public int? WithdrawnIn { get; set; }

    /// <summary>What Daxlin knew of it beside its values when it was posted, an <see cref="Core.Posting.ApprovedOrigin"/> as JSON; empty for one that an earlier release posted.</summary>
    public string Origin { get; set; } = "";

    /// <summary>The SHA-256 of the values that were posted.</summary>
    public string ContentSha256 { get; set; } = "";
}
