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

/// <summary>Something of the item rows that a person points at, and the invoices on which it is proved.</summary>
/// <param name="Template">The template worked on, as text.</param>
/// <param name="Document">The SHA-256 of the document that is pointed at.</param>
/// <param name="Page">From 1; 0 where nothing is pointed at.</param>
/// <param name="Box">Where it stands, in points; null where nothing is pointed at.</param>
/// <param name="What">headings, column, placed, opens, closes, section, leaveOut, or rows: the ways in which rows begin and text wraps.</param>
/// <param name="Column">The column's name, for column and placed.</param>
/// <param name="Others">The SHA-256 of each invoice to prove it on; 40 at most.</param>
public sealed record RowsToFind(string? Template, string? Document, int Page, BoxRecord? Box, string? What, string? Column, ImmutableArray<string> Others);

/// <summary>A template with what was said of the item rows.</summary>
/// <param name="Template">The whole document, as text.</param>
/// <param name="Says">What was changed, for a person.</param>
/// <param name="Rows">How many item rows it captures from the invoice that was pointed at.</param>
/// <param name="Clear">How many of all these invoices come out clear.</param>
/// <param name="Invoices">How many these are.</param>
/// <param name="Findings">How many findings hold the others, together.</param>
public sealed record WayToCapture(string Template, string Says, int Rows, int Clear, int Invoices, int Findings);
