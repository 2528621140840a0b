namespace Daxlin.Service.Storage;

/// <summary>Says in which run an invoice was posted. The invoice is the key, so that none can be in two.</summary>
public sealed class PostedInvoice
{
    public int InvoiceId { get; set; }
    public int RunNumber { get; set; }
}
