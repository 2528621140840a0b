namespace Daxlin.Service.Review;

/// <summary>An invoice of the queue: what a clerk chooses by.</summary>
/// <param name="Kind"><c>invoice</c> or <c>creditNote</c>.</param>
/// <param name="DueDate">Empty if unknown.</param>
/// <param name="Findings">How many findings hold it.</param>
/// <param name="FirstFinding">The first of them, or empty.</param>
/// <param name="HandedTo">Who is to look at it; empty for nobody in particular.</param>
/// <param name="Numbers">How many numbers were captured.</param>
/// <param name="NumbersTied">How many of them stand in sums that hold.</param>
public sealed record QueuedInvoice(
    int Id, string State, string Kind, int Batch, string BatchName, string File, DateTime ReceivedAt, string Vendor, string InvoiceNumber, string InvoiceDate,
    string DueDate, string Currency, string Total, int Findings, string FirstFinding, string HandedTo, string LooksLike, int Revision, int Numbers, int NumbersTied);

/// <summary>An invoice that another person is to look at.</summary>
/// <param name="To">Who; empty takes it back.</param>
/// <param name="Note">What for.</param>
public sealed record HandOver(string? To, string? Note = null);

/// <summary>What a vendor may be told.</summary>
/// <param name="SentBy">The source whose mailbox would send it; empty where none answers anybody, and the letter is sent by hand.</param>
/// <param name="To">Who sent the invoice; empty for one that came otherwise.</param>
public sealed record LetterRecord(string Text, string SentBy, string To);

/// <summary>Which template an invoice is for.</summary>
/// <param name="Template">Its name; empty leaves it to the cues again.</param>
public sealed record TemplateToUse(string? Template);
