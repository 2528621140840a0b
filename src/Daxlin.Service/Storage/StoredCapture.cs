namespace Daxlin.Service.Storage;

/// <summary>What was captured from an invoice that a person then corrected. Only ever added; the newest counts.</summary>
/// <remarks>Most invoices are never corrected: what was captured from them stands in their own row only.</remarks>
public sealed class StoredCapture
{
    public int Id { get; set; }
    public int InvoiceId { get; set; }
    public required DateTime At { get; set; }
    public required string Template { get; set; }
    public int TemplateVersion { get; set; }

    /// <summary>All that was captured and checked, without any correction, as JSON.</summary>
    public required string Record { get; set; }

    /// <summary>The SHA-256 of the record's UTF-8, in hexadecimal letters.</summary>
    public required string Sha256 { get; set; }
}
