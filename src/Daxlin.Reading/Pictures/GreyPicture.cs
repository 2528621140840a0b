using Daxlin.Core.Pages;

namespace Daxlin.Reading.Pictures;

/// <summary>A picture of a page in shades of grey.</summary>
/// <param name="Dots">A byte a dot from the upper left, row by row: 0 is black, 255 white.</param>
/// <param name="Dpi">Dots an inch.</param>
public sealed record GreyPicture(int Width, int Height, byte[] Dots, double Dpi)
{
    /// <summary>Points of the page a dot.</summary>
    public double Point => 72 / Dpi;

    public ReadOnlySpan<byte> Row(int y) => Dots.AsSpan(y * Width, Width);

    /// <summary>What <see cref="PageRaster"/> drew in grey.</summary>
    public static GreyPicture OfPgm(ReadOnlySpan<byte> bytes, double dpi)
    {
        var (width, height, dots) = Netpbm.Read(bytes);
        return new GreyPicture(width, height, dots, dpi);
    }

    /// <summary>A part of it; what reaches beyond its edges is white.</summary>
    public GreyPicture Part(int left, int top, int width, int height)
    {
        var dots = new byte[width * height];
        Array.Fill(dots, (byte)255);
        var (from, to) = (Math.Max(0, left), Math.Min(Width, left + width));
        for (var y = Math.Max(0, top); y < Math.Min(Height, top + height) && from < to; y++)
            Row(y)[from..to].CopyTo(dots.AsSpan(((y - top) * width) + from - left));
        return new GreyPicture(width, height, dots, Dpi);
    }

    /// <summary>Turned so that what ran the given way runs upright.</summary>
    public GreyPicture Unturned(Drawn drawn)
    {
        if (drawn == Drawn.Upright)
            return this;
        var (width, height) = drawn == Drawn.UpsideDown ? (Width, Height) : (Height, Width);
        var dots = new byte[Dots.Length];
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var (fromX, fromY) = drawn switch
                {
                    Drawn.Downwards => (Width - 1 - y, x),
                    Drawn.Upwards => (y, Height - 1 - x),
                    _ => (Width - 1 - x, Height - 1 - y),
                };
                dots[(y * width) + x] = Dots[(fromY * Width) + fromX];
            }
        }
        return new GreyPicture(width, height, dots, Dpi);
    }

    /// <summary>A picture of which each dot is looked up in this one.</summary>
    /// <param name="from">Takes places of the new picture to places of this one.</param>
    public GreyPicture Mapped(int width, int height, PlaneMap from, double dpi)
    {
        var dots = new byte[width * height];
        Parallel.For(0, height, y =>
        {
            for (var x = 0; x < width; x++)
            {
                var (fromX, fromY) = from.Of(x + 0.5, y + 0.5);
                dots[(y * width) + x] = Between(fromX - 0.5, fromY - 0.5);
            }
        });
        return new GreyPicture(width, height, dots, dpi);
    }

    /// <summary>The shade at a place between dots, mixed of the four around it; beside the picture it is white.</summary>
    private byte Between(double x, double y)
    {
        var (left, top) = ((int)Math.Floor(x), (int)Math.Floor(y));
        if (left < -1 || top < -1 || left >= Width || top >= Height)
            return 255;
        var (right, low) = (x - left, y - top);
        var upper = (At(left, top) * (1 - right)) + (At(left + 1, top) * right);
        var lower = (At(left, top + 1) * (1 - right)) + (At(left + 1, top + 1) * right);
        return (byte)((upper * (1 - low)) + (lower * low) + 0.5);
    }

    private int At(int x, int y) => x < 0 || y < 0 || x >= Width || y >= Height ? 255 : Dots[(y * Width) + x];

    /// <summary>Scaled, each new dot the mean of those that fall into it.</summary>
    public GreyPicture Scaled(int width, int height)
    {
        if (width >= Width || height >= Height)
            return Mapped(width, height, new PlaneMap((double)Width / width, 0, 0, 0, (double)Height / height, 0), Dpi * width / Width);
        var dots = new byte[width * height];
        for (var y = 0; y < height; y++)
        {
            var (top, bottom) = ((int)((long)y * Height / height), (int)((long)(y + 1) * Height / height));
            for (var x = 0; x < width; x++)
            {
                var (left, right) = ((int)((long)x * Width / width), (int)((long)(x + 1) * Width / width));
                var sum = 0;
                for (var row = top; row < bottom; row++)
                {
                    foreach (var dot in Dots.AsSpan((row * Width) + left, right - left))
                        sum += dot;
                }
                dots[(y * width) + x] = (byte)(sum / ((bottom - top) * (right - left)));
            }
        }
        return new GreyPicture(width, height, dots, Dpi * width / Width);
    }
}
