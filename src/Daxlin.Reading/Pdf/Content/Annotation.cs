using Daxlin.Core.Pages;
using Daxlin.Reading.Drawing;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What an annotation or a form field shows over its page (ISO 32000-2, 12.5.5).</summary>
/// <param name="Appearance">Draws it, as the page shows it while nobody points at it.</param>
/// <param name="Bounds">Around the appearance's own box, as its matrix turns it: fitted into <paramref name="Place"/>.</param>
/// <param name="Place">On the page, before its rotation; the top is the smaller height here.</param>
internal sealed record Annotation(StreamToken Appearance, Box Bounds, Box Place)
{
    /// <summary>Annotations looked at; a page with more is no invoice.</summary>
    private const int Most = 2000;

    /// <summary>Bits of an annotation's flags: hidden, and not to be viewed.</summary>
    private const int NotViewed = 2 | 32;

    /// <summary>Those of a page that show something, in the order in which they are drawn.</summary>
    public static IEnumerable<Annotation> On(DictionaryToken page, PdfObjects objects, OptionalContent layers)
    {
        foreach (var one in (objects.Array(page, "Annots") ?? []).Take(Most))
        {
            if (objects.Resolve(one) is DictionaryToken annotation && IsViewed(annotation, objects)
                && !layers.Hides(annotation.Data.GetValueOrDefault("OC")) && Of(annotation, objects) is { } found)
                yield return found;
        }
    }

    private static bool IsViewed(DictionaryToken annotation, PdfObjects objects) =>
        ((int)(objects.Number(annotation, "F") ?? 0) & NotViewed) == 0 && objects.Name(annotation, "Subtype") != "Popup";

    private static Annotation? Of(DictionaryToken annotation, PdfObjects objects)
    {
        if (AppearanceOf(annotation, objects) is not { } appearance || objects.Numbers(annotation, "Rect", 4) is not { } place
            || objects.Numbers(appearance.StreamDictionary, "BBox", 4) is not { } box)
            return null;
        var matrix = objects.Numbers(appearance.StreamDictionary, "Matrix", 6) is { } given ? Matrix.Of(given) : Matrix.Identity;
        var bounds = Outline.Of([matrix.Take(box[0], box[1]), matrix.Take(box[2], box[1]), matrix.Take(box[0], box[3]), matrix.Take(box[2], box[3])]).Bounds;
        return new Annotation(appearance, bounds, new Box(Math.Min(place[0], place[2]), Math.Min(place[1], place[3]), Math.Max(place[0], place[2]), Math.Max(place[1], place[3])));
    }

    /// <summary>The one appearance, or that of the state that it is in.</summary>
    private static StreamToken? AppearanceOf(DictionaryToken annotation, PdfObjects objects) => objects.Get(objects.Dictionary(annotation, "AP"), "N") switch
    {
        StreamToken only => only,
        DictionaryToken states when objects.Name(annotation, "AS") is { } state => objects.Stream(states, state),
        _ => null,
    };
}
