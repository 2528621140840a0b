using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Service.Trial;

/// <summary>A picture in dots, to draw thin frames and small figures on.</summary>
internal sealed class Picture(int width, int height, byte[] dots)
{
    /// <summary>Figures of three by five dots, a row in three bits, from the top.</summary>
    private static readonly int[] Figures = [0b111101101101111, 0b010110010010111, 0b111001111100111, 0b111001111001111, 0b101101111001001, 0b111100111001111, 0b111100111101111, 0b111001001001001, 0b111101111101111, 0b111101111001111];

    public int Width => width;

    public int Height => height;

    /// <summary>What <see cref="PageRaster"/> drew in colours.</summary>
    public static Picture OfPpm(byte[] bytes)
    {
        var (width, height, dots) = Netpbm.Read(bytes);
        return new Picture(width, height, dots);
    }

    /// <summary>Draws the outline of a box, in dots.</summary>
    public void Frame(Box box, (byte Red, byte Green, byte Blue) colour)
    {
        var (left, top, right, bottom) = ((int)box.Left, (int)box.Top, (int)box.Right, (int)box.Bottom);
        for (var x = left; x <= right; x++)
        {
            Dot(x, top, colour);
            Dot(x, bottom, colour);
        }
        for (var y = top; y <= bottom; y++)
        {
            Dot(left, y, colour);
            Dot(right, y, colour);
        }
    }

    /// <summary>Writes a number in small figures, twice as large as they are defined.</summary>
    public void Number(int number, int left, int top, (byte, byte, byte) colour)
    {
        foreach (var (figure, index) in number.ToString(System.Globalization.CultureInfo.InvariantCulture).Select((c, index) => (c - '0', index)))
        {
            for (var bit = 0; bit < 15; bit++)
            {
                if ((Figures[figure] >> (14 - bit) & 1) == 1)
                    Frame(new Box(left + index * 8 + bit % 3 * 2, top + bit / 3 * 2, left + index * 8 + bit % 3 * 2 + 1, top + bit / 3 * 2 + 1), colour);
            }
        }
    }

    private void Dot(int x, int y, (byte Red, byte Green, byte Blue) colour)
    {
        if (x < 0 || y < 0 || x >= width || y >= height)
            return;
        var at = (y * width + x) * 3;
        (dots[at], dots[at + 1], dots[at + 2]) = colour;
    }

    public byte[] ToPng() => PngFile.Of(width, height, dots);
}
