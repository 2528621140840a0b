using System.Globalization;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>What a value is in a text file.</summary>
public static class CellText
{
    public static string Of(LayoutColumn column, FileRule file, object? value) => value switch
    {
        decimal number => NumberText(number, column.Decimals).Replace('.', file.DecimalMark),
        DateOnly date => file.Dates
            .Replace("YYYY", date.Year.ToString("0000", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("YY", (date.Year % 100).ToString("00", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("MM", date.Month.ToString("00", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("DD", date.Day.ToString("00", CultureInfo.InvariantCulture), StringComparison.Ordinal),
        string text when file.Format == FileFormat.Csv => HarmlessCell.Of(Cut(column, text)),
        string text => Cut(column, OneLine(text)),
        _ => ExpressionTypes.Settled(value),
    };

    /// <summary>At its place in a record of fixed width: a number to the right of its place, all else to the left.</summary>
    public static string Placed(LayoutColumn column, FileRule file, object? value)
    {
        var text = Of(column, file, value);
        if (value is not decimal)
            return text.PadRight(column.Width, column.Fill == '0' ? ' ' : column.Fill);
        return column.Fill == '0' && text.StartsWith('-') ? "-" + text[1..].PadLeft(column.Width - 1, '0') : text.PadLeft(column.Width, column.Fill);
    }

    /// <summary>What keeps a value from being written; null if nothing does.</summary>
    public static string? FaultOf(LayoutColumn column, FileRule file, object? value)
    {
        if (value is decimal number && column.Decimals is { } digits && Math.Round(number, digits) != number)
            return $"{ExpressionTypes.Settled(number)} has more than {digits} digits behind the decimal mark. “rounded to {digits}” rounds it, if that is meant.";
        if (column.Width == 0 || column.IsCut && value is string)
            return null;
        var text = Of(column, file, value);
        return text.Length <= column.Width ? null
            : $"“{text}” has {text.Length} letters; the column takes {column.Width}." + (value is string ? " “cut”: true takes the end of it off." : "");
    }

    private static string NumberText(decimal number, int? decimals) => decimals is { } digits
        ? number.ToString("F" + digits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture)
        : number.ToString(CultureInfo.InvariantCulture);

    private static string Cut(LayoutColumn column, string text) => column.IsCut && text.Length > column.Width ? text[..column.Width] : text;

    /// <summary>A record of fixed width is one line.</summary>
    private static string OneLine(string text) => string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter));
}
