using Daxlin.Reading.Pdf.Fonts.Programs;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A font whose codes have one to four bytes and stand for numbers of a collection of glyphs (ISO 32000-2, 9.7).</summary>
internal sealed class CompositeFont : Font
{
    private readonly Dictionary<uint, Glyph> made = [];
    private readonly CMap encoding;
    private readonly CMap? claims;
    private readonly CMap? collection;
    private readonly FontProgram program;
    private readonly ReadOnlyMemory<byte> toGlyph;
    private readonly GlyphWidths widths;

    public CompositeFont(DictionaryToken font, PdfObjects objects)
    {
        var descendant = objects.Array(font, "DescendantFonts") is [var only, ..] ? PdfObjects.AsDictionary(objects.Resolve(only)) : null;
        encoding = EncodingOf(objects.Get(font, "Encoding"), objects);
        claims = FontReader.ClaimsOf(font, objects);
        collection = CollectionOf(objects.Dictionary(descendant, "CIDSystemInfo"), objects);
        program = FontPrograms.Of(objects.Dictionary(descendant, "FontDescriptor"), objects);
        toGlyph = objects.Stream(descendant, "CIDToGIDMap") is { } map ? objects.Unpack(map) : ReadOnlyMemory<byte>.Empty;
        widths = new GlyphWidths(descendant, objects);
    }

    public override bool IsVertical => encoding.IsVertical;

    public override Glyph Next(ReadOnlySpan<byte> text, out int length)
    {
        var code = encoding.Code(text, out length);
        if (!made.TryGetValue(code, out var glyph))
            made[code] = glyph = GlyphOf(code, (int)(encoding.NumberOf(code) ?? 0));
        return glyph;
    }

    private Glyph GlyphOf(uint code, int number)
    {
        var glyph = toGlyph.IsEmpty ? number : BigEndian.Short(toGlyph.Span, 2L * number);
        var own = program.TextsOf(glyph);
        if (own.Count == 0 && collection?.TextOf((uint)number) is { } collected)
            own = [collected];
        var (text, claimed) = GlyphTexts.Settle(claims?.TextOf(code), own);
        // The glyph with the number 0 is the one for what the font does not have: a box, where something was meant to stand.
        var leavesNoMark = glyph == 0 ? null : program.IsBlank(glyph);
        if (text == Glyph.Unnamed && leavesNoMark is { } isBlank)
            text = isBlank ? " " : Glyph.Unknown;
        var width = widths.WidthOf(number);
        if (!IsVertical)
            return new Glyph(text, width, width, claimed).As(leavesNoMark);
        var (advance, x, y) = widths.ColumnOf(number);
        return new Glyph(text, advance, width, claimed) { Origin = (x, y) }.As(leavesNoMark);
    }

    private static CMap EncodingOf(IToken? entry, PdfObjects objects)
    {
        if (entry is NameToken named)
            return NamedCMaps.Find(named.Data) ?? CMap.Identity(isVertical: false);
        if (entry is not StreamToken stream)
            return CMap.Identity(isVertical: false);
        var map = FontPrograms.MapOf(stream, objects);
        if (objects.Name(stream.StreamDictionary, "UseCMap") is not { } name || NamedCMaps.Find(name) is not { } used)
            return map.HasCodes ? map : CMap.Identity(map.IsVertical);
        var both = new CMap { IsVertical = map.IsVertical || objects.Number(stream.StreamDictionary, "WMode") == 1 };
        both.Use(map);
        both.Use(used);
        return both;
    }

    private static CMap? CollectionOf(DictionaryToken? system, PdfObjects objects) =>
        objects.Get(system, "Ordering") is IDataToken<string> ordering && objects.Get(system, "Registry") is IDataToken<string> registry
            ? NamedCMaps.TextsOf(registry.Data, ordering.Data) : null;
}
