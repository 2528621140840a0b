namespace Daxlin.Core.Drafting;

/// <summary>A template with what a person has said of the item rows, and what it gives.</summary>
/// <param name="Template">The whole document.</param>
/// <param name="Says">What was changed, for a person.</param>
/// <param name="Rows">How many item rows it captures from the invoice that was pointed at.</param>
/// <param name="Clear">How many of all invoices at hand come out clear.</param>
/// <param name="Findings">How many findings hold the others, together.</param>
public sealed record RowWay(string Template, string Says, int Rows, int Clear, int Findings);
