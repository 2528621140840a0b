namespace Daxlin.Reading.Pictures;

/// <summary>Finds how far the lines of a page lie turned.</summary>
/// <remarks>
/// The ink of a page is projected along slanted rows; where the rows run as the lines do, ink and gaps part most sharply. After W. Postl,
/// Detection of linear oblique structures and skew scan in digitized documents, 1986.
/// </remarks>
internal static class Skew
{
    /// <summary>Looked for up to so many degrees either way.</summary>
    private const double Most = 8;

    /// <summary>Dots an inch that are enough to look at.</summary>
    private const double Enough = 75;

    /// <summary>Ink is darker than this.</summary>
    private const int Dark = 150;

    /// <summary>How far the lines run down to the right, in degrees; 0 for a page on which nothing tells.</summary>
    public static double Of(GreyPicture page)
    {
        var small = page.Dpi > Enough * 1.5 ? page.Scaled((int)(page.Width * Enough / page.Dpi), (int)(page.Height * Enough / page.Dpi)) : page;
        var ink = new List<(int X, int Y)>();
        for (var y = 0; y < small.Height; y++)
        {
            var row = small.Row(y);
            for (var x = 0; x < row.Length; x++)
            {
                if (row[x] < Dark)
                    ink.Add((x, y));
            }
        }
        if (ink.Count < 100)
            return 0;
        var best = Best(small, ink, 0, Most, 0.5);
        best = Best(small, ink, best, 0.5, 0.1);
        best = Best(small, ink, best, 0.1, 0.02);
        return Sharpness(small, ink, best) > 1.02 * Sharpness(small, ink, 0) ? best : 0;
    }

    private static double Best(GreyPicture page, List<(int X, int Y)> ink, double around, double reach, double step)
    {
        var angles = Enumerable.Range(0, (int)Math.Round(2 * reach / step) + 1).Select(index => around - reach + (index * step)).ToArray();
        return angles.AsParallel().AsOrdered().Select(angle => (angle, Sharpness: Sharpness(page, ink, angle))).MaxBy(tried => tried.Sharpness).angle;
    }

    /// <summary>How much the ink of neighbouring slanted rows differs.</summary>
    private static double Sharpness(GreyPicture page, List<(int X, int Y)> ink, double degrees)
    {
        var slope = Math.Tan(degrees * Math.PI / 180);
        var shift = Math.Abs(slope) * page.Width;
        var rows = new double[page.Height + (int)(2 * shift) + 4];
        foreach (var (x, y) in ink)
        {
            // Shared between two rows, so that no angle is favoured for falling on whole dots.
            var at = y - (slope * x) + shift + 1;
            var (row, part) = ((int)at, at - Math.Floor(at));
            rows[row] += 1 - part;
            rows[row + 1] += part;
        }
        var sum = 0.0;
        for (var row = 1; row < rows.Length; row++)
            sum += (rows[row] - rows[row - 1]) * (rows[row] - rows[row - 1]);
        return sum;
    }
}
