using UglyToad.PdfPig.Core;

namespace Daxlin.Reading.Drawing;

/// <summary>A picture's points, where they can be read: eight bits a part, grey or red, green and blue.</summary>
/// <param name="Samples">Row by row from its top; null where they are packed in a way that is not read here.</param>
/// <param name="Parts">1 for grey, 3 for red, green and blue.</param>
/// <param name="Placed">Takes the unit square to where the picture stands.</param>
internal sealed record Picture(ReadOnlyMemory<byte>? Samples, int Width, int Height, int Parts, TransformationMatrix Placed)
{
    /// <summary>Looked at are so many points across and down.</summary>
    private const int Looks = 5;

    /// <summary>Of the type's size, from the first point to the last.</summary>
    private const double Reach = 0.6;

    /// <summary>Says that a letter on it is not told from it: most of what lies around the letter's middle has its colour.</summary>
    /// <remarks>A white figure over a picture of printed text meets ink here and there, and is not read for that.</remarks>
    public bool Swallows(Ink ink, PdfPoint middle, double size)
    {
        var (alike, read) = (0, 0);
        for (var look = 0; look < Looks * Looks; look++)
        {
            var (across, up) = (((look % Looks) / (Looks - 1.0)) - 0.5, ((look / Looks) / (Looks - 1.0)) - 0.5);
            if (InkAt(new PdfPoint(middle.X + (across * Reach * size), middle.Y + (up * Reach * size))) is not { } there)
                continue;
            read++;
            alike += there.LooksLike(ink) ? 1 : 0;
        }
        return 2 * alike > read;
    }

    private Ink? InkAt(PdfPoint point)
    {
        var area = (Placed.A * Placed.D) - (Placed.B * Placed.C);
        if (Samples is not { } samples || Math.Abs(area) < 1e-9)
            return null;
        var (x, y) = (point.X - Placed.E, point.Y - Placed.F);
        var column = (int)(((Placed.D * x) - (Placed.C * y)) / area * Width);
        var row = (int)((1 - (((Placed.A * y) - (Placed.B * x)) / area)) * Height);
        if (column < 0 || column >= Width || row < 0 || row >= Height)
            return null;
        var at = ((row * Width) + column) * Parts;
        var span = samples.Span;
        return Parts == 1 ? new Ink(span[at] / 255.0, span[at] / 255.0, span[at] / 255.0) : new Ink(span[at] / 255.0, span[at + 1] / 255.0, span[at + 2] / 255.0);
    }
}
