using System.Collections.Immutable;
using System.Text.Json;

namespace Daxlin.Service.Templates;

/// <summary>A template as the list shows it.</summary>
/// <param name="Version">The newest version, from 1.</param>
/// <param name="IsRetired">It recognises nothing any more; its history is kept.</param>
/// <param name="Invoices">How many invoices it has captured, by whichever version.</param>
/// <param name="Untouched">How many of them came out clear by themselves.</param>
/// <param name="Held">How many of them are held now.</param>
/// <param name="Drift">Signs that the vendor's layout has changed.</param>
public sealed record TemplateSummary(
    string Name, string Vendor, string Currency, int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, int Invoices, int Untouched, int Held,
    ImmutableArray<DriftRecord> Drift);

/// <summary>A template with its document. Its ETag is the newest version.</summary>
/// <param name="Version">The version asked for.</param>
/// <param name="Newest">The newest version.</param>
/// <param name="IsRetired">The template recognises nothing any more since this version.</param>
/// <param name="Formerly">The name it had before it was renamed; empty if it was not.</param>
/// <param name="LastInvoice">The newest invoice that it has captured, to open the desk on; null for none.</param>
public sealed record TemplateDetail(
    string Name, string Vendor, string Currency, int Version, int Newest, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, string Formerly, int? LastInvoice, JsonElement Document);

/// <summary>One version in a template's history.</summary>
public sealed record TemplateVersionRecord(int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, int Invoices);

/// <summary>What two versions say otherwise at one place.</summary>
/// <param name="Place">The key's path.</param>
/// <param name="Before">As JSON; empty if the key was not there.</param>
/// <param name="After">As JSON; empty if the key is there no more.</param>
public sealed record TemplateDifferenceRecord(string Place, string Before, string After);

/// <summary>A sign that a vendor's layout has changed under its template.</summary>
/// <param name="About">The field or column: <c>dueDate</c>, <c>lines[].unit</c>; empty for the invoice as a whole.</param>
/// <param name="Says">What used to be and what is now, with how many of each.</param>
/// <param name="Since">The first invoice that shows it.</param>
/// <param name="File">Its file.</param>
public sealed record DriftRecord(string Template, string About, string Says, int Since, string File);

/// <summary>What saving a template came to.</summary>
/// <param name="IsNew">False if the newest version says the same, so that none was added.</param>
/// <param name="Recaptured">How many documents with held or unplaced invoices are captured anew.</param>
public sealed record TemplateSaved(string Name, int Version, bool IsNew, int Recaptured);

/// <summary>Why a person changes what a template is: its note in the history.</summary>
public sealed record TemplateNote(string? Note);

/// <summary>The version that becomes the current one again, as a new version.</summary>
public sealed record VersionToReturnTo(int Version, string? Note);

/// <summary>A template's new name.</summary>
public sealed record NewName(string? Name, string? Note);

/// <summary>What is wrong with a template document; nothing is saved.</summary>
/// <param name="File">The file it came from; empty for one that was sent.</param>
/// <param name="Name">The template's name, or empty if it cannot be used.</param>
/// <param name="Faults">Empty if it is in order.</param>
/// <param name="Sentences">The template read aloud, rule by rule; empty if it cannot be used.</param>
public sealed record TemplateChecked(string File, string Name, ImmutableArray<TemplateFaultRecord> Faults, ImmutableArray<TemplateSentenceRecord> Sentences);

/// <summary>One rule of a template as a sentence.</summary>
/// <param name="Place">The key's path.</param>
public sealed record TemplateSentenceRecord(string Place, string Says);

/// <summary>One thing wrong with a template document.</summary>
/// <param name="Place">The key's path.</param>
/// <param name="Line">From 1.</param>
/// <param name="Severity"><c>fault</c>, or <c>warning</c> for what the template can be used with all the same.</param>
public sealed record TemplateFaultRecord(string Place, int Line, string Message, string Severity);

/// <summary>What persons corrected in the same way on several invoices.</summary>
/// <param name="What"><c>entered</c>, a value; <c>struck</c>, a row; <c>passed</c>, an amount that no sum holds.</param>
/// <param name="Name">A field, <c>total</c>; a column, <c>lines[].unitPrice</c>; or the block of struck rows.</param>
/// <param name="Says">The same in a sentence.</param>
/// <param name="Invoices">Their numbers.</param>
/// <param name="Change">What a change of the template would be, as a part of a sentence; empty if none is known that gives what was said.</param>
/// <param name="Template">The changed template, to be rehearsed; null if no change is known.</param>
public sealed record RepeatedCorrectionRecord(string What, string Name, string Says, ImmutableArray<int> Invoices, string Change, string? Template);
