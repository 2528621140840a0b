using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>A line block: the part of an invoice that holds rows of one shape, over as many pages as it takes.</summary>
/// <param name="Name">The block's name: goods, services; <c>taxes</c> is the tax summary.</param>
/// <param name="Opens">A line with this cue opens the block; null if its headings do, or it runs from the top.</param>
/// <param name="Closes">A line with one of these cues closes it.</param>
/// <param name="Columns">In reading order.</param>
/// <param name="Begins">The column that is filled on the line where a row begins, or null for a pattern block.</param>
/// <param name="Row">A pattern with a named group a column: each line that matches is a row, and columns have no headings.</param>
/// <param name="Carry">What is taken from lines between the rows onto the rows below.</param>
/// <param name="LeaveOut">Lines that match one of these are no part of any row.</param>
/// <param name="Required">Says that an invoice without any row of the block is held.</param>
public sealed record BlockRule(
    string Name,
    Cue? Opens,
    ImmutableArray<Cue> Closes,
    ImmutableArray<ColumnRule> Columns,
    string? Begins,
    Regex? Row,
    ImmutableArray<CarryRule> Carry,
    ImmutableArray<Regex> LeaveOut,
    bool Required)
{
    /// <summary>The name of the block that is the tax summary, not items.</summary>
    public const string Taxes = "taxes";

    public bool IsTaxSummary => Name == Taxes;
}
