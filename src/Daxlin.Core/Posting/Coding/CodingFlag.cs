using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Something of an invoice, or of a line of it, that a person wants to be told.</summary>
/// <param name="Says">What it is, in words: "more than was ordered".</param>
/// <param name="OfInvoice">Says that it is of the invoice as a whole, and not of its lines.</param>
/// <param name="When">When it is so.</param>
/// <param name="Holds">Says that the invoice is held for it; else it is told only.</param>
public sealed record CodingFlag(string Says, bool OfInvoice, Expression When, bool Holds);
