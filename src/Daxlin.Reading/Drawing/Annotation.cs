using Daxlin.Core.Pages;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>What an annotation or a form field shows over its page (ISO 32000-2, 12.5.5).</summary>
/// <param name="Appearance">Draws it.</param>
/// <param name="Corners">Those of the appearance's own box.</param>
/// <param name="Matrix">Takes that box to the one that is fitted into <paramref name="Place"/>.</param>
/// <param name="Place">On the page, before its rotation; the top is the smaller height here.</param>
internal sealed record Annotation(StreamToken Appearance, PdfPoint[] Corners, TransformationMatrix Matrix, Box Place)
{
    /// <summary>Annotations looked at; a page with more is no invoice.</summary>
    private const int Most = 2000;

    /// <summary>Bits of an annotation's flags: hidden, and not to be viewed.</summary>
    private const int NotViewed = 2 | 32;

    private static readonly NameToken Appearances = NameToken.Create("AP");
    private static readonly NameToken State = NameToken.Create("AS");

    /// <summary>The appearance that a page shows while nobody points at it.</summary>
    public static NameToken Normal { get; } = NameToken.Create("N");

    /// <summary>Those of a page that show something, in the order in which they are drawn.</summary>
    public static IEnumerable<Annotation> On(DictionaryToken page, IPdfTokenScanner scanner, OptionalContent layers)
    {
        if (!page.TryGet<ArrayToken>(NameToken.Annots, scanner, out var annotations))
            yield break;
        foreach (var one in annotations.Data.Take(Most))
        {
            if (layers.Resolved(one) is { } annotation && IsViewed(annotation, scanner)
                && !layers.Hides(annotation.TryGet(OptionalContent.Key, out var layer) ? layer : null) && Of(annotation, scanner) is { } found)
                yield return found;
        }
    }

    private static bool IsViewed(DictionaryToken annotation, IPdfTokenScanner scanner) =>
        !(annotation.TryGet<NumericToken>(NameToken.F, scanner, out var flags) && (flags.Int & NotViewed) != 0)
        && !(annotation.TryGet<NameToken>(NameToken.Subtype, scanner, out var kind) && kind.Data == "Popup");

    private static Annotation? Of(DictionaryToken annotation, IPdfTokenScanner scanner)
    {
        if (AppearanceOf(annotation, scanner) is not { } appearance || NumbersOf(annotation, NameToken.Rect, 4, scanner) is not { } place
            || NumbersOf(appearance.StreamDictionary, NameToken.Bbox, 4, scanner) is not { } box)
            return null;
        var matrix = NumbersOf(appearance.StreamDictionary, NameToken.Matrix, 6, scanner) is { } given
            ? TransformationMatrix.FromValues(given[0], given[1], given[2], given[3], given[4], given[5]) : TransformationMatrix.Identity;
        return new Annotation(
            appearance, [new(box[0], box[1]), new(box[2], box[1]), new(box[0], box[3]), new(box[2], box[3])], matrix,
            new Box(Math.Min(place[0], place[2]), Math.Min(place[1], place[3]), Math.Max(place[0], place[2]), Math.Max(place[1], place[3])));
    }

    private static StreamToken? AppearanceOf(DictionaryToken annotation, IPdfTokenScanner scanner)
    {
        if (!annotation.TryGet<DictionaryToken>(Appearances, scanner, out var appearances))
            return null;
        if (appearances.TryGet<StreamToken>(Normal, scanner, out var stream))
            return stream;
        return appearances.TryGet<DictionaryToken>(Normal, scanner, out var states) && annotation.TryGet<NameToken>(State, scanner, out var state)
            && states.TryGet<StreamToken>(state, scanner, out var ofState) ? ofState : null;
    }

    private static double[]? NumbersOf(DictionaryToken dictionary, NameToken key, int count, IPdfTokenScanner scanner) =>
        dictionary.TryGet<ArrayToken>(key, scanner, out var numbers) && numbers.Data.Count == count && numbers.Data.All(number => number is NumericToken)
            ? [.. numbers.Data.Select(number => ((NumericToken)number).Double)] : null;
}
