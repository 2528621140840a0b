namespace Daxlin.Core.Templates;

/// <summary>Which pages of a document are captured from.</summary>
/// <param name="SkipFirst">How many pages stand before the invoice: a cover letter.</param>
public sealed record PageRule(int SkipFirst);
