namespace Daxlin.Reading.Drawing;

/// <summary>A picture where it stands on the page.</summary>
/// <param name="Content">What it shows, unpacked when a letter stands on or under it only: most pictures are logos, and a photograph has megabytes.</param>
/// <param name="Placed">Takes the unit square to where the picture stands.</param>
internal sealed record Picture(Lazy<PictureContent> Content, Matrix Placed)
{
    /// <summary>Looked at are so many points across and down.</summary>
    private const int Looks = 5;

    /// <summary>Of the type's size, from the first point to the last.</summary>
    private const double Reach = 0.6;

    /// <summary>Says that a letter on it is not told from it: most of what lies around the letter's middle has its colour.</summary>
    /// <remarks>A white figure over a picture of printed text meets ink here and there, and is not read for that.</remarks>
    /// <param name="mixing">How the letter comes together with it.</param>
    /// <param name="tint">What lies over the picture adds so much.</param>
    /// <param name="left">What lies over it lets so much through.</param>
    /// <returns>Null where its colours are not read.</returns>
    public bool? Swallows(Ink ink, Mixing mixing, Point middle, double size, Ink tint, Ink left)
    {
        var (alike, read) = (0, 0);
        for (var look = 0; look < Looks * Looks; look++)
        {
            var (across, down) = Within(PlaceOf(look, middle, size));
            if (Content.Value.InkAt(across, down) is not { } own)
                continue;
            read++;
            var there = tint.With(own, left);
            alike += there.LooksLike(ink.On(there, mixing)) ? 1 : 0;
        }
        return read == 0 ? null : 2 * alike > read;
    }

    /// <summary>How much it hides of what lies under it around a letter's middle, from 0 to 1; null where nobody can tell.</summary>
    /// <remarks>A stroke of a signature that crosses a letter hides a part of it, which is read all the same.</remarks>
    public double? CoverAround(Point middle, double size)
    {
        if (Content.Value.IsUntold)
            return null;
        var (sum, within) = (0.0, 0);
        for (var look = 0; look < Looks * Looks; look++)
        {
            var (across, down) = Within(PlaceOf(look, middle, size));
            if (Content.Value.CoverAt(across, down) is not { } cover)
                continue;
            sum += cover;
            within++;
        }
        return within == 0 ? 0 : sum / within;
    }

    private static Point PlaceOf(int look, Point middle, double size)
    {
        var (across, up) = (((look % Looks) / (Looks - 1.0)) - 0.5, ((look / Looks) / (Looks - 1.0)) - 0.5);
        return new Point(middle.X + (across * Reach * size), middle.Y + (up * Reach * size));
    }

    private (double Across, double Down) Within(Point point)
    {
        var area = (Placed.A * Placed.D) - (Placed.B * Placed.C);
        if (Math.Abs(area) < 1e-9)
            return (-1, -1);
        var (x, y) = (point.X - Placed.E, point.Y - Placed.F);
        return (((Placed.D * x) - (Placed.C * y)) / area, 1 - (((Placed.A * y) - (Placed.B * x)) / area));
    }
}
