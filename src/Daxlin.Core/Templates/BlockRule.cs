using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>A line block: the part of an invoice that holds rows of one shape, over as many pages as it takes.</summary>
/// <param name="Name">The block's name: goods, services; <c>taxes</c> is the tax summary.</param>
/// <param name="List">Which list its rows join: <c>lines</c>, <c>taxes</c>, or one of its own that no sum counts.</param>
/// <param name="Opens">A line with this cue opens the block; null if its headings do, or it runs from the top.</param>
/// <param name="Closes">A line with one of these cues closes it.</param>
/// <param name="Where">Which pages, and which part of them, it stands on.</param>
/// <param name="Columns">In reading order.</param>
/// <param name="Row">What makes a row.</param>
/// <param name="OnlyRows">Rows whose first line does not match are left out; null for none.</param>
/// <param name="Carry">What is taken from lines between the rows onto the rows below.</param>
/// <param name="RowsUnder">Lists that stand under each row.</param>
/// <param name="LeaveOut">Lines that match one of these are no part of any row.</param>
/// <param name="Required">Says that an invoice without any row of the block is held.</param>
public sealed record BlockRule(
    string Name,
    string List,
    Cue? Opens,
    ImmutableArray<Cue> Closes,
    BlockPlace Where,
    ImmutableArray<ColumnRule> Columns,
    RowRule Row,
    Regex? OnlyRows,
    ImmutableArray<CarryRule> Carry,
    ImmutableArray<RowsUnderRule> RowsUnder,
    ImmutableArray<Regex> LeaveOut,
    bool Required)
{
    /// <summary>Where columns stand on some pages, if otherwise than on the others; the first that holds for a page counts.</summary>
    public ImmutableArray<EdgesOnPages> EdgesOn { get; init; } = [];

    /// <summary>The list of item rows.</summary>
    public const string Lines = "lines";

    /// <summary>The list of the tax summary's rows, and the usual name of its block.</summary>
    public const string Taxes = "taxes";

    public bool IsTaxSummary => List == Taxes;

    public bool HoldsItems => List == Lines;

    /// <summary>The column that is filled on the line where a row begins, or null.</summary>
    public string? Begins => (Row as BeginsFilled)?.Column;
}
