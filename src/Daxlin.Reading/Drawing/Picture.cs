namespace Daxlin.Reading.Drawing;

/// <summary>A picture where it stands on the page.</summary>
/// <param name="Samples">Its points, unpacked when a letter stands on it only: most pictures are logos, and a photograph has megabytes.</param>
/// <param name="Placed">Takes the unit square to where the picture stands.</param>
internal sealed record Picture(Lazy<PictureSamples?> Samples, Matrix Placed)
{
    /// <summary>Looked at are so many points across and down.</summary>
    private const int Looks = 5;

    /// <summary>Of the type's size, from the first point to the last.</summary>
    private const double Reach = 0.6;

    /// <summary>Says that a letter on it is not told from it: most of what lies around the letter's middle has its colour.</summary>
    /// <remarks>A white figure over a picture of printed text meets ink here and there, and is not read for that.</remarks>
    public bool Swallows(Ink ink, Point middle, double size)
    {
        var (alike, read) = (0, 0);
        for (var look = 0; look < Looks * Looks; look++)
        {
            var (across, up) = (((look % Looks) / (Looks - 1.0)) - 0.5, ((look / Looks) / (Looks - 1.0)) - 0.5);
            if (InkAt(new Point(middle.X + (across * Reach * size), middle.Y + (up * Reach * size))) is not { } there)
                continue;
            read++;
            alike += there.LooksLike(ink) ? 1 : 0;
        }
        return 2 * alike > read;
    }

    private Ink? InkAt(Point point)
    {
        var area = (Placed.A * Placed.D) - (Placed.B * Placed.C);
        if (Math.Abs(area) < 1e-9 || Samples.Value is not { } samples)
            return null;
        var (x, y) = (point.X - Placed.E, point.Y - Placed.F);
        return samples.At(((Placed.D * x) - (Placed.C * y)) / area, 1 - (((Placed.A * y) - (Placed.B * x)) / area));
    }
}
