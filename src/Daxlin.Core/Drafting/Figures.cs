using System.Text.RegularExpressions;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Reads figures whose meaning is not known yet.</summary>
internal static partial class Figures
{
    /// <summary>The number of a text: with a currency's mark, a per cent sign, or a unit glued to it or behind it; null for text.</summary>
    public static (decimal Number, string Unit)? Read(string text, Habits reads)
    {
        var bare = text.Trim();
        if (bare.Length == 0 || !bare.Any(char.IsAsciiDigit))
            return null;
        // A currency's mark behind a rate belongs to the amount beside it.
        if (bare.IndexOf('%', StringComparison.Ordinal) is > 0 and var percent && !bare[(percent + 1)..].Any(char.IsAsciiDigit))
            bare = bare[..percent];
        if (NumberReader.Read(bare.TrimEnd(), reads) is { IsGood: true, Number: { } number })
            return (number, "");
        if (WithUnit().Match(bare) is { Success: true } match && NumberReader.Read(match.Groups[1].Value, reads) is { IsGood: true, Number: { } counted })
            return (counted, match.Groups[2].Value);
        return null;
    }

    /// <summary>The amount that a text ends in: "Sales Tax (6%) $ 1.69" ends in 1.69; null for none.</summary>
    /// <returns>The amount, and how much of the text stands before it.</returns>
    public static (decimal Amount, int Before)? AtEnd(string text, Habits reads)
    {
        // Words are taken from the end as long as they make an amount: "KWD 489.228", "1 498,38 €", "$ (12.00)".
        var best = ((decimal, int)?)null;
        for (var at = text.Length; at > 0 && text.Length - at < 40;)
        {
            at = text.LastIndexOf(' ', at - 1);
            var end = text[(at + 1)..];
            if (NumberReader.Read(end, reads) is { IsGood: true, Number: { } number })
                best = (number, at + 1);
            if (at < 0)
                break;
        }
        return best;
    }

    [GeneratedRegex(@"^(-?[\d.,'’  ]*\d-?)\s*([\p{L}²³/][\p{L}\d²³./]{0,8})$")]
    private static partial Regex WithUnit();
}
