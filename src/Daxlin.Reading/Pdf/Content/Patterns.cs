using System.Collections.Immutable;
using Daxlin.Reading.Drawing;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>The colours of patterns and shadings (ISO 32000-2, 8.7): which ones, not where each stands.</summary>
internal static class Patterns
{
    /// <summary>Tiles that are painted with tiles.</summary>
    private const int DeepestTile = 4;

    /// <summary>Colours told apart; more are said to be untold.</summary>
    private const int MostInks = 256;

    /// <param name="ink">What a tile without colours of its own is painted in.</param>
    public static Paint PaintOf(IToken pattern, int page, Ink? ink, Resources where, DocumentContent document)
    {
        var objects = document.Objects;
        var dictionary = PdfObjects.AsDictionary(pattern);
        return (objects.Number(dictionary, "PatternType"), pattern) switch
        {
            (1, StreamToken) when objects.Number(dictionary, "PaintType") == 2 => ink is { } own ? new Paint([own], HasGaps: true) : Paint.Untold,
            (1, StreamToken tile) => TileOf(tile, page, where, document),
            (2, _) when objects.Dictionary(dictionary, "Shading") is { } shading => ShadingOf(shading, isPattern: true, where, objects),
            _ => Paint.Untold,
        };
    }

    /// <summary>The colours that a tile is drawn in; between what it draws there may be gaps.</summary>
    private static Paint TileOf(StreamToken tile, int page, Resources where, DocumentContent document)
    {
        if (document.OpenTiles >= DeepestTile)
            return Paint.Untold;
        document.OpenTiles++;
        try
        {
            var drawing = PageDrawing.OfTile(page, document.Limits);
            new ContentReader(page, document, document.ResourcesOf(tile.StreamDictionary) ?? where, drawing, Matrix.Identity).Read(document.BytesOf(tile, null).Span);
            return drawing.Paints.Any(paint => paint.IsUntold) ? Paint.Untold : Of(drawing.Paints.SelectMany(paint => paint.Inks), hasGaps: true);
        }
        finally
        {
            document.OpenTiles--;
        }
    }

    /// <summary>The colours that a shading runs through.</summary>
    /// <param name="isPattern">Its ground is painted, too; a shading that is drawn by itself leaves it out (8.7.4.2).</param>
    public static Paint ShadingOf(DictionaryToken shading, bool isPattern, Resources where, PdfObjects objects)
    {
        // Of meshes only those whose colours come of a function are read; a point of theirs can have any of it.
        if (where.SpaceOf(shading.Data.GetValueOrDefault("ColorSpace")) is not { } space || objects.Get(shading, "Function") is not { } function)
            return Paint.Untold;
        var extend = objects.Array(shading, "Extend");
        var isExtended = extend is { Count: 2 } && extend.All(side => objects.Resolve(side) is BooleanToken { Data: true });
        var ground = isPattern ? objects.Array(shading, "Background")?.Select(part => objects.AsNumber(part) ?? 0).ToArray() : null;
        var inks = ColourFunction.Along(function, objects.Numbers(shading, "Domain", 2), objects)?.Select(InkOf).ToList();
        if (inks is null || inks.Contains(null))
            return Paint.Untold;
        if (ground is not null)
            inks.Add(InkOf(ground));
        // An axis reaches to its ends and, if it is extended, beyond; a circle that is extended need not reach everywhere.
        var isEverywhere = ground is not null || (isExtended && objects.Number(shading, "ShadingType") == 2);
        return Of(inks.OfType<Ink>(), hasGaps: !isEverywhere);

        Ink? InkOf(double[] parts) => parts.Length == space.Parts ? space.Read(parts) : null;
    }

    private static Paint Of(IEnumerable<Ink> inks, bool hasGaps)
    {
        ImmutableArray<Ink> all = [.. inks.Distinct().Take(MostInks + 1)];
        return all.Length > MostInks ? Paint.Untold : new Paint(all, hasGaps);
    }
}
