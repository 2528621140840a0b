namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>What an embedded font program itself says of its glyphs, by their number; no outlines.</summary>
internal sealed class FontProgram
{
    /// <summary>None: the font is not embedded.</summary>
    public static FontProgram Silent { get; } = new();

    /// <summary>One that is there and cannot be read.</summary>
    public static FontProgram Damaged { get; } = new();

    private readonly Dictionary<int, List<string>> texts = [];
    private Dictionary<string, int>? glyphs;

    /// <summary>The glyph of a code by the tables that are no Unicode: those of symbols and of the Macintosh.</summary>
    public Dictionary<int, int> Codes { get; } = [];

    /// <summary>The names of the codes that the program is used with unless the document says otherwise; empty where it has none.</summary>
    public Dictionary<int, string> BuiltIn { get; } = [];

    /// <summary>How far each glyph moves on, of the type's size; empty where it was not read.</summary>
    public double[] Advances { get; set; } = [];

    /// <summary>How many things it keeps.</summary>
    public int Weight => texts.Count + Names.Count + Codes.Count + BuiltIn.Count + Advances.Length;

    public void AddText(int glyph, string text)
    {
        if (!texts.TryGetValue(glyph, out var known))
            texts[glyph] = known = new List<string>(1);
        if (!known.Contains(text))
            known.Add(text);
    }

    /// <summary>Says of a glyph that it leaves no mark, or that it does; null where that was not read, or for a glyph that it does not have.</summary>
    public Func<int, bool?> IsBlank { get; set; } = _ => null;

    /// <summary>Glyphs by their names; empty where it has none.</summary>
    public Dictionary<string, int> Names { get; } = new(StringComparer.Ordinal);

    /// <summary>The first glyph that stands for a text; null where none does.</summary>
    public int? GlyphOf(string text)
    {
        if (glyphs is null)
        {
            glyphs = new(StringComparer.Ordinal);
            foreach (var (glyph, all) in texts)
            {
                foreach (var one in all)
                    glyphs.TryAdd(one, glyph);
            }
        }
        return glyphs.TryGetValue(text, out var found) ? found : null;
    }

    /// <summary>What a glyph stands for; several where the program uses it for several characters, none where it does not say.</summary>
    public IReadOnlyList<string> TextsOf(int glyph) => texts.TryGetValue(glyph, out var known) ? known : [];
}
