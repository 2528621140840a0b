using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Parts a number from the unit after it: "7pcs" is 7, and "pcs" goes to a column of its own.</summary>
/// <remarks>
/// Numbers with "x" between them are multiplied, since that is what is priced: "2 x 5 m" is 10 and "m". A minus after
/// the unit counts: "12 kg-" is -12. Where nothing but a number stands, there is no unit. A text that begins with no number is left whole.
/// </remarks>
/// <param name="Column">The column that the unit becomes.</param>
public sealed partial record SplitUnit(string Column) : TidyStep
{
    public override string Name => "splitUnit";

    public override string Apply(string text) => Parts(text).Number;

    /// <summary>The number and the unit of a text; the unit is empty if there is none.</summary>
    public static (string Number, string Unit) Parts(string text)
    {
        if (NumberAndUnit().Match(text.Trim()) is not { Success: true } match)
            return (text, "");
        var (number, unit) = (match.Groups[1].Value.Trim(), match.Groups[2].Value.Trim());
        // A minus alone behind the number is the number's own, and is read with it.
        if (unit is "-" or "\u2212")
            return (text.Trim(), "");
        return unit.Length > 1 && unit[^1] is '-' or '\u2212' ? ("-" + number, unit[..^1].TrimEnd()) : (number, unit);
    }

    // Hostile texts make it slow, and a machine that stands still for a moment must not look like one.
    [GeneratedRegex(@"^([-\u2212+]?\d[\d.,'\u2019\s]*(?:(?<=\s|\d)[x\u00D7*]\s*\d[\d.,'\u2019\s]*)*)(?<![.,'\u2019])(.*)$", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex NumberAndUnit();
}
