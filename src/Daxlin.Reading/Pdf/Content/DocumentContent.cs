using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Fonts;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What the pages of a document share: fonts and drawings that are read once.</summary>
/// <param name="colours">The PDF library's, which works out what is more than grey, red, green and blue, or four inks.</param>
internal sealed class DocumentContent(PdfObjects objects, IResourceStore colours, OptionalContent layers, ReadingLimits limits)
{
    /// <summary>Bytes of drawings kept unpacked: a letterhead is drawn on each page.</summary>
    private const int MostKept = 8 << 20;

    /// <summary>Pictures kept as they are unpacked: those of a letterhead.</summary>
    private const int MostPictures = 4;

    private readonly Dictionary<IndirectReference, Font?> fonts = [];
    private readonly Dictionary<IndirectReference, ReadOnlyMemory<byte>> drawings = [];
    private readonly Dictionary<IndirectReference, Resources> resources = [];
    private readonly Queue<(IndirectReference Reference, Lazy<PictureContent> Content)> pictures = [];
    private int kept;

    public PdfObjects Objects => objects;

    public IResourceStore Colours => colours;

    public OptionalContent Layers => layers;

    public ReadingLimits Limits => limits;

    /// <summary>How many tiles of patterns are being read within each other.</summary>
    public int OpenTiles { get; set; }

    /// <summary>The resources of a page or a drawing.</summary>
    /// <param name="owner">Has them under Resources.</param>
    /// <returns>Null if it names none.</returns>
    public Resources? ResourcesOf(DictionaryToken owner)
    {
        if (objects.Dictionary(owner, "Resources") is not { } own)
            return null;
        if (PdfObjects.Reference(owner, "Resources") is not { } reference)
            return new Resources([own], this);
        return resources.TryGetValue(reference, out var known) ? known : resources[reference] = new Resources([own], this);
    }

    /// <summary>A font of a dictionary of fonts; null where it is none.</summary>
    public Font? FontOf(DictionaryToken? listed, string name)
    {
        if (PdfObjects.Reference(listed, name) is not { } reference)
            return objects.Dictionary(listed, name) is { } own ? FontReader.Read(own, objects) : null;
        if (!fonts.TryGetValue(reference, out var font))
            fonts[reference] = font = objects.Dictionary(listed, name) is { } dictionary ? FontReader.Read(dictionary, objects) : null;
        return font;
    }

    public ReadOnlyMemory<byte> BytesOf(StreamToken drawing, IndirectReference? reference)
    {
        if (reference is { } known && drawings.TryGetValue(known, out var bytes))
            return bytes;
        bytes = objects.UnpackContent(drawing);
        if (reference is { } named && kept + bytes.Length <= MostKept)
        {
            drawings[named] = bytes;
            kept += bytes.Length;
        }
        return bytes;
    }

    /// <summary>What a picture shows, unpacked once it is asked for.</summary>
    /// <param name="ink">What it is drawn in where it is a stencil.</param>
    public Lazy<PictureContent> PictureOf(StreamToken picture, IndirectReference? reference, Resources where, Ink? ink)
    {
        var isStencil = objects.Get(picture.StreamDictionary, "ImageMask") is BooleanToken { Data: true };
        foreach (var (known, content) in pictures)
        {
            if (known.Equals(reference) && !isStencil)
                return content;
        }
        var unpacked = new Lazy<PictureContent>(() => Pictures.ContentOf(picture, where, objects, ink));
        if (reference is { } named && !isStencil)
        {
            if (pictures.Count == MostPictures)
                pictures.Dequeue();
            pictures.Enqueue((named, unpacked));
        }
        return unpacked;
    }
}
