using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Fonts.Programs;
using UglyToad.PdfPig.Fonts.AdobeFontMetrics;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A font of single bytes (ISO 32000-2, 9.6): Type 1, TrueType, and Type 3, whose glyphs are drawings.</summary>
internal sealed class SimpleFont : Font
{
    /// <summary>A flag of font descriptors: its codes are its own, and no letters of a known encoding.</summary>
    private const int Symbolic = 4;

    /// <summary>The width of a glyph of which nothing says how wide it is, of the type's size.</summary>
    private const double UnknownWidth = 0.5;

    private readonly Glyph?[] made = new Glyph?[256];
    private readonly PdfObjects objects;
    private readonly SimpleEncoding encoding;
    private readonly CMap? claims;
    private readonly FontProgram program;
    private readonly AdobeFontMetrics? metrics;
    private readonly Dictionary<int, string> standardCodes;
    private readonly IReadOnlyList<IToken> widths;
    private readonly int firstWidth;
    private readonly double widthUnit;
    private readonly double missingWidth;
    private readonly bool isTrueType;
    private readonly bool isDrawn;
    private readonly bool isDingbats;
    private readonly bool isSymbolic;
    private readonly DictionaryToken? drawings;
    private readonly Matrix measure;
    private readonly DictionaryToken font;

    public SimpleFont(DictionaryToken font, PdfObjects objects)
    {
        (this.objects, this.font) = (objects, font);
        var kind = objects.Name(font, "Subtype");
        var descriptor = objects.Dictionary(font, "FontDescriptor");
        var name = objects.Name(font, "BaseFont") ?? "";
        (isTrueType, isDrawn) = (kind == "TrueType", kind == "Type3");
        isDingbats = name.Contains("Dingbats", StringComparison.Ordinal);
        isSymbolic = ((int)(objects.Number(descriptor, "Flags") ?? 0) & Symbolic) != 0;
        encoding = SimpleEncoding.Of(font, objects);
        claims = FontReader.ClaimsOf(font, objects);
        program = FontPrograms.Of(descriptor, objects);
        metrics = MetricsOf(name);
        standardCodes = metrics is { FontName: "Symbol" or "ZapfDingbats" }
            ? metrics.CharacterMetrics.Values.Where(glyph => glyph.CharacterCode >= 0).ToDictionary(glyph => glyph.CharacterCode, glyph => glyph.Name) : [];
        widths = objects.Array(font, "Widths") ?? [];
        firstWidth = (int)(objects.Number(font, "FirstChar") ?? 0);
        // Drawings have a measure of their own.
        var measure = isDrawn ? Matrix.Of(objects.Numbers(font, "FontMatrix", 6) ?? [0.001, 0, 0, 0.001, 0, 0]) : Matrix.Identity;
        widthUnit = isDrawn ? Math.Abs(measure.A) : 0.001;
        (drawings, this.measure) = (isDrawn ? objects.Dictionary(font, "CharProcs") : null, measure);
        missingWidth = objects.Number(descriptor, "MissingWidth") is { } missing ? missing / 1000 : IsEmbedded || isDrawn ? 0 : UnknownWidth;
    }

    private bool IsEmbedded => program != FontProgram.Silent;

    public override Glyph Next(ReadOnlySpan<byte> text, out int length)
    {
        length = 1;
        return made[text[0]] ??= GlyphOf(text[0]);
    }

    private Glyph GlyphOf(int code)
    {
        var claim = claims?.TextOf((uint)code);
        var (text, claimed) = GlyphTexts.Settle(claim, OwnOf(code, isClaimed: claim is not null));
        if (text == Glyph.Unnamed)
        {
            // A glyph that has a name, if one that says nothing, was made to be seen.
            text = LeavesNoMark(code) is { } isBlank ? isBlank ? " " : Glyph.Unknown
                : NameOf(code) is not (null or ".notdef" or ".null" or "nonmarkingreturn") ? Glyph.Unknown : Glyph.Unnamed;
        }
        var width = WidthOf(code);
        return new Glyph(text, width, width, claimed) { Drawing = DrawingOf(code) }.As(LeavesNoMark(code));
    }

    /// <summary>Says that the font draws nothing for a code; null where it does not say.</summary>
    private bool? LeavesNoMark(int code) => DrawnBy(code) is { } glyph ? program.IsBlank(glyph) : null;

    /// <summary>The number of the glyph that a code draws; null where nothing says for sure.</summary>
    private int? DrawnBy(int code)
    {
        if (!isTrueType)
            return NameOf(code) is { } name ? program.Names.TryGetValue(name, out var named) ? named : null : null;
        if (program.Codes.TryGetValue(code, out var glyph) && (isSymbolic || encoding.NameOf(code) is null))
            return glyph;
        return NameOf(code) is { } letter && GlyphNames.TextOf(letter) is { } text ? program.GlyphOf(text) : null;
    }

    private GlyphDrawing? DrawingOf(int code) =>
        drawings is not null && encoding.NameOf(code) is { } name && objects.Stream(drawings, name) is { } content ? new GlyphDrawing(content, PdfObjects.Reference(drawings, name), font, measure) : null;

    /// <summary>The name of the glyph that a code draws; null where neither the document nor the font says one.</summary>
    private string? NameOf(int code)
    {
        if ((encoding.NameOf(code) ?? program.BuiltIn.GetValueOrDefault(code) ?? standardCodes.GetValueOrDefault(code)) is { } name)
            return name;
        var hasCodesOfItsOwn = isDrawn || (IsEmbedded && (isTrueType || program.BuiltIn.Count > 0));
        return hasCodesOfItsOwn ? null : SimpleEncoding.StandardNameOf(code);
    }

    /// <summary>What the font itself says that a code stands for; nothing where it does not say.</summary>
    private IReadOnlyList<string> OwnOf(int code, bool isClaimed)
    {
        // The names of drawings are any that the file likes.
        if (isDrawn && isClaimed)
            return [];
        // A symbolic font's codes are its program's; an encoding that the file names beside is no witness, and only better than nothing.
        if (isTrueType && (isSymbolic || encoding.NameOf(code) is null) && program.Codes.TryGetValue(code, out var glyph)
            && program.TextsOf(glyph) is var drawn && (drawn.Count > 0 || isClaimed))
            return drawn;
        return NameOf(code) is { } name && (isDingbats ? GlyphNames.DingbatOf(name) : GlyphNames.TextOf(name)) is { } text ? [text] : [];
    }

    private double WidthOf(int code)
    {
        if (code >= firstWidth && code - firstWidth < widths.Count && objects.AsNumber(widths[code - firstWidth]) is { } listed)
            return listed * widthUnit;
        if (NameOf(code) is { } name && metrics?.CharacterMetrics.GetValueOrDefault(name) is { } metric)
            return metric.Width.X / 1000;
        return program.Codes.TryGetValue(code, out var glyph) && glyph < program.Advances.Length ? program.Advances[glyph] : missingWidth;
    }

    private static AdobeFontMetrics? MetricsOf(string baseFont)
    {
        // A subset's name has six letters before it.
        var name = baseFont.Length > 7 && baseFont[6] == '+' ? baseFont[7..] : baseFont;
        return Standard14.IsFontInStandard14(name) ? Standard14.GetAdobeFontMetrics(name) : null;
    }
}
