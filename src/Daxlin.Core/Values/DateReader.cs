using System.Globalization;

namespace Daxlin.Core.Values;

/// <summary>Reads printed dates: figures in the vendor's order, or a month by its name.</summary>
public static class DateReader
{
    private static readonly char[] Separators = ['.', '/', '-', ',', ' ', '\u00A0', '\u2010', '\u2011', '\u2013'];

    /// <summary>Reads one date.</summary>
    /// <remarks>
    /// A year of four figures in front settles the order whatever the habit. Two figures of a year are of this century:
    /// 14.03.26 is 14 March 2026. A day that no month has is a fault, never moved to the next month.
    /// </remarks>
    public static Reading Read(string text, DateOrder order)
    {
        var parts = text.Split(Separators, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        // "1 de marzo de 2026", "14th March 2026"
        parts = [.. parts.Where(part => !part.Equals("de", StringComparison.OrdinalIgnoreCase)).Select(WithoutOrdinal)];
        if (parts.Length != 3)
            return Reading.Faulty("is no date");

        var named = Array.FindIndex(parts, part => MonthNames.Find(part) > 0);
        var (year, month, day) = named switch
        {
            1 when parts[0].Length == 4 => (Figures(parts[0]), MonthNames.Find(parts[1]), Figures(parts[2])),
            1 => (Year(parts[2]), MonthNames.Find(parts[1]), Figures(parts[0])),
            0 => (Year(parts[2]), MonthNames.Find(parts[0]), Figures(parts[1])),
            2 => (-1, -1, -1),
            _ when parts[0].Length == 4 => (Figures(parts[0]), Figures(parts[1]), Figures(parts[2])),
            _ => order switch
            {
                DateOrder.DayFirst => (Year(parts[2]), Figures(parts[1]), Figures(parts[0])),
                DateOrder.MonthFirst => (Year(parts[2]), Figures(parts[0]), Figures(parts[1])),
                _ => (Year(parts[0]), Figures(parts[1]), Figures(parts[2])),
            },
        };
        if (year is < 1900 or > 2199 || month is < 1 or > 12 || day < 1)
            return Reading.Faulty("is no date");
        if (day > DateTime.DaysInMonth(year, month))
            return Reading.Misprint("is a day that does not exist");
        return Reading.Of(new DateOnly(year, month, day).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
    }

    private static string WithoutOrdinal(string part) =>
        part.Length is 3 or 4 && char.IsAsciiDigit(part[0]) && part[^2..].ToUpperInvariant() is "ST" or "ND" or "RD" or "TH"
            ? part[..^2]
            : part;

    private static int Figures(string part) =>
        part.Length <= 4 && int.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : -1;

    private static int Year(string part) => part.Length switch
    {
        4 => Figures(part),
        2 => Figures(part) is >= 0 and var year ? 2000 + year : -1,
        _ => -1,
    };
}
