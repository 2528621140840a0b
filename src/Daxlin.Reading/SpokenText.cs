using System.Globalization;

namespace Daxlin.Reading;

/// <summary>What a person would read out of a text: its letters and figures, whatever their form.</summary>
internal static class SpokenText
{
    /// <summary>Without regard to capitals, ligatures, and how high, in which style or in which script figures stand.</summary>
    public static string Of(string text) => string.Concat(Ligatures.WrittenOut(text).Select(Plain).Where(char.IsLetterOrDigit));

    private static char Plain(char letter) => letter switch
    {
        '\u00B9' => '1',
        '\u00B2' => '2',
        '\u00B3' => '3',
        '\u2070' or (>= '\u2074' and <= '\u2079') => (char)('0' + letter - '\u2070'),
        >= '\u2080' and <= '\u2089' => (char)('0' + letter - '\u2080'),
        // Old style figures in the list of glyph names.
        >= '\uF730' and <= '\uF739' => (char)('0' + letter - '\uF730'),
        _ when CharUnicodeInfo.GetDecimalDigitValue(letter) is >= 0 and var digit => (char)('0' + digit),
        _ => char.ToUpperInvariant(letter),
    };
}
