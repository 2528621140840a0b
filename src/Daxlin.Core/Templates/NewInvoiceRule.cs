using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>Where a new invoice begins within a file that may hold several.</summary>
/// <param name="Cues">A page with one of these begins an invoice: "Page 1 of".</param>
/// <param name="NewValueOf">A page on which this header field has another value than before begins an invoice; null for none.</param>
public sealed record NewInvoiceRule(ImmutableArray<Cue> Cues, string? NewValueOf);
