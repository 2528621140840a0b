using System.Globalization;

namespace Daxlin.Core.Values;

/// <summary>Reads printed numbers strictly by a vendor's habits.</summary>
/// <remarks>
/// Strict, since a lenient reader turns "1.204" into 1204 or 1.204 as it likes, and both look right. With a decimal
/// comma "1.204,50" is 1204.50; with a decimal point it is no number, and the value is held. Groups must hold three
/// digits each: "12,34" is no number where the comma groups.
/// </remarks>
public static class NumberReader
{
    /// <summary>The most characters of a printed number, and the most digits that an exact decimal holds.</summary>
    private const int MostCharacters = 60;
    private const int MostDigits = 27;

    /// <summary>Reads one number with an optional sign, and with a currency mark where money can stand.</summary>
    /// <param name="isMoney">
    /// Says that a mark may stand beside it, and that CR makes it negative. Elsewhere letters are units: "12 KR" is no number,
    /// and "12 CR" are twelve crates.
    /// </param>
    /// <remarks>
    /// Negative are "-12.00", "−12.00", "12.00-", "(12.00)" and "12.00 CR". A mark may stand before or after:
    /// "GBP 1,204.50", "-£12.00", "£-12.00", "$ (12.00)", "12,00 kr".
    /// </remarks>
    public static Reading Read(string text, Habits habits, bool isMoney = true)
    {
        var rest = text.AsSpan().Trim();
        var mark = "";
        var minus = 0;
        // At most brackets, a sign and a mark stand around the digits, in any order.
        for (var pass = 0; pass < 4; pass++)
        {
            if (TakeBrackets(ref rest) || TakeMinus(ref rest, isMoney))
                minus++;
            else if (isMoney && mark.Length == 0 && TakeMark(ref rest, out var found))
                mark = found;
            else
                break;
        }
        if (rest.Length > 1 && rest[0] == '+')
            rest = rest[1..].TrimStart();
        if (minus > 1)
            return Reading.Faulty("has more than one minus sign");
        if (!TryDigits(rest, habits, out var number))
            return Reading.Faulty("is no number");
        return Reading.Of(minus == 1 ? -number : number, mark);
    }

    private static bool TakeBrackets(ref ReadOnlySpan<char> rest)
    {
        if (rest.Length < 3 || rest[0] != '(' || rest[^1] != ')')
            return false;
        rest = rest[1..^1].Trim();
        return true;
    }

    private static bool TakeMinus(ref ReadOnlySpan<char> rest, bool isMoney)
    {
        if (rest.Length < 2)
            return false;
        if (IsMinus(rest[0]))
        {
            rest = rest[1..].TrimStart();
            return true;
        }
        if (IsMinus(rest[^1]))
        {
            rest = rest[..^1].TrimEnd();
            return true;
        }
        if (isMoney && rest.EndsWith("CR", StringComparison.OrdinalIgnoreCase) && rest.Length > 2)
        {
            rest = rest[..^2].TrimEnd();
            return true;
        }
        return false;
    }

    private static bool IsMinus(char c) => c is '-' or '\u2212' or '\u2013' or '\u2010' or '\u2011';

    private static bool TakeMark(ref ReadOnlySpan<char> rest, out string mark)
    {
        var end = 0;
        while (end < rest.Length && IsMarkLetter(rest[end]))
            end++;
        if (end > 0 && end < rest.Length && Currency.IsMark(rest[..end].ToString()))
        {
            mark = rest[..end].ToString();
            rest = rest[end..].TrimStart();
            return true;
        }
        var start = rest.Length;
        while (start > 0 && IsMarkLetter(rest[start - 1]))
            start--;
        if (start > 0 && start < rest.Length && Currency.IsMark(rest[start..].ToString()))
        {
            mark = rest[start..].ToString();
            rest = rest[..start].TrimEnd();
            return true;
        }
        mark = "";
        return false;
    }

    private static bool IsMarkLetter(char c) =>
        char.IsLetter(c) || char.GetUnicodeCategory(c) == UnicodeCategory.CurrencySymbol;

    private static bool TryDigits(ReadOnlySpan<char> text, Habits habits, out decimal number)
    {
        number = 0;
        if (text.Length > MostCharacters)
            return false;
        Span<char> digits = stackalloc char[MostCharacters + 1];
        var count = 0;
        var (group, grouped, decimals) = (0, false, false);
        foreach (var c in text)
        {
            if (c is >= '0' and <= '9')
            {
                digits[count++] = c;
                group++;
            }
            else if (c == habits.DecimalMark && !decimals)
            {
                if (grouped && group != 3)
                    return false;
                if (count == 0)
                    digits[count++] = '0';
                digits[count++] = '.';
                decimals = true;
                group = 0;
            }
            else if (!decimals && IsGrouping(c, habits) && (grouped ? group == 3 : group is >= 1 and <= 3))
            {
                grouped = true;
                group = 0;
            }
            else
            {
                return false;
            }
        }
        if (group == 0 || (grouped && !decimals && group != 3) || count > MostDigits)
            return false;
        return decimal.TryParse(digits[..count], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out number);
    }

    private static bool IsGrouping(char c, Habits habits) => char.IsWhiteSpace(c)
        ? habits.GroupingMarks.Contains(' ', StringComparison.Ordinal)
        : habits.GroupingMarks.Contains(c, StringComparison.Ordinal)
            || (c == '\u2019' && habits.GroupingMarks.Contains('\'', StringComparison.Ordinal));
}
