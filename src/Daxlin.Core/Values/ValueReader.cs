namespace Daxlin.Core.Values;

/// <summary>Reads a text as a value of a kind.</summary>
public static class ValueReader
{
    public static Reading Read(string text, ValueKind kind, Habits habits) => kind switch
    {
        ValueKind.Whole => ReadWhole(text, habits),
        ValueKind.Number => NumberReader.Read(text, habits, isMoney: false),
        ValueKind.Price => NumberReader.Read(text, habits),
        ValueKind.Money => ReadMoney(text, habits),
        ValueKind.Percent => ReadPercent(text, habits),
        ValueKind.Date => DateReader.Read(text, habits.Dates),
        ValueKind.Iban => ReadIban(text),
        ValueKind.Currency => ReadCurrency(text, habits),
        ValueKind.YesNo => ReadYesNo(text),
        _ => text.Length == 0 ? Reading.Faulty("is empty") : Reading.Of(text),
    };

    private static Reading ReadWhole(string text, Habits habits)
    {
        var reading = NumberReader.Read(text, habits, isMoney: false);
        return reading.Number is { } number && number != decimal.Truncate(number) ? Reading.Faulty("is no whole number") : reading;
    }

    private static Reading ReadMoney(string text, Habits habits)
    {
        var reading = NumberReader.Read(text, habits);
        if (!reading.IsGood)
            return Reading.Faulty("is no amount");
        return reading.Number!.Value.Scale > habits.Currency.MinorDigits
            ? Reading.Faulty($"has more decimals than {habits.Currency.Code} has")
            : reading;
    }

    private static Reading ReadPercent(string text, Habits habits)
    {
        var reading = NumberReader.Read(text.Trim().TrimEnd('%').TrimEnd(), habits, isMoney: false);
        return reading.IsGood ? reading : Reading.Faulty("is no percentage");
    }

    /// <summary>An account number in its printed form of groups of four; check digits by ISO 7064 MOD 97-10.</summary>
    /// <summary>Reads an account number whose check digits (ISO 13616) come out; however a vendor writes, it is read the same.</summary>
    public static Reading ReadIban(string text)
    {
        var bare = Iban.Bare(text);
        if (bare.Length is < 15 or > 34 || !char.IsAsciiLetterUpper(bare[0]) || !char.IsAsciiLetterUpper(bare[1]) || !bare.All(char.IsAsciiLetterOrDigit))
            return Reading.Faulty("is no IBAN");
        return Iban.IsRight(bare) ? Reading.Of(Iban.Grouped(bare)) : Reading.Misprint("is no IBAN: its check digits are wrong");
    }

    /// <summary>Reads "yes" or "no" out of a word in one of many languages, or of a tick.</summary>
    private static Reading ReadYesNo(string text) => text.Trim().ToLowerInvariant() switch
    {
        "yes" or "y" or "ja" or "j" or "oui" or "o" or "si" or "sí" or "sì" or "s" or "sim" or "kyllä" or "tak" or "ano"
            or "x" or "true" or "1" or "✓" or "✔" or "☑" or "☒" => Reading.Of("yes"),
        "no" or "n" or "nein" or "nee" or "non" or "nej" or "nei" or "não" or "ei" or "nie" or "ne"
            or "false" or "0" or "-" or "–" or "☐" => Reading.Of("no"),
        _ => Reading.Faulty("is neither yes nor no"),
    };

    private static Reading ReadCurrency(string text, Habits habits)
    {
        var mark = text.Trim();
        if (Currency.Find(mark) is { } known)
            return Reading.Of(known.Code);
        return habits.Currency.CanBePrintedAs(mark) ? Reading.Of(habits.Currency.Code) : Reading.Faulty("is no currency");
    }
}
