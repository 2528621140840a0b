namespace Daxlin.Core.Templates;

/// <summary>One rule of a template, as it is read aloud.</summary>
/// <param name="Place">The key's path: <c>fields.total</c>, <c>blocks.goods</c>.</param>
/// <param name="Says">The rule as a sentence.</param>
public sealed record TemplateSentence(string Place, string Says);
