namespace Daxlin.Service.Storage;

/// <summary>What a vendor is told by mail of an invoice that was returned.</summary>
public sealed class LetterToVendor : IMailedOnce
{
    public int Id { get; set; }
    public required int InvoiceId { get; set; }

    /// <summary>The source whose mail server sends it.</summary>
    public required string Source { get; set; }
    public required string To { get; set; }
    public required string Subject { get; set; }
    public required string Text { get; set; }

    /// <summary>The id of the message that the invoice came with; empty for none.</summary>
    public string InReplyTo { get; set; } = "";

    public required DateTime AskedAt { get; set; }
    public MailState State { get; set; }
    public string Says { get; set; } = "";
    public int Attempts { get; set; }
    public DateTime? NextAt { get; set; }
    public DateTime? SentAt { get; set; }
}
