using Daxlin.Core.Pages;
using Daxlin.Reading.Drawing;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf;

/// <summary>What of a page a person sees, and how it is turned (ISO 32000-2, 14.11.2).</summary>
/// <param name="Width">In points, as it is seen.</param>
/// <param name="Height">In points.</param>
/// <param name="Initial">Takes the page's own coordinates to points from the lower left of what is seen.</param>
internal sealed record PageFrame(double Width, double Height, Matrix Initial)
{
    /// <summary>Taken where a page says nothing of its size.</summary>
    private static readonly Box A4 = new(0, 0, 595, 842);

    /// <summary>Levels of a document's pages; more are a circle.</summary>
    private const int DeepestTree = 50;

    public static PageFrame Of(DictionaryToken page, PageTreeMembers inherited, PdfObjects objects)
    {
        var media = BoxOf(objects.Numbers(page, "MediaBox", 4)) ?? BoxOf(inherited.MediaBox) ?? A4;
        var crop = CropOf(page, objects) ?? media;
        var both = new Box(Math.Max(media.Left, crop.Left), Math.Max(media.Top, crop.Top), Math.Min(media.Right, crop.Right), Math.Min(media.Bottom, crop.Bottom));
        // What is cut to nothing is damaged: the box that says so counts for what it says.
        var seen = both is { Width: > 0, Height: > 0 } ? both : crop;
        var unit = objects.Number(page, "UserUnit") is > 0 and var given ? given : 1;
        var (width, height) = (seen.Width * unit, seen.Height * unit);
        var upright = new Matrix(unit, 0, 0, unit, -seen.Left * unit, -seen.Top * unit);
        var turned = (((int)(objects.Number(page, "Rotate") ?? inherited.Rotation) % 360) + 360) % 360;
        return turned switch
        {
            90 => new PageFrame(height, width, upright.Then(new Matrix(0, -1, 1, 0, 0, width))),
            180 => new PageFrame(width, height, upright.Then(new Matrix(-1, 0, 0, -1, width, height))),
            270 => new PageFrame(height, width, upright.Then(new Matrix(0, 1, -1, 0, height, 0))),
            _ => new PageFrame(width, height, upright),
        };
    }

    /// <summary>A page's own, or the nearest that it inherits.</summary>
    private static Box? CropOf(DictionaryToken page, PdfObjects objects)
    {
        var level = page;
        for (var step = 0; level is not null && step < DeepestTree; step++, level = objects.Dictionary(level, "Parent"))
        {
            if (BoxOf(objects.Numbers(level, "CropBox", 4)) is { } box)
                return box;
        }
        return null;
    }

    /// <summary>Any two opposite corners may be given; the top is the smaller height here.</summary>
    private static Box? BoxOf(double[]? corners) => corners is null ? null
        : new Box(Math.Min(corners[0], corners[2]), Math.Min(corners[1], corners[3]), Math.Max(corners[0], corners[2]), Math.Max(corners[1], corners[3])) is { Width: > 0, Height: > 0 } box ? box : null;

    private static Box? BoxOf(MediaBox? media) => media is null ? null : BoxOf([media.Bounds.Left, media.Bounds.Bottom, media.Bounds.Right, media.Bounds.Top]);
}
