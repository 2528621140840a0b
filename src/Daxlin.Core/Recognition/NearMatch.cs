using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>A template that would recognise an invoice but for one cue.</summary>
/// <param name="Cue">The one that must be there and is not, or that must not be there and is.</param>
/// <param name="IsThere">Says that it is there.</param>
public sealed record NearMatch(Template Template, Cue Cue, bool IsThere)
{
    /// <example>The template brinewood-standard would, but for “Speicherbank Brinewood”, which is not on it.</example>
    public string Says => $"The template {Template.Name} would, but for {Cue}, which {(IsThere ? "must not be on it" : "is not on it")}.";
}
