using System.Collections.Immutable;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Drafting;

/// <summary>A template proposed from samples. Nothing uses it until a person has published it.</summary>
/// <param name="Document">The template as JSON, the same form as one written by hand.</param>
/// <param name="Notes">What is certain, what is a guess, and what was not found.</param>
/// <param name="Invoices">What it captures from each sample, in their order; empty findings where all is proved.</param>
public sealed record TemplateDraft(string Document, ImmutableArray<DraftNote> Notes, ImmutableArray<CheckedInvoice> Invoices);
