namespace Daxlin.Core.Readings;

/// <summary>What it costs to take one printed letter for another, in half letters.</summary>
/// <remarks>
/// A recogniser takes an I for an l, an O for a 0, an rn for an m far more often than an A for a W, so those cost half a letter. A figure that is to be found
/// is found as it is: "Order 2025" is no "Order 2026", and no figure is left out or added.
/// </remarks>
internal static class Likeness
{
    public const int Letter = 2;
    public const int Half = 1;

    /// <summary>More than any text may cost.</summary>
    public const int Never = 1000;

    /// <summary>Capitals, and what capitals of small letters stand for, that look alike in some type: "c" and "e" are written C and E here.</summary>
    private static readonly string[] Alike = ["IL1|!JT", "O0QDCG", "S5", "B8R", "Z27", "G6C", "EFC", "UV", "VY", "MN", "NHR", "AO", "TF", "KX", "PF", "A4"];

    private static readonly HashSet<(char, char)> Pairs = [.. from row in Alike from one in row from other in row where one != other select (one, other)];

    /// <summary>Letters that stand close together and look like one.</summary>
    private static readonly (string Two, char One)[] Joined = [("RN", 'M'), ("NN", 'M'), ("CL", 'D'), ("VV", 'W'), ("LI", 'H'), ("RI", 'N'), ("II", 'U'), ("LI", 'U'), ("TI", 'N'), ("IJ", 'Y')];

    /// <param name="sought">A letter that is looked for, as a capital.</param>
    /// <param name="read">The one that was read, as a capital.</param>
    public static int Replaced(char sought, char read)
    {
        if (sought == read)
            return 0;
        if (char.IsAsciiDigit(sought))
            return Never;
        if (Pairs.Contains((sought, read)) || (IsForeign(sought) && char.IsLetter(read)))
            return Half;
        return char.IsAsciiDigit(read) ? Never : char.IsLetter(sought) == char.IsLetter(read) ? Letter : Letter + Half;
    }

    /// <summary>A letter that is looked for was not read.</summary>
    public static int Lost(char sought) => char.IsAsciiDigit(sought) ? Never : char.IsLetter(sought) && !IsForeign(sought) ? Letter : Half;

    /// <summary>A letter was read that is none of those looked for.</summary>
    public static int Added(char read) => char.IsAsciiDigit(read) ? Never : char.IsLetter(read) ? Letter : Half;

    /// <summary>Says that two letters on one side look like one on the other.</summary>
    public static bool IsJoined(char first, char second, char one) => Array.Exists(Joined, pair => pair.One == one && pair.Two[0] == first && pair.Two[1] == second);

    /// <summary>What a text may cost to be found: nothing up to two letters, the look of one up to four, then about one letter in six; and half a letter for each that no English text has.</summary>
    /// <param name="sought">As capitals, without blanks.</param>
    public static int Allowed(string sought) => sought.Count(IsForeign) + sought.Count(char.IsLetter) switch
    {
        <= 2 => 0,
        <= 4 => Half,
        var letters => Letter * Math.Max(1, (letters + 1) / 6),
    };

    /// <summary>What a text may cost to be suspected: more than to be found, so that what may be a misread cue is looked at.</summary>
    public static int Suspected(string sought) => sought.Count(char.IsLetter) switch
    {
        <= 2 => Allowed(sought),
        <= 4 => Letter + sought.Count(IsForeign),
        _ => Allowed(sought) + Half,
    };

    private static bool IsForeign(char letter) => letter > '\u007F' && char.IsLetter(letter);
}
