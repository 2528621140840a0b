using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>One column of a line block.</summary>
/// <param name="Heading">Its printed heading, or null.</param>
/// <param name="Edges">Its left and right bound in points, or null if the heading finds them.</param>
/// <param name="PartOf">The column whose text it is taken from by its tidy steps, or null.</param>
/// <param name="Fold">Where wrapped text below or above the row's first line belongs.</param>
/// <param name="Required">Says that a row without it is a finding.</param>
/// <param name="Optional">Says that the template allows the heading to be absent from an invoice.</param>
/// <param name="Kept">Says that it is part of the row; a column that others are taken from need not be.</param>
public sealed record ColumnRule(
    string Name,
    ValueKind Kind,
    Cue? Heading,
    (double Left, double Right)? Edges,
    string? PartOf,
    Fold Fold,
    ImmutableArray<TidyStep> Tidy,
    bool Required,
    bool Optional,
    bool Kept)
{
    /// <summary>Says that the column stands in a place of its own on the page.</summary>
    public bool IsPlaced => Heading is not null || Edges is not null;
}
