namespace Daxlin.Reading.Pdf.Syntax;

/// <summary>A word without quotes: an operator. Its first seven letters and its length in one number, so that no text is made of it.</summary>
internal readonly record struct Keyword(ulong Value)
{
    private static readonly Keyword True = Of("true");
    private static readonly Keyword False = Of("false");
    private static readonly Keyword Null = Of("null");

    public static Keyword Of(ReadOnlySpan<byte> word)
    {
        ulong letters = 0;
        for (var index = Math.Min(word.Length, 7) - 1; index >= 0; index--)
            letters = (letters << 8) | word[index];
        return new Keyword(letters | ((ulong)Math.Min(word.Length, 255) << 56));
    }

    public static Keyword Of(string word) => Of(System.Text.Encoding.ASCII.GetBytes(word));

    /// <summary>True, false and null are values rather than operators.</summary>
    public bool IsValue => this == True || this == False || this == Null;
}
