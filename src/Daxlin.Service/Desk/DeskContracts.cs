using System.Collections.Immutable;
using Daxlin.Service.Invoices;

namespace Daxlin.Service.Desk;

/// <summary>From which documents a template is to be drafted.</summary>
/// <param name="Documents">The SHA-256 of each, of one vendor; 1 to 10.</param>
/// <param name="Vendor">The vendor's name; left out, it is looked for on the pages.</param>
public sealed record TemplateToDraft(ImmutableArray<string> Documents, string? Vendor);

/// <summary>A drafted template. Nothing is stored; it is used once a person has saved it.</summary>
/// <param name="Template">The document as text, as it can be saved or edited.</param>
/// <param name="Notes">What is certain, what is a guess, what was not found.</param>
/// <param name="Invoices">What it captures from each of the documents.</param>
public sealed record TemplateDrafted(string Template, ImmutableArray<DraftNoteRecord> Notes, ImmutableArray<InvoiceDetail> Invoices);

/// <summary>What is known of one part of a drafted template.</summary>
/// <param name="Key">The part: <c>fields.total</c>, <c>columns.quantity</c>.</param>
/// <param name="Certainty"><c>certain</c>, <c>guess</c> or <c>notFound</c>.</param>
/// <param name="Says">Where it was found and what speaks for it.</param>
public sealed record DraftNoteRecord(string Key, string Certainty, string Says);

/// <summary>A template that is not saved, and the documents to capture by it.</summary>
/// <param name="Template">The document as text, so that faults are named by their lines.</param>
/// <param name="Documents">The SHA-256 of each; 1 to 40.</param>
public sealed record TemplateToTry(string? Template, ImmutableArray<string> Documents);

/// <summary>A value that a person points at, and the invoices on which ways to find it again are proved.</summary>
/// <param name="Template">The template worked on, as text: it says how the vendor writes.</param>
/// <param name="Document">The SHA-256 of the document that is pointed at.</param>
/// <param name="Page">From 1.</param>
/// <param name="Box">Where the value stands, in points.</param>
/// <param name="Field">What it is: a settled name, or one of the template's own.</param>
/// <param name="Type">The kind of value, for a name of the template's own: text, money, date and others.</param>
/// <param name="Others">The SHA-256 of each invoice to prove it on; 40 at most.</param>
public sealed record ValueToFind(string? Template, string? Document, int Page, BoxRecord? Box, string? Field, string? Type, ImmutableArray<string> Others);

/// <summary>One way to find a value again.</summary>
/// <param name="Rule">The field's rule, as a template holds it, as text.</param>
/// <param name="Says">The same for a person.</param>
/// <param name="Fits">On how many of the other invoices it finds a value that fits.</param>
/// <param name="Values">What it finds on each; null where it finds nothing that fits.</param>
public sealed record WayToFind(string Rule, string Says, int Fits, ImmutableArray<ValueFound> Values);

/// <summary>What a way finds on one invoice.</summary>
public sealed record ValueFound(string File, string? Value);
