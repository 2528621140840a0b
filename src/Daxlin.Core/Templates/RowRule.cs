using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>What makes a row of a line block.</summary>
public abstract record RowRule;

/// <summary>A row begins on a line where a column is filled with a value of its kind.</summary>
/// <param name="Column">The column that every row fills.</param>
/// <param name="Form">What its text must match besides, or null: an item code of a certain form.</param>
public sealed record BeginsFilled(string Column, Regex? Form) : RowRule;

/// <summary>A row begins on a line whose text matches a pattern.</summary>
public sealed record BeginsMatching(Regex Line) : RowRule;

/// <summary>A row begins after a blank gap. All lines up to the next gap are its own, wherever its figures stand.</summary>
/// <param name="Gap">In points, between the bottom of one line and the top of the next.</param>
public sealed record BeginsAfterGap(double Gap) : RowRule;

/// <summary>A row begins below a ruling drawn across the block. All lines up to the next ruling are its own.</summary>
public sealed record BeginsBelowRuling : RowRule;

/// <summary>Each line that matches is a row; the columns are the pattern's named groups and have no headings.</summary>
public sealed record IsMatch(Regex Line) : RowRule;

/// <summary>The block is one row made of header fields: an invoice with one amount and a sentence.</summary>
/// <param name="Columns">For each column the header field that it is.</param>
public sealed record IsFields(ImmutableArray<KeyValuePair<string, string>> Columns) : RowRule;
