using Daxlin.Reading.Pdf.Fonts.Programs;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Makes fonts of their dictionaries (ISO 32000-2, 9.5 to 9.10).</summary>
internal static class FontReader
{
    public static Font Read(DictionaryToken font, PdfObjects objects) =>
        objects.Name(font, "Subtype") == "Type0" ? new CompositeFont(font, objects) : new SimpleFont(font, objects);

    /// <summary>What the file claims that codes stand for; null if it says nothing.</summary>
    public static CMap? ClaimsOf(DictionaryToken font, PdfObjects objects) => objects.Get(font, "ToUnicode") switch
    {
        StreamToken stream => FontPrograms.MapOf(stream, objects),
        NameToken name => NamedCMaps.Find(name.Data),
        _ => null,
    };
}
