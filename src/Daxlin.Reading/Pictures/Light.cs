namespace Daxlin.Reading.Pictures;

/// <summary>Evens out the light over a page: paper becomes white wherever it lies in a shadow, ink keeps its distance from it.</summary>
internal static class Light
{
    /// <summary>The side of the squares of which the paper's shade is looked for, in inches: wider than a letter, narrower than a shadow.</summary>
    private const double Square = 0.16;

    /// <summary>Paper that is this light needs no evening out.</summary>
    private const int Bright = 245;

    public static GreyPicture Evened(GreyPicture page)
    {
        var side = Math.Max(8, (int)(Square * page.Dpi));
        var (columns, rows) = ((page.Width + side - 1) / side, (page.Height + side - 1) / side);
        var paper = Smoothed(PaperOf(page, side, columns, rows), columns, rows);
        if (paper.All(shade => shade >= Bright))
            return page;
        var dots = new byte[page.Dots.Length];
        Parallel.For(0, page.Height, y =>
        {
            // Between the middles of the squares the paper's shade goes over from one to the next.
            var down = Math.Clamp(((y + 0.5) / side) - 0.5, 0, rows - 1);
            var (upper, low) = ((int)down, down - Math.Floor(down));
            var lower = Math.Min(upper + 1, rows - 1);
            for (var x = 0; x < page.Width; x++)
            {
                var across = Math.Clamp(((x + 0.5) / side) - 0.5, 0, columns - 1);
                var (left, part) = ((int)across, across - Math.Floor(across));
                var right = Math.Min(left + 1, columns - 1);
                var above = (paper[(upper * columns) + left] * (1 - part)) + (paper[(upper * columns) + right] * part);
                var below = (paper[(lower * columns) + left] * (1 - part)) + (paper[(lower * columns) + right] * part);
                var shade = (above * (1 - low)) + (below * low);
                dots[(y * page.Width) + x] = (byte)Math.Min(255, page.Dots[(y * page.Width) + x] * 255 / Math.Max(1, shade));
            }
        });
        return page with { Dots = dots };
    }

    /// <summary>The shade that nine of ten dots of each square do not reach above: that of its paper.</summary>
    private static double[] PaperOf(GreyPicture page, int side, int columns, int rows)
    {
        var paper = new double[columns * rows];
        Parallel.For(0, rows, row =>
        {
            Span<int> counts = stackalloc int[256];
            for (var column = 0; column < columns; column++)
            {
                counts.Clear();
                var dots = 0;
                for (var y = row * side; y < Math.Min(page.Height, (row + 1) * side); y++)
                {
                    foreach (var dot in page.Row(y)[(column * side)..Math.Min(page.Width, (column + 1) * side)])
                    {
                        counts[dot]++;
                        dots++;
                    }
                }
                var (shade, above) = (255, counts[255]);
                while (above < dots / 10 && shade > 0)
                    above += counts[--shade];
                paper[(row * columns) + column] = shade;
            }
        });
        return paper;
    }

    /// <summary>A square that is all ink (a filled heading, a logo) has no paper of its own: it takes the median of the squares around.</summary>
    private static double[] Smoothed(double[] paper, int columns, int rows)
    {
        const int reach = 2;
        var smoothed = new double[paper.Length];
        Span<double> around = stackalloc double[((2 * reach) + 1) * ((2 * reach) + 1)];
        for (var row = 0; row < rows; row++)
        {
            for (var column = 0; column < columns; column++)
            {
                var count = 0;
                for (var y = Math.Max(0, row - reach); y <= Math.Min(rows - 1, row + reach); y++)
                {
                    for (var x = Math.Max(0, column - reach); x <= Math.Min(columns - 1, column + reach); x++)
                        around[count++] = paper[(y * columns) + x];
                }
                around[..count].Sort();
                smoothed[(row * columns) + column] = around[count * 3 / 4];
            }
        }
        return smoothed;
    }
}
