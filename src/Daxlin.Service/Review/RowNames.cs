using System.Globalization;
using System.Text.RegularExpressions;

namespace Daxlin.Service.Review;

/// <summary>Takes names of rows and values apart: <c>lines[3]</c>, <c>lines[3].amount</c>, <c>total</c>.</summary>
internal static partial class RowNames
{
    /// <returns>List, number and column; no list for a value of the header, no column for a row; null for what is no name.</returns>
    public static (string? List, int Row, string? Column)? Parse(string? name)
    {
        var match = Name().Match(name ?? "");
        if (!match.Success)
            return null;
        var field = match.Groups["field"];
        if (field.Success)
            return (null, 0, field.Value);
        return int.TryParse(match.Groups["row"].Value, NumberStyles.None, CultureInfo.InvariantCulture, out var row)
            ? (match.Groups["list"].Value, row, match.Groups["column"] is { Success: true } column ? column.Value : null) : null;
    }

    [GeneratedRegex(@"^(?:(?<field>[A-Za-z][A-Za-z0-9]{0,59})|(?<list>[A-Za-z][A-Za-z0-9-]{0,59})\[(?<row>\d{1,6})\](?:\.(?<column>[A-Za-z][A-Za-z0-9]{0,59}))?)\z", RegexOptions.NonBacktracking)]
    private static partial Regex Name();
}
