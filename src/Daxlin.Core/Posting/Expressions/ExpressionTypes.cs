using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>What values of each type look like, settled and spoken.</summary>
public static class ExpressionTypes
{
    /// <summary>The type as a sentence speaks of it: "a number".</summary>
    public static string Spoken(this ExpressionType type) => type switch
    {
        ExpressionType.Number => "a number",
        ExpressionType.Text => "a text",
        ExpressionType.Date => "a date",
        _ => "yes or no",
    };

    /// <summary>What a settled name is.</summary>
    public static ExpressionType Of(string tradeName) => TradeNames.KindOf(tradeName) switch
    {
        ValueKind.Money or ValueKind.Price or ValueKind.Number or ValueKind.Whole or ValueKind.Percent => ExpressionType.Number,
        ValueKind.Date => ExpressionType.Date,
        ValueKind.YesNo => ExpressionType.YesNo,
        _ => ExpressionType.Text,
    };

    /// <summary>The value that a settled text stands for; null for an empty one, and for one that is none of the type.</summary>
    /// <example>"1204.50" as a number, "2026-11-26" as a date, "yes" as yes.</example>
    public static object? Read(this ExpressionType type, string settled) => settled.Length == 0 ? null : type switch
    {
        ExpressionType.Number => decimal.TryParse(settled, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number : null,
        ExpressionType.Date => DateOnly.TryParseExact(settled, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date) ? date : null,
        ExpressionType.YesNo => settled switch { "yes" or "true" => true, "no" or "false" => false, _ => null },
        _ => settled,
    };

    /// <summary>The settled text of a value; empty for none.</summary>
    public static string Settled(object? value) => value switch
    {
        null => "",
        decimal number => number.ToString(CultureInfo.InvariantCulture),
        DateOnly date => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        bool isSo => isSo ? "yes" : "no",
        _ => (string)value,
    };
}
