using System.Globalization;
using System.Text;

namespace Daxlin.Reading;

/// <summary>What a person would read out of a text: its letters and figures, whatever their form.</summary>
internal static class SpokenText
{
    /// <summary>Without regard to capitals, ligatures, and how high, in which style or in which script figures stand.</summary>
    public static string Of(string text)
    {
        var spoken = new StringBuilder(text.Length);
        foreach (var letter in Ligatures.WrittenOut(text))
        {
            if (letter is >= 'A' and <= 'Z' or (>= '0' and <= '9'))
                spoken.Append(letter);
            else if (Fractions.IndexOf(letter, StringComparison.Ordinal) is >= 0 and var at)
                spoken.Append(Fractions, at + 1, 2);
            else if (Plain(letter) is var plain && char.IsLetterOrDigit(plain))
                spoken.Append(plain);
        }
        return spoken.ToString();
    }

    /// <summary>Fractions of one sign, each with its two figures.</summary>
    private const string Fractions = "\u00BD12\u00BC14\u00BE34\u215313\u215423\u215B18\u215C38\u215D58\u215E78";

    private static char Plain(char letter) => letter switch
    {
        '\u2070' or (>= '\u2074' and <= '\u2079') => (char)('0' + letter - '\u2070'),
        // Old style figures in the list of glyph names.
        >= '\uF730' and <= '\uF739' => (char)('0' + letter - '\uF730'),
        // Figures of other scripts, set high, low or within circles.
        _ when CharUnicodeInfo.GetDigitValue(letter) is >= 0 and var digit => (char)('0' + digit),
        _ => char.ToUpperInvariant(letter),
    };
}
