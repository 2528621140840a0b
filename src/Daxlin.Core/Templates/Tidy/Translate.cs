using System.Collections.Frozen;

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Puts another text in the place of a whole one: the code "A" is "19".</summary>
/// <param name="List">What stands there, without regard to capitals, and what it means.</param>
/// <param name="Else">What any other text becomes; null leaves it as it is.</param>
public sealed record Translate(FrozenDictionary<string, string> List, string? Else) : TidyStep
{
    public override string Name => "translate";

    public override string Apply(string text) => List.GetValueOrDefault(text.Trim(), Else ?? text);
}
