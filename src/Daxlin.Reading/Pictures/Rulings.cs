using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Pictures;

/// <summary>Finds the straight lines that are ruled on a page, and takes them out of its picture, since a recogniser reads letters into them.</summary>
/// <remarks>What crosses a ruling stays whole: a dot of it goes only where nothing goes on above and below.</remarks>
internal static class Rulings
{
    /// <summary>A ruling is at least so long, in inches: longer than any letter's stroke and than most dashes.</summary>
    private const double Shortest = 0.4;

    /// <summary>And at most so thick, in inches; what is thicker is a filled area.</summary>
    private const double Thickest = 0.04;

    /// <summary>Rulings are often grey, or so thin that the paper shines through.</summary>
    private const int Dark = 205;

    /// <param name="page">Set upright and straight, with even light.</param>
    /// <returns>The picture without them, and where they run, in points.</returns>
    public static (GreyPicture Page, ImmutableArray<Stroke> Strokes) TakenOut(GreyPicture page)
    {
        var level = Found(page);
        var sideways = Transposed(page);
        var upright = Found(sideways);
        var dots = page.Dots.ToArray();
        foreach (var ruling in level)
            TakeOut(page, ruling, (x, y) => dots[(y * page.Width) + x] = 255);
        foreach (var ruling in upright)
            TakeOut(sideways, ruling, (x, y) => dots[(x * page.Width) + y] = 255);
        var point = page.Point;
        return (page with { Dots = dots },
            [
                .. level.Select(ruling => new Stroke(new Box(ruling.Left * point, ruling.Top * point, ruling.Right * point, ruling.Bottom * point))),
                .. upright.Select(ruling => new Stroke(new Box(ruling.Top * point, ruling.Left * point, ruling.Bottom * point, ruling.Right * point))),
            ]);
    }

    private static GreyPicture Transposed(GreyPicture page)
    {
        var dots = new byte[page.Dots.Length];
        for (var y = 0; y < page.Height; y++)
        {
            var row = page.Row(y);
            for (var x = 0; x < row.Length; x++)
                dots[(x * page.Height) + y] = row[x];
        }
        return new GreyPicture(page.Height, page.Width, dots, page.Dpi);
    }

    /// <summary>A stretch of ink from left to right; right and bottom are beyond it.</summary>
    private readonly record struct Run(int Left, int Top, int Right, int Bottom);

    /// <summary>Level rulings: long stretches of ink, row upon row, that together are no thicker than a line.</summary>
    private static List<Run> Found(GreyPicture page)
    {
        var (shortest, thickest) = ((int)(Shortest * page.Dpi), Math.Max(3, (int)(Thickest * page.Dpi)));
        var open = new List<Run>();
        var found = new List<Run>();
        for (var y = 0; y < page.Height; y++)
        {
            foreach (var stretch in Stretches(page.Row(y), shortest))
            {
                var grown = new Run(stretch.Left, y, stretch.Right, y + 1);
                for (var index = open.Count - 1; index >= 0; index--)
                {
                    if (open[index].Left <= grown.Right + 2 && open[index].Right + 2 >= grown.Left)
                    {
                        var other = open[index];
                        grown = new Run(Math.Min(grown.Left, other.Left), Math.Min(grown.Top, other.Top), Math.Max(grown.Right, other.Right), y + 1);
                        open.RemoveAt(index);
                    }
                }
                open.Add(grown);
            }
            Close(open, found, y + 1, thickest);
        }
        Close(open, found, page.Height + 2, thickest);
        return found;
    }

    private static void Close(List<Run> open, List<Run> found, int y, int thickest)
    {
        found.AddRange(open.Where(run => run.Bottom < y && run.Bottom - run.Top <= thickest));
        open.RemoveAll(run => run.Bottom < y);
    }

    /// <summary>Where ink goes on for a ruling's length; a dot that is missing breaks none.</summary>
    private static List<(int Left, int Right)> Stretches(ReadOnlySpan<byte> row, int shortest)
    {
        const int most = 2;
        var found = new List<(int, int)>();
        var (start, last) = (-1, -1);
        for (var x = 0; x <= row.Length; x++)
        {
            if (x < row.Length && row[x] < Dark)
            {
                if (start < 0)
                    start = x;
                last = x;
            }
            else if (start >= 0 && (x == row.Length || x - last > most))
            {
                if (last + 1 - start >= shortest)
                    found.Add((start, last + 1));
                start = -1;
            }
        }
        return found;
    }

    private static void TakeOut(GreyPicture page, Run ruling, Action<int, int> clear)
    {
        // A soft edge is a dot or two wide.
        var (top, bottom) = (Math.Max(0, ruling.Top - 2), Math.Min(page.Height, ruling.Bottom + 2));
        for (var x = Math.Max(0, ruling.Left - 2); x < Math.Min(page.Width, ruling.Right + 2); x++)
        {
            if (IsInk(page, x, top - 1) || IsInk(page, x, bottom))
                continue;
            for (var y = top; y < bottom; y++)
                clear(x, y);
        }
    }

    private static bool IsInk(GreyPicture page, int x, int y) => y >= 0 && y < page.Height && page.Dots[(y * page.Width) + x] < Dark;
}
