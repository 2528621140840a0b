using Daxlin.Reading.Pdf.Fonts.Programs;
using UglyToad.PdfPig.Fonts.AdobeFontMetrics;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Makes fonts of their dictionaries (ISO 32000-2, 9.5 to 9.10).</summary>
internal static class FontReader
{
    /// <summary>A flag of font descriptors: its codes are its own, and no letters of a known encoding.</summary>
    private const int Symbolic = 4;

    /// <summary>The width of a glyph of which nothing says how wide it is, of the type's size.</summary>
    private const double UnknownWidth = 0.5;

    /// <summary>What text is shown in whose font is not there: something stands there, and nobody can tell what.</summary>
    public static Font Missing { get; } = new SimpleFont(code => new Glyph(code == ' ' ? " " : Glyph.Unknown, UnknownWidth, UnknownWidth));

    public static Font Read(DictionaryToken font, PdfObjects objects) =>
        objects.Name(font, "Subtype") == "Type0" ? Composite(font, objects) : Simple(font, objects);

    /// <summary>What the file claims that codes stand for.</summary>
    private static CMap? ClaimsOf(DictionaryToken font, PdfObjects objects) => objects.Get(font, "ToUnicode") switch
    {
        StreamToken stream => FontPrograms.MapOf(stream, objects),
        NameToken name => NamedCMaps.Find(name.Data),
        _ => null,
    };

    private static SimpleFont Simple(DictionaryToken font, PdfObjects objects)
    {
        var kind = objects.Name(font, "Subtype");
        var descriptor = objects.Dictionary(font, "FontDescriptor");
        var claims = ClaimsOf(font, objects);
        var encoding = SimpleEncoding.Of(font, objects);
        var baseFont = objects.Name(font, "BaseFont") ?? "";
        var metrics = MetricsOf(baseFont);
        var isDingbats = baseFont.Contains("Dingbats", StringComparison.Ordinal);
        var program = FontPrograms.Of(descriptor, objects);
        var isEmbedded = program != FontProgram.Silent;
        var isSymbolic = ((int)(objects.Number(descriptor, "Flags") ?? 0) & Symbolic) != 0;
        var ownCodes = metrics is { FontName: "Symbol" or "ZapfDingbats" } ? metrics.CharacterMetrics.Values.Where(glyph => glyph.CharacterCode >= 0).ToDictionary(glyph => glyph.CharacterCode, glyph => glyph.Name) : [];

        string? NameOf(int code) => encoding.NameOf(code) ?? program.BuiltIn.GetValueOrDefault(code) ?? ownCodes.GetValueOrDefault(code)
            ?? (kind == "Type3" || (isEmbedded && (kind == "TrueType" || program.BuiltIn.Count > 0)) ? null : SimpleEncoding.StandardNameOf(code));
        IReadOnlyList<string> OwnOf(int code)
        {
            var isClaimed = claims?.TextOf((uint)code) is not null;
            // The names of drawings are any that the file likes.
            if (kind == "Type3" && isClaimed)
                return [];
            // A symbolic font's codes are its program's; an encoding that the file names beside is no witness, and only better than nothing.
            if (kind == "TrueType" && program.Codes.TryGetValue(code, out var glyph) && (isSymbolic || encoding.NameOf(code) is null) && program.TextsOf(glyph) is var drawn && (drawn.Count > 0 || isClaimed))
                return drawn;
            return NameOf(code) is { } name && (isDingbats ? GlyphNames.DingbatOf(name) : GlyphNames.TextOf(name)) is { } text ? [text] : [];
        }
        var widths = WidthsOf(font, kind, objects);
        double WidthOf(int code) => widths(code)
            ?? (NameOf(code) is { } name && metrics?.CharacterMetrics.GetValueOrDefault(name) is { } metric ? (double?)(metric.Width.X / 1000) : null)
            ?? (program.Codes.TryGetValue(code, out var glyph) && glyph < program.Advances.Length ? (double?)program.Advances[glyph] : null)
            ?? (objects.Number(descriptor, "MissingWidth") is { } missing ? missing / 1000 : isEmbedded || kind == "Type3" ? 0 : UnknownWidth);
        return new SimpleFont(code =>
        {
            var (text, claimed) = GlyphTexts.Settle(claims?.TextOf((uint)code), OwnOf(code));
            if (text == Glyph.Unnamed)
            {
                // A glyph that has a name, if one that says nothing, was made to be seen.
                text = program.Codes.TryGetValue(code, out var drawn) && program.IsBlank is { } isBlank ? isBlank(drawn) ? " " : Glyph.Unknown
                    : NameOf(code) is not (null or ".notdef" or ".null" or "nonmarkingreturn") ? Glyph.Unknown : Glyph.Unnamed;
            }
            var width = WidthOf(code);
            return new Glyph(text, width, width, claimed);
        });
    }

    /// <summary>The widths that a font lists, of the type's size; null for a code that it does not list.</summary>
    private static Func<int, double?> WidthsOf(DictionaryToken font, string? kind, PdfObjects objects)
    {
        var first = (int)(objects.Number(font, "FirstChar") ?? 0);
        var listed = objects.Array(font, "Widths") ?? [];
        // Glyphs of Type 3 have a measure of their own.
        var unit = kind == "Type3" ? Math.Abs(objects.Numbers(font, "FontMatrix", 6)?[0] ?? 0.001) : 0.001;
        return code => code >= first && code - first < listed.Count ? objects.AsNumber(listed[code - first]) * unit : null;
    }

    private static AdobeFontMetrics? MetricsOf(string baseFont)
    {
        // A subset's name has six letters before it.
        var name = baseFont.Length > 7 && baseFont[6] == '+' ? baseFont[7..] : baseFont;
        return Standard14.IsFontInStandard14(name) ? Standard14.GetAdobeFontMetrics(name) : null;
    }

    private static CompositeFont Composite(DictionaryToken font, PdfObjects objects)
    {
        var descendant = objects.Array(font, "DescendantFonts") is [var only, ..] ? PdfObjects.AsDictionary(objects.Resolve(only)) : null;
        descendant ??= new DictionaryToken(new Dictionary<NameToken, IToken>());
        var encoding = objects.Get(font, "Encoding") switch
        {
            StreamToken stream => EncodingOf(stream, objects),
            NameToken name => NamedCMaps.Find(name.Data),
            _ => null,
        } ?? CMap.Identity(isVertical: false);
        var descriptor = objects.Dictionary(descendant, "FontDescriptor");
        var program = FontPrograms.Of(descriptor, objects);
        var toGlyph = objects.Stream(descendant, "CIDToGIDMap") is { } map ? objects.Unpack(map) : ReadOnlyMemory<byte>.Empty;
        var claims = ClaimsOf(font, objects);
        var collection = CollectionOf(descendant, objects);
        var widths = new GlyphWidths(descendant, objects);
        return new CompositeFont(encoding, (code, number) =>
        {
            var glyph = toGlyph.IsEmpty ? number : BigEndian.Short(toGlyph.Span, 2L * number);
            var own = program.TextsOf(glyph);
            if (own.Count == 0 && collection?.TextOf((uint)number) is { } text)
                own = [text];
            var (read, claimed) = GlyphTexts.Settle(claims?.TextOf(code), own);
            // The glyph with the number 0 is the one for what the font does not have: a box, where something was meant to stand.
            if (read == Glyph.Unnamed && glyph != 0 && program.IsBlank is { } isBlank)
                read = isBlank(glyph) ? " " : Glyph.Unknown;
            var width = widths.WidthOf(number);
            if (!encoding.IsVertical)
                return new Glyph(read, width, width, claimed);
            var (advance, x, y) = widths.ColumnOf(number);
            return new Glyph(read, advance, width, claimed) { Origin = (x, y) };
        });
    }

    private static CMap EncodingOf(StreamToken stream, PdfObjects objects)
    {
        var map = FontPrograms.MapOf(stream, objects);
        if (objects.Name(stream.StreamDictionary, "UseCMap") is not { } name || NamedCMaps.Find(name) is not { } named)
            return map;
        var both = new CMap { IsVertical = map.IsVertical || objects.Number(stream.StreamDictionary, "WMode") == 1 };
        both.Use(map);
        both.Use(named);
        return both;
    }

    private static CMap? CollectionOf(DictionaryToken descendant, PdfObjects objects)
    {
        var system = objects.Dictionary(descendant, "CIDSystemInfo");
        return objects.Get(system, "Ordering") is IDataToken<string> ordering && objects.Get(system, "Registry") is IDataToken<string> registry
            ? NamedCMaps.TextsOf(registry.Data, ordering.Data) : null;
    }
}
