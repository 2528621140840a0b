using System.Text.RegularExpressions;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Tells text that is meant to be a value of a kind although it cannot be read as one: "30.04.2026 (net 30)".</summary>
/// <remarks>
/// A field that an invoice need not have is passed over where something else stands beside its cue, as "30 days net" beside
/// "Due". But a date or an amount with something more to it is the value, and must not be missing in silence; nor must one with a
/// figure too many, a mark lost, or a letter in a figure's place: "603,300" in EUR, "120,63699", "41,873.7O".
/// </remarks>
internal static partial class MeantFor
{
    public static bool Kind(ValueKind kind, string text) => kind switch
    {
        ValueKind.Date => DateWithin().IsMatch(text),
        ValueKind.Money => AmountWithin().IsMatch(text) || IsNumberButFor(text),
        ValueKind.Price or ValueKind.Number or ValueKind.Whole => IsNumberButFor(text),
        _ => false,
    };

    private static bool IsNumberButFor(string text) =>
        string.Concat(text.Split(' ').Where(word => !Currency.IsMark(word))) is var bare && NearlyNumber().IsMatch(bare) && bare.Count(char.IsAsciiDigit) >= 2;

    /// <summary>Three groups of figures with marks between them, one of them a year of four. Letters that look like figures may stand for some.</summary>
    [GeneratedRegex(@"\b([\dOoIl]{1,2}[./-][\dOoIl]{1,2}[./-][\dOoIlSB]{4}|[\dOoIlSB]{4}[./-][\dOoIl]{1,2}[./-][\dOoIl]{1,2})\b", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex DateWithin();

    /// <summary>Figures with two decimals, and no per cent.</summary>
    [GeneratedRegex(@"\d[.,]\d\d\b(?!\s*%)", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex AmountWithin();

    /// <summary>Nothing but figures, the marks between them, and letters that look like figures; with a sign of a currency or without.</summary>
    [GeneratedRegex(@"^\p{Sc}?[-+−]?\p{Sc}?[\dOolISB][\dOolISB.,'’]+\p{Sc}?-?$", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex NearlyNumber();
}
