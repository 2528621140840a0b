using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Templates.Tidy;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>One column of a line block.</summary>
/// <param name="Source">Where its text comes from.</param>
/// <param name="Shape">What the whole tidied text must match, if anything.</param>
/// <param name="Fold">Where wrapped text below or above the row's first line belongs.</param>
/// <param name="JoinsHyphens">Says that a hyphen at the end of a wrapped line was put in and is dropped; else the word's own is kept.</param>
/// <param name="DashIsZero">Says that a dash stands for 0; else for no value.</param>
/// <param name="Required">Says that a row without it is a finding.</param>
/// <param name="Optional">Says that the template allows the heading to be absent from an invoice.</param>
/// <param name="MayBeUntied">Says that the amount may pass although no sum of the invoice contains it.</param>
/// <param name="Kept">Says that it is part of the row; a column that others are taken from need not be.</param>
public sealed record ColumnRule(
    string Name,
    ValueKind Kind,
    ColumnSource Source,
    Regex? Shape,
    Fold Fold,
    ImmutableArray<TidyStep> Tidy,
    bool JoinsHyphens,
    bool DashIsZero,
    bool Required,
    bool Optional,
    bool MayBeUntied,
    bool Kept)
{
    /// <summary>What a trace says of a value that was found in it.</summary>
    public string Says { get; } = Source is ConstantColumn ? "always" : $"column {Name}";

    /// <summary>Its printed heading, or null.</summary>
    public Cue? Heading => (Source as UnderHeading)?.Heading;

    /// <summary>Says that the column stands in a place of its own on the page.</summary>
    public bool IsPlaced => Source is UnderHeading or BetweenEdges or BetweenNeighbours;
}
