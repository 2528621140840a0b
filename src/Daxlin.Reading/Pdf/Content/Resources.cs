using Daxlin.Reading.Pdf.Fonts;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What a content stream calls by name (ISO 32000-2, 7.8.3).</summary>
/// <param name="dictionaries">Its own, and those that it inherits; the first that knows a name counts.</param>
internal sealed class Resources(IReadOnlyList<DictionaryToken> dictionaries, DocumentContent document)
{
    private readonly Dictionary<string, Font?> fonts = new(StringComparer.Ordinal);
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
        if (!spaces.TryGetValue(name, out var space))
            spaces[name] = space = name switch
            {
                "DeviceGray" or "CalGray" or "G" => ColourSpace.Grey,
                "DeviceRGB" or "CalRGB" or "RGB" => ColourSpace.Rgb,
                "DeviceCMYK" or "CMYK" => ColourSpace.Cmyk,
                "Pattern" => ColourSpace.Pattern,
                _ => NamedSpace(name),
            };
        return space;
    }

    private ColourSpace? NamedSpace(string name)
    {
        var objects = document.Objects;
        var listed = Listed("ColorSpace", name);
        if (objects.Get(listed, name) is NameToken plain)
            return plain.Data == name ? null : SpaceOf(plain.Data);
        if (objects.Array(listed, name) is not [var first, ..] array || objects.Resolve(first) is not NameToken kind)
            return null;
        if (kind.Data is "CalGray" or "CalRGB" or "DeviceGray" or "DeviceRGB" or "DeviceCMYK" or "Pattern")
            return SpaceOf(kind.Data);
        if (kind.Data == "ICCBased")
            return array.Count > 1 && PdfObjects.AsDictionary(objects.Resolve(array[1])) is { } profile && objects.Number(profile, "N") is { } parts ? ColourSpace.OfParts((int)parts) : null;
        return WorkedOut(name, listed!);
    }

    /// <summary>Has the PDF library read a space of colours; only that, since it reads all fonts that it is shown beside.</summary>
    private ColourSpace? WorkedOut(string name, DictionaryToken listed)
    {
        var only = new DictionaryToken(new Dictionary<NameToken, IToken> { [NameToken.ColorSpace] = new DictionaryToken(new Dictionary<NameToken, IToken> { [NameToken.Create(name)] = listed.Data[name] }) });
        return Damage.OrNull(() =>
        {
            document.Colours.LoadResourceDictionary(only);
            try
            {
                return ColourSpace.Of(document.Colours.GetColorSpaceDetails(NameToken.Create(name), null));
            }
            finally
            {
                document.Colours.UnloadResourceDictionary();
            }
        });
    }

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
