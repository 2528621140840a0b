using System.Text.RegularExpressions;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Tells text that is meant to be a value of a kind although it cannot be read as one: "30.04.2026 (net 30)".</summary>
/// <remarks>
/// A field that an invoice need not have is passed over where something else stands beside its cue, as "30 days net" beside
/// "Due". But a date or an amount with something more to it is the value, and must not be missing in silence.
/// </remarks>
internal static partial class MeantFor
{
    public static bool Kind(ValueKind kind, string text) => kind switch
    {
        ValueKind.Date => DateWithin().IsMatch(text),
        ValueKind.Money => AmountWithin().IsMatch(text),
        _ => false,
    };

    /// <summary>Three groups of figures with marks between them, one of them a year of four.</summary>
    [GeneratedRegex(@"\b(\d{1,2}[./-]\d{1,2}[./-]\d{4}|\d{4}[./-]\d{1,2}[./-]\d{1,2})\b", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex DateWithin();

    /// <summary>Figures with two decimals, and no per cent.</summary>
    [GeneratedRegex(@"\d[.,]\d\d\b(?!\s*%)", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex AmountWithin();
}
