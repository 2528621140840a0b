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
