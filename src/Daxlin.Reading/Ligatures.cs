namespace Daxlin.Reading;

/// <summary>Ligatures that have a character of their own (Unicode, Alphabetic Presentation Forms), written out: one "ﬁ" drawn is "fi".</summary>
internal static class Ligatures
{
    private const char First = '\uFB00';

    private static readonly string[] Letters = ["ff", "fi", "fl", "ffi", "ffl", "st", "st"];

    public static string WrittenOut(string text) => text.AsSpan().ContainsAnyInRange(First, (char)(First + Letters.Length - 1))
        ? string.Concat(text.Select(letter => letter >= First && letter < First + Letters.Length ? Letters[letter - First] : letter.ToString())) : text;
}
