using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>A template that recognises an invoice.</summary>
/// <param name="Score">How much printed text speaks for it: characters of the cues found.</param>
public sealed record TemplateMatch(Template Template, int Score);
