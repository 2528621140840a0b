using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>An equation of the template's own between what is captured.</summary>
/// <param name="Text">As the template says it: "deposit + balance = total".</param>
/// <param name="Left">What is recalculated: its terms are added up.</param>
/// <param name="Right">What it must come to.</param>
public sealed record TieRule(string Text, ImmutableArray<TieTerm> Left, ImmutableArray<TieTerm> Right)
{
    /// <summary>All factors of both sides.</summary>
    public IEnumerable<TieFactor> Factors => Left.Concat(Right).SelectMany(term => term.Factors);

    /// <summary>The list on each row of which it must hold; null for one of the whole invoice.</summary>
    public string? OfRowsIn => Factors.FirstOrDefault(factor => factor.IsOfRow)?.List;
}
