using UglyToad.PdfPig.Fonts.Encodings;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Which glyph name each code of a font of single bytes has, as far as the document says (ISO 32000-2, 9.6.5).</summary>
internal sealed class SimpleEncoding
{
    private readonly Dictionary<int, string> differences = [];
    private readonly Encoding? named;

    private SimpleEncoding(Encoding? named) => this.named = named;

    /// <param name="font">Its entry Encoding is a name, or a dictionary of differences from one.</param>
    public static SimpleEncoding Of(DictionaryToken font, PdfObjects objects)
    {
        var entry = objects.Get(font, "Encoding");
        if (entry is NameToken name)
            return new SimpleEncoding(NamedOf(name));
        var own = PdfObjects.AsDictionary(entry);
        var encoding = new SimpleEncoding(objects.Get(own, "BaseEncoding") is NameToken basis ? NamedOf(basis) : null);
        var code = 0;
        foreach (var token in objects.Array(own, "Differences") ?? [])
        {
            switch (objects.Resolve(token))
            {
                case NumericToken number:
                    code = number.Int;
                    break;
                case NameToken glyph:
                    encoding.differences[code++] = glyph.Data;
                    break;
            }
        }
        return encoding;
    }

    private static Encoding? NamedOf(NameToken name) => Encoding.TryGetNamedEncoding(name, out var encoding) ? encoding : null;

    /// <summary>The encoding that a font has which says nothing of it, and no program.</summary>
    public static string? StandardNameOf(int code) => StandardEncoding.Instance.CodeToNameMap.GetValueOrDefault(code);

    /// <returns>Null where the document says nothing of the code.</returns>
    public string? NameOf(int code) => differences.TryGetValue(code, out var own) ? own : named?.CodeToNameMap.GetValueOrDefault(code);
}
