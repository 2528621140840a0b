using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Scans;

/// <summary>Makes scans of printed pages, the same for the same seed.</summary>
public static class ScanMaker
{
    /// <param name="page">Drawn at 300 dots an inch.</param>
    public static GreyPicture Of(GreyPicture page, ScanKind kind, int seed) => kind switch
    {
        ScanKind.Noisy => Blocks(Grain(page.Scaled(page.Width * 2 / 3, page.Height * 2 / 3), 14, seed)),
        ScanKind.Skewed => page.Mapped(page.Width, page.Height, PlaneMap.Turning(seed % 2 == 0 ? -2 : 2, page.Width / 2.0, page.Height / 2.0), page.Dpi),
        ScanKind.Photo => Photo(page, seed),
        ScanKind.Fax => Fax(page),
        ScanKind.Stamped => Stamped(page, seed),
        _ => page,
    };

    private static GreyPicture Grain(GreyPicture page, double deviation, int seed)
    {
        var random = new Random(seed);
        var dots = page.Dots.ToArray();
        for (var at = 0; at < dots.Length; at++)
        {
            // Box and Muller's transform, of which one half is enough.
            var grain = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
            dots[at] = (byte)Math.Clamp(dots[at] * 0.92 + 8 + (deviation * grain), 0, 255);
        }
        return page with { Dots = dots };
    }

    /// <summary>What a JPEG of low quality leaves of a page: each block of 8 by 8 dots loses its finest waves (ITU-T T.81, A.3.3).</summary>
    private static GreyPicture Blocks(GreyPicture page)
    {
        var dots = page.Dots.ToArray();
        Parallel.For(0, page.Height / 8, row =>
        {
            var (block, waves) = (new double[8, 8], new double[8, 8]);
            for (var column = 0; column < page.Width / 8; column++)
            {
                for (var y = 0; y < 8; y++)
                {
                    for (var x = 0; x < 8; x++)
                        block[y, x] = page.Dots[(((row * 8) + y) * page.Width) + (column * 8) + x] - 128;
                }
                Transform(block, waves, isBack: false);
                for (var v = 0; v < 8; v++)
                {
                    for (var u = 0; u < 8; u++)
                        waves[v, u] = Math.Round(waves[v, u] / (12 + (8 * (u + v)))) * (12 + (8 * (u + v)));
                }
                Transform(waves, block, isBack: true);
                for (var y = 0; y < 8; y++)
                {
                    for (var x = 0; x < 8; x++)
                        dots[(((row * 8) + y) * page.Width) + (column * 8) + x] = (byte)Math.Clamp(block[y, x] + 128, 0, 255);
                }
            }
        });
        return page with { Dots = dots };
    }

    private static readonly double[,] Cosines = CosinesOf();

    private static double[,] CosinesOf()
    {
        var cosines = new double[8, 8];
        for (var u = 0; u < 8; u++)
        {
            for (var x = 0; x < 8; x++)
                cosines[u, x] = (u == 0 ? Math.Sqrt(0.125) : 0.5) * Math.Cos(((2 * x) + 1) * u * Math.PI / 16);
        }
        return cosines;
    }

    private static void Transform(double[,] from, double[,] to, bool isBack)
    {
        var half = new double[8, 8];
        for (var a = 0; a < 8; a++)
        {
            for (var b = 0; b < 8; b++)
            {
                var sum = 0.0;
                for (var k = 0; k < 8; k++)
                    sum += from[a, k] * (isBack ? Cosines[k, b] : Cosines[b, k]);
                half[a, b] = sum;
            }
        }
        for (var a = 0; a < 8; a++)
        {
            for (var b = 0; b < 8; b++)
            {
                var sum = 0.0;
                for (var k = 0; k < 8; k++)
                    sum += half[k, b] * (isBack ? Cosines[k, a] : Cosines[a, k]);
                to[a, b] = sum;
            }
        }
    }

    private static GreyPicture Photo(GreyPicture page, int seed)
    {
        var random = new Random(seed);
        double Shift(double part) => (random.NextDouble() - 0.5) * 2 * part;
        var (width, height) = ((int)(page.Width * 1.1), (int)(page.Height * 1.1));
        var (left, top) = (width * 0.045, height * 0.045);
        // The corners of the paper in the picture.
        (double, double)[] corners =
        [
            (left + (Shift(0.02) * width), top + (Shift(0.015) * height)), (width - left + (Shift(0.02) * width), top + (Shift(0.015) * height)),
            (width - left + (Shift(0.02) * width), height - top + (Shift(0.015) * height)), (left + (Shift(0.02) * width), height - top + (Shift(0.015) * height)),
        ];
        var from = PlaneMap.OfCorners(page.Width, page.Height, corners).Back;
        var flat = page.Mapped(width, height, from, page.Dpi);
        var dots = new byte[flat.Dots.Length];
        var curl = 6 + (6 * random.NextDouble());
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var (onX, onY) = from.Of(x, y);
                if (onX < 0 || onY < 0 || onX >= page.Width || onY >= page.Height)
                {
                    // What it lies on: a dark table.
                    dots[(y * width) + x] = (byte)(52 + ((x * 7) + (y * 13)) % 9);
                    continue;
                }
                var lift = (int)(curl * Math.Sin(Math.PI * x / width));
                var shadow = 1 - (0.35 * Math.Clamp(((double)x / width) + ((double)y / height) - 1.1, 0, 0.6) / 0.6);
                dots[(y * width) + x] = (byte)Math.Clamp((flat.Dots[(Math.Clamp(y + lift, 0, height - 1) * width) + x] * 0.86 * shadow) + 14, 0, 255);
            }
        }
        return Grain(new GreyPicture(width, height, dots, page.Dpi), 5, seed);
    }

    private static GreyPicture Fax(GreyPicture page)
    {
        var coarse = page.Scaled((int)(page.Width * 204.0 / page.Dpi), (int)(page.Height * 98.0 / page.Dpi));
        var black = coarse with { Dots = [.. coarse.Dots.Select(dot => dot < 150 ? (byte)0 : (byte)255)] };
        // As a fax program hands it on: lines are drawn twice, so that dots are square.
        return black.Mapped(black.Width, black.Height * 204 / 98, new PlaneMap(1, 0, 0, 0, 98.0 / 204, 0), 204);
    }

    private static GreyPicture Stamped(GreyPicture page, int seed)
    {
        var random = new Random(seed);
        var dots = page.Dots.ToArray();
        var (middleX, middleY) = (page.Width * (0.35 + (0.4 * random.NextDouble())), page.Height * (0.3 + (0.4 * random.NextDouble())));
        // A ring and two bars of thin ink, then a pen's wave.
        for (var y = 0; y < page.Height; y++)
        {
            for (var x = 0; x < page.Width; x++)
            {
                var away = Math.Sqrt(((x - middleX) * (x - middleX)) + ((y - middleY) * (y - middleY))) / page.Dpi;
                var isStamp = away is > 0.62 and < 0.66 || (away < 0.6 && Math.Abs(Math.Abs(y - middleY) / page.Dpi - 0.12) < 0.012);
                var isPen = Math.Abs(x - middleX) < 1.2 * page.Dpi && Math.Abs(y - (middleY - (0.8 * page.Dpi)) - (0.12 * page.Dpi * Math.Sin(x / (0.11 * page.Dpi)))) < 2.5;
                if (isStamp || isPen)
                    dots[(y * page.Width) + x] = Math.Min(dots[(y * page.Width) + x], isPen ? (byte)60 : (byte)120);
            }
        }
        return page with { Dots = dots };
    }
}
