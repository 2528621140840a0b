using System.Collections.Immutable;

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Leaves every occurrence of some text out: the "#" glued to a number.</summary>
public sealed record Drop(ImmutableArray<string> Texts) : TidyStep
{
    public override string Name => "drop";

    public override string Apply(string text) =>
        Texts.Aggregate(text, (rest, drop) => rest.Replace(drop, "", StringComparison.Ordinal)).Trim();
}
