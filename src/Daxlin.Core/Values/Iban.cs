namespace Daxlin.Core.Values;

/// <summary>The forms of an account number (ISO 13616).</summary>
public static class Iban
{
    /// <summary>Letters and figures only, in capitals: "de10 0000" is DE100000.</summary>
    public static string Bare(string text) => string.Concat(text.Where(char.IsLetterOrDigit)).ToUpperInvariant();

    /// <summary>As it is printed: in groups of four.</summary>
    public static string Grouped(string bare) => string.Join(' ', bare.Chunk(4).Select(four => new string(four)));

    /// <summary>Says that the check digits come out: the number with its first four characters last, letters as two figures, leaves 1 on division by 97.</summary>
    /// <param name="bare">Of figures and capitals A to Z.</param>
    public static bool IsRight(string bare)
    {
        var rest = 0;
        foreach (var c in bare[4..] + bare[..4])
        {
            var value = char.IsAsciiDigit(c) ? c - '0' : c - 'A' + 10;
            rest = ((value > 9 ? rest * 100 : rest * 10) + value) % 97;
        }
        return rest == 1;
    }
}
