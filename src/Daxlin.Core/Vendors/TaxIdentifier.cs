using System.Numerics;

namespace Daxlin.Core.Vendors;

/// <summary>Check digits of tax numbers, where their countries publish how they are made.</summary>
/// <remarks>
/// After the structure of VAT identification numbers and the check routines that the tax authorities of the member states
/// publish. Of numbers of other countries, and of those in an older form, nothing is said.
/// </remarks>
public static class TaxIdentifier
{
    /// <summary>Letters and figures only, in capitals: "de 811 907 980" is DE811907980.</summary>
    public static string Bare(string text) => string.Concat(text.Where(char.IsAsciiLetterOrDigit).Select(char.ToUpperInvariant));

    /// <summary>Says that the check digits do not come out; false also where nobody can tell.</summary>
    /// <param name="text">As printed, with its country in front.</param>
    public static bool IsFaulty(string text)
    {
        var bare = Bare(text);
        if (bare.Length < 4)
            return false;
        var number = bare[2..];
        return bare[..2] switch
        {
            "AT" => number is ['U', ..] && Figures(number[1..], 8) is { } d && (10 - ((Luhn(d[..7]) + 4) % 10)) % 10 != d[7],
            "BE" => Figures(number, 10) is { } d && 97 - (Whole(d[..8]) % 97) != Whole(d[8..]),
            "CH" => number is ['E', ..] && Figures(number[1..Math.Min(10, number.Length)], 9) is { } d && Weighted(d, 5, 4, 3, 2, 7, 6, 5, 4) is var sum && (11 - (sum % 11)) % 11 != d[8],
            "DE" => Figures(number, 9) is { } d && Iso7064Mod11And10(d[..8]) != d[8],
            "DK" => Figures(number, 8) is { } d && Weighted(d, 2, 7, 6, 5, 4, 3, 2, 1) % 11 != 0,
            "FI" => Figures(number, 8) is { } d && (11 - (Weighted(d, 7, 9, 10, 5, 8, 4, 2) % 11)) % 11 != d[7],
            "FR" => Figures(number, 11) is { } d && (12 + (3 * (int)(Whole(d[2..]) % 97))) % 97 != Whole(d[..2]),
            "IT" => Figures(number, 11) is { } d && Luhn(d) % 10 != 0,
            "LU" => Figures(number, 8) is { } d && Whole(d[..6]) % 89 != Whole(d[6..]),
            "NO" => Figures(number[..Math.Min(9, number.Length)], 9) is { } d && (11 - (Weighted(d, 3, 2, 7, 6, 5, 4, 3, 2) % 11)) % 11 != d[8],
            "PL" => Figures(number, 10) is { } d && Weighted(d, 6, 5, 7, 2, 3, 4, 5, 6, 7) % 11 != d[9],
            "PT" => Figures(number, 9) is { } d && Weighted(d, 9, 8, 7, 6, 5, 4, 3, 2) % 11 is var rest && (rest < 2 ? 0 : 11 - rest) != d[8],
            // Of nine figures, the last two are the check: by the older of two rules, or by the newer, which adds 55.
            "GB" => Figures(number, 9) is { } d && Weighted(d, 8, 7, 6, 5, 4, 3, 2) + (10 * d[7]) + d[8] is var sum && sum % 97 != 0 && (sum + 55) % 97 != 0,
            "SE" => Figures(number, 12) is { } d && Luhn([0, .. d[..10]]) % 10 != 0,
            _ => false,
        };
    }

    private static int[]? Figures(string text, int count) => text.Length == count && text.All(char.IsAsciiDigit) ? [.. text.Select(c => c - '0')] : null;

    private static BigInteger Whole(int[] figures) => figures.Aggregate(BigInteger.Zero, (number, figure) => (number * 10) + figure);

    private static int Weighted(int[] figures, params ReadOnlySpan<int> weights)
    {
        var sum = 0;
        for (var at = 0; at < weights.Length; at++)
            sum += figures[at] * weights[at];
        return sum;
    }

    /// <summary>The sum of ISO/IEC 7812: every second figure from the second one on twice, its own figures added.</summary>
    private static int Luhn(int[] figures) => figures.Select((figure, at) => at % 2 == 0 ? figure : (figure * 2 / 10) + (figure * 2 % 10)).Sum();

    /// <summary>The check character of ISO/IEC 7064, MOD 11,10.</summary>
    private static int Iso7064Mod11And10(int[] figures)
    {
        var product = 10;
        foreach (var figure in figures)
        {
            var sum = (figure + product) % 10;
            product = (sum == 0 ? 10 : sum) * 2 % 11;
        }
        return (11 - product) % 10;
    }
}
