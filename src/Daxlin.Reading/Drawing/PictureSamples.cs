namespace Daxlin.Reading.Drawing;

/// <summary>A picture's points where they can be read: eight bits a part, grey or red, green and blue.</summary>
/// <param name="Bytes">Row by row from the top.</param>
/// <param name="Parts">1 for grey, 3 for red, green and blue.</param>
internal sealed record PictureSamples(ReadOnlyMemory<byte> Bytes, int Width, int Height, int Parts)
{
    /// <param name="across">From its left, of its width.</param>
    /// <param name="down">From its top, of its height.</param>
    /// <returns>Null beside it.</returns>
    public Ink? At(double across, double down)
    {
        if (across is < 0 or >= 1 || down is < 0 or >= 1)
            return null;
        var point = Bytes.Span.Slice((((int)(down * Height) * Width) + (int)(across * Width)) * Parts, Parts);
        return Parts == 1 ? new Ink(point[0] / 255.0, point[0] / 255.0, point[0] / 255.0) : new Ink(point[0] / 255.0, point[1] / 255.0, point[2] / 255.0);
    }
}
