using System.Globalization;
using System.Text.RegularExpressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>How ties, findings and the record name a captured value: <c>total</c>, <c>lines[3].amount</c>, <c>lines[3].deliveries[1].quantity</c>.</summary>
public static partial class ValueNames
{
    /// <param name="list">lines, taxes, or a block's own.</param>
    /// <param name="row">From 1.</param>
    public static string Of(string list, int row, string column) =>
        string.Create(CultureInfo.InvariantCulture, $"{list}[{row}].{column}");

    /// <summary>The name of a value in a list that stands under a row.</summary>
    public static string Under(string list, int row, string under, int underRow, string column) =>
        string.Create(CultureInfo.InvariantCulture, $"{list}[{row}].{under}[{underRow}].{column}");

    /// <summary>A column as such, on whichever row: <c>lines[].unit</c>.</summary>
    public static string Column(string list, string column) => $"{list}[].{column}";

    /// <summary>The column that <see cref="Column"/> names; null for the name of anything else.</summary>
    public static string? ColumnOf(string name) =>
        name.IndexOf("[].", StringComparison.Ordinal) is >= 0 and var at ? name[(at + "[].".Length)..] : null;

    /// <summary>A value's name without the numbers of its rows: <c>lines[3].amount</c> is <c>lines[].amount</c>.</summary>
    public static string ColumnOfValue(string name) => RowNumbers().Replace(name, "[]");

    /// <summary>The name of a row: <c>lines[3]</c>.</summary>
    public static string Row(string list, int row) => string.Create(CultureInfo.InvariantCulture, $"{list}[{row}]");

    /// <summary>Takes the name of a value or of a row apart.</summary>
    /// <returns>
    /// List, number and column; no list for a value of the header, no column for a row. The column of a value in a list under a
    /// row is a path, <c>deliveries[1].quantity</c>. Null for what is no such name.
    /// </returns>
    public static (string? List, int Row, string? Column)? Parse(string? name)
    {
        var match = Parts().Match(name ?? "");
        if (!match.Success)
            return null;
        return match.Groups["field"] is { Success: true } field ? (null, 0, field.Value)
            : (match.Groups["list"].Value, int.Parse(match.Groups["row"].ValueSpan, CultureInfo.InvariantCulture), match.Groups["column"] is { Success: true } column ? column.Value : null);
    }

    /// <summary>Takes the path to a value in a list under a row apart, <c>deliveries[1].quantity</c>; null for the name of a column.</summary>
    public static (string List, int Row, string Column)? ParseUnder(string column) =>
        column.Contains('[', StringComparison.Ordinal) && Parse(column) is ({ } list, var row, { } own) && !own.Contains('[', StringComparison.Ordinal) ? (list, row, own) : null;

    /// <summary>A name as it is read aloud: "total", "row 3, unit price", "tax row 1", "row 3, deliveries 1, quantity".</summary>
    public static string Spoken(string name) => Parse(name) is ({ } list, var row, var column)
        ? string.Create(CultureInfo.InvariantCulture, $"{(list == BlockRule.Taxes ? "tax row" : "row")} {row}")
            + (list is BlockRule.Lines or BlockRule.Taxes ? "" : $" of {list}") + (column is null ? "" : $", {SpokenColumn(column)}")
        : TradeNames.Spoken(name);

    /// <summary>The same at the beginning of a sentence: "Row 3, unit price".</summary>
    public static string SpokenFirst(string name) => Spoken(name) is { Length: > 0 } spoken ? char.ToUpperInvariant(spoken[0]) + spoken[1..] : name;

    /// <summary>A column as it is read aloud, or the path to a value in a list under a row: "deliveries 1, quantity".</summary>
    public static string SpokenColumn(string column) => ParseUnder(column) is var (list, row, own)
        ? string.Create(CultureInfo.InvariantCulture, $"{TradeNames.Spoken(list)} {row}, {TradeNames.Spoken(own)}") : TradeNames.Spoken(column);

    [GeneratedRegex(@"^(?:(?<field>[^\[\].]+)|(?<list>[^\[\].]+)\[(?<row>\d{1,6})\](?:\.(?<column>[^\[\].]+(?:\[\d{1,6}\]\.[^\[\].]+)?))?)\z")]
    private static partial Regex Parts();

    [GeneratedRegex(@"\[\d+\]")]
    private static partial Regex RowNumbers();
}
