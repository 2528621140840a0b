namespace Daxlin.Service.Desk;

/// <summary>A template that somebody works on, as the list shows it.</summary>
/// <param name="Key">What it is for: a template's name, or <c>invoice-7</c> for a new one that is made on invoice 7.</param>
/// <param name="Invoice">The invoice that it was last worked on with.</param>
public sealed record DraftSummary(string Key, int Invoice, string Vendor, DateTime ChangedAt, string ChangedBy);

/// <summary>A template that somebody works on. Its ETag is the revision.</summary>
/// <param name="Template">The text as it was typed, with faults and all.</param>
/// <param name="Revision">Counts its changes from 1.</param>
public sealed record DraftDetail(string Key, int Invoice, string Template, DateTime ChangedAt, string ChangedBy, int Revision);

/// <summary>The text to keep.</summary>
public sealed record DraftToKeep(string? Template, int Invoice);
