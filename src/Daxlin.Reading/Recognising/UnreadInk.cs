using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>Finds the ink of a page that is part of no word: whatever it says, nobody has read it.</summary>
/// <remarks>
/// A stamp, a pen's stroke, a stain over the text: what is printed under it may have vanished without a trace among the words. Letters that stand alone are
/// given as they are; of what is larger than letters, as a stamp's ring is, only the parts where its ink runs, since most of what it goes around is whole.
/// </remarks>
internal static class UnreadInk
{
    /// <summary>Less than this part of the type's size is a speck, a point, dust.</summary>
    private const double LeastLetter = 0.4;

    /// <summary>Ink larger than this part of the type's size is looked at in cells.</summary>
    private const double MostLetter = 2.2;

    /// <summary>So much of a cell is ink where a stroke runs through it.</summary>
    private const double LeastOfCell = 0.06;

    /// <param name="spots">All ink of the page, as spots.</param>
    /// <param name="words">Where the words stand that were read, and rows of dashes.</param>
    /// <param name="usual">The usual size of the page's type, in dots.</param>
    public static ImmutableArray<Box> Of(GreyPicture page, List<Box> spots, IReadOnlyCollection<Box> words, double usual)
    {
        if (usual <= 0)
            return [];
        var read = new HeightBands<Box>(page.Height, 2 * usual, words, word => word);
        var found = ImmutableArray.CreateBuilder<Box>();
        foreach (var spot in spots)
        {
            if (Math.Max(spot.Width, spot.Height) < LeastLetter * usual)
                continue;
            if (spot.Height > MostLetter * usual || spot.Width > 2 * MostLetter * usual)
                found.AddRange(Cells(page, spot, read, usual));
            else if (!read.Around(spot).Any(word => IsPartOf(spot, word)))
                found.Add(spot);
        }
        return found.DrainToImmutable();
    }

    private static bool IsPartOf(Box spot, Box word) => word.SharedWidth(spot) > 0.4 * spot.Width && word.SharedHeight(spot) > 0.4 * spot.Height;

    /// <summary>Where the ink of something large runs beside what was read.</summary>
    private static IEnumerable<Box> Cells(GreyPicture page, Box spot, HeightBands<Box> read, double usual)
    {
        var side = Math.Max(4, usual / 2);
        for (var top = spot.Top; top < spot.Bottom; top += side)
        {
            Box? run = null;
            for (var left = spot.Left; left < spot.Right; left += side)
            {
                var cell = new Box(left, top, Math.Min(left + side, spot.Right), Math.Min(top + side, spot.Bottom));
                if (InkOf(page, cell) > LeastOfCell && !read.Around(cell).Any(word => Shares(word, cell)))
                {
                    run = run?.Union(cell) ?? cell;
                }
                else if (run is { } ended)
                {
                    yield return ended;
                    run = null;
                }
            }
            if (run is { } last)
                yield return last;
        }
    }

    private static bool Shares(Box word, Box cell) => word.SharedWidth(cell) > 0 && word.SharedHeight(cell) > 0.25 * Math.Min(cell.Height, word.Height);

    private static double InkOf(GreyPicture page, Box cell)
    {
        var (count, all) = (0, 0);
        for (var y = (int)cell.Top; y < Math.Min(page.Height, (int)cell.Bottom); y++)
        {
            var row = page.Row(y);
            for (var x = (int)cell.Left; x < Math.Min(page.Width, (int)cell.Right); x++, all++)
                count += row[x] < InkSpots.Dark ? 1 : 0;
        }
        return all == 0 ? 0 : (double)count / all;
    }
}
