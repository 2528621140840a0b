namespace Daxlin.Service.NamedDocuments;

/// <param name="IsNew">False if the newest version says the same already.</param>
public sealed record DocumentSaved(string Name, int Version, bool IsNew);

/// <param name="Note">Why, in a line; may be left out.</param>
public sealed record DocumentNote(string? Note = null);

/// <summary>One version of a document, without its text.</summary>
public sealed record DocumentVersionRecord(int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired);
