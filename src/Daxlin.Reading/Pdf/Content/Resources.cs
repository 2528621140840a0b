using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Fonts;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What a content stream calls by name (ISO 32000-2, 7.8.3).</summary>
/// <param name="dictionaries">Its own, and those that it inherits; the first that knows a name counts.</param>
internal sealed class Resources(IReadOnlyList<DictionaryToken> dictionaries, DocumentContent document)
{
    private readonly Dictionary<string, Font?> fonts = new(StringComparer.Ordinal);
    private readonly Dictionary<(string, Ink?), Paint> patterns = [];
    private readonly Dictionary<string, ColourSpace?> spaces = new(StringComparer.Ordinal);

    public Font? FontOf(string name)
    {
        if (!fonts.TryGetValue(name, out var font))
            fonts[name] = font = document.FontOf(Listed("Font", name), name);
        return font;
    }

    /// <returns>Null for a space that is not known, whose colours nobody can tell.</returns>
    public ColourSpace? SpaceOf(string name)
    {
        if (spaces.TryGetValue(name, out var space))
            return space;
        // Names that stand for each other stand for nothing.
        spaces[name] = null;
        spaces[name] = space = Plain(name) ?? SpaceOf(Listed("ColorSpace", name)?.Data[name]);
        return space;
    }

    /// <summary>The space that a name or an array says.</summary>
    /// <returns>As of a name.</returns>
    public ColourSpace? SpaceOf(IToken? token)
    {
        var objects = document.Objects;
        switch (objects.Resolve(token))
        {
            case NameToken name:
                return SpaceOf(name.Data);
            case ArrayToken { Data: { Count: > 0 } array } when objects.Resolve(array[0]) is NameToken kind:
                if (kind.Data == "Pattern" && array.Count > 1)
                    return ColourSpace.Pattern with { Under = SpaceOf(array[1]) };
                return Plain(kind.Data) ?? (kind.Data == "ICCBased"
                    ? array.Count > 1 && PdfObjects.AsDictionary(objects.Resolve(array[1])) is { } profile && objects.Number(profile, "N") is { } parts ? ColourSpace.OfParts((int)parts) : null
                    : WorkedOut(token!));
            default:
                return null;
        }
    }

    private static ColourSpace? Plain(string name) => name switch
    {
        "DeviceGray" or "CalGray" or "G" => ColourSpace.Grey,
        "DeviceRGB" or "CalRGB" or "RGB" => ColourSpace.Rgb,
        "DeviceCMYK" or "CMYK" => ColourSpace.Cmyk,
        "Pattern" => ColourSpace.Pattern,
        _ => null,
    };

    /// <summary>Has the PDF library read a space of colours; only that, since it reads all fonts that it is shown beside.</summary>
    private ColourSpace? WorkedOut(IToken space)
    {
        var name = NameToken.Create("Wanted");
        var only = new DictionaryToken(new Dictionary<NameToken, IToken> { [NameToken.ColorSpace] = new DictionaryToken(new Dictionary<NameToken, IToken> { [name] = space }) });
        return Damage.OrNull(() =>
        {
            document.Colours.LoadResourceDictionary(only);
            try
            {
                return ColourSpace.Of(document.Colours.GetColorSpaceDetails(name, null));
            }
            finally
            {
                document.Colours.UnloadResourceDictionary();
            }
        });
    }

    /// <summary>What a pattern paints with (8.7).</summary>
    /// <param name="page">The number of the page, for what is said of it.</param>
    /// <param name="ink">What it is painted in where it has no colour of its own.</param>
    public Paint PatternOf(string name, int page, Ink? ink)
    {
        if (patterns.TryGetValue((name, ink), out var known))
            return known;
        // A pattern that is drawn with itself has no colour that anyone could tell.
        patterns[(name, ink)] = Paint.Untold;
        return patterns[(name, ink)] = document.Objects.Get(Listed("Pattern", name), name) is { } pattern ? Patterns.PaintOf(pattern, page, ink, this, document) : Paint.Untold;
    }

    /// <summary>What a shading paints with (8.7.4).</summary>
    public Paint ShadingOf(string name) => document.Objects.Dictionary(Listed("Shading", name), name) is { } shading ? Patterns.ShadingOf(shading, isPattern: false, this, document.Objects) : Paint.Untold;

    public DictionaryToken? StateOf(string name) => document.Objects.Dictionary(Listed("ExtGState", name), name);

    /// <summary>What marked content is said to be; a reference where it is one, since layers are known by theirs.</summary>
    public IToken? PropertiesOf(string name) => Listed("Properties", name)?.Data[name];

    public (StreamToken? Drawing, IndirectReference? Reference) DrawingOf(string name)
    {
        var listed = Listed("XObject", name);
        return (document.Objects.Stream(listed, name), PdfObjects.Reference(listed, name));
    }

    private DictionaryToken? Listed(string kind, string name)
    {
        foreach (var dictionary in dictionaries)
        {
            if (document.Objects.Dictionary(dictionary, kind) is { } listed && listed.Data.ContainsKey(name))
                return listed;
        }
        return null;
    }
}
