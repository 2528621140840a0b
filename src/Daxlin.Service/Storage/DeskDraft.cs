namespace Daxlin.Service.Storage;

/// <summary>A template that somebody works on and has not saved as a version yet.</summary>
public sealed class DeskDraft
{
    public int Id { get; set; }

    /// <summary>What it is for: a template's name, or <c>invoice-7</c> for a new template that is made on an invoice.</summary>
    public required string Key { get; set; }

    /// <summary>The invoice that it was last worked on with, so that it can be opened again.</summary>
    public int InvoiceId { get; set; }

    /// <summary>The vendor's name in it, for lists; empty while its text is no template.</summary>
    public required string Vendor { get; set; }

    /// <summary>The text as it was typed, with faults and all.</summary>
    public required string Document { get; set; }

    public required DateTime ChangedAt { get; set; }
    public required string ChangedBy { get; set; }

    /// <summary>Counts its changes from 1: two people on one draft see each other's.</summary>
    public int Revision { get; set; } = 1;
}
