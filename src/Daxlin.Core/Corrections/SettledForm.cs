using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Reads what a person typed, in the vendor's way of writing or in the settled one.</summary>
/// <remarks>
/// A clerk copies "1.204,50" from the page, or types 1204.50 as Daxlin shows it. Where both readings are good and differ,
/// neither is taken: with a decimal comma, "1.204" of a quantity is 1204 on the page and 1.204 in Daxlin.
/// </remarks>
public static class SettledForm
{
    private const NumberStyles Plain = NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint;

    /// <summary>The number of a settled text; null if it is none.</summary>
    public static decimal? Number(string settled) => decimal.TryParse(settled, Plain, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <param name="isPrinted">Says that it stands so on the page: only the vendor's way of writing counts.</param>
    public static Reading Read(string text, ValueKind kind, Habits habits, bool isPrinted = false)
    {
        var trimmed = text.Trim();
        var printed = ValueReader.Read(trimmed, kind, habits);
        if (isPrinted)
            return printed;
        var settled = Settled(trimmed, kind, habits);
        if (settled is not { IsGood: true } own)
            return printed;
        return !printed.IsGood || IsSame(printed, own) ? own
            : Reading.Faulty($"may be {printed.Value} or {own.Value}: write it with its decimals, or without grouping marks");
    }

    private static bool IsSame(Reading one, Reading other) => one.Number is { } number ? number == other.Number : one.Value == other.Value;

    private static Reading? Settled(string text, ValueKind kind, Habits habits)
    {
        if (kind == ValueKind.Date)
            return DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _) ? Reading.Of(text) : null;
        if (!kind.IsFigure() || Number(text) is not { } number)
            return null;
        return kind switch
        {
            ValueKind.Money when number.Scale > habits.Currency.MinorDigits => null,
            ValueKind.Whole when number != decimal.Truncate(number) => null,
            _ => Reading.Of(number),
        };
    }

    /// <summary>A captured amount as it is shown to a person, with its currency: 1,204.50 EUR.</summary>
    /// <param name="amount">In the settled form; what is none is shown as it is.</param>
    /// <param name="code">Of the currency; empty where none was captured.</param>
    /// <returns>Empty for no amount.</returns>
    public static string Shown(string amount, string code) =>
        amount.Length > 0 && Currency.Find(code) is { } currency && Number(amount) is { } number ? currency.Show(number) : amount.Length > 0 ? $"{amount} {code}".Trim() : "";
}
