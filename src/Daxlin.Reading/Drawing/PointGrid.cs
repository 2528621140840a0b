namespace Daxlin.Reading.Drawing;

/// <summary>The points of a picture as numbers, row by row from the top; each row begins with a whole byte.</summary>
/// <param name="Parts">Numbers a point has.</param>
/// <param name="Bits">Of a number: 1, 2, 4, 8 or 16.</param>
/// <param name="Low">What a number without a bit means, for each part.</param>
/// <param name="High">What one with all its bits means.</param>
internal sealed record PointGrid(ReadOnlyMemory<byte> Bytes, int Width, int Height, int Parts, int Bits, double[] Low, double[] High)
{
    /// <summary>How many bytes it must have.</summary>
    public long Length => Row * Height;

    private long Row => (((long)Width * Parts * Bits) + 7) / 8;

    /// <summary>Reads the point at a place.</summary>
    /// <param name="across">From its left, of its width.</param>
    /// <param name="down">From its top, of its height.</param>
    /// <param name="into">One number for each part.</param>
    /// <returns>False beside it.</returns>
    public bool Read(double across, double down, Span<double> into)
    {
        if (across is not (>= 0 and < 1) || down is not (>= 0 and < 1))
            return false;
        var row = Bytes.Span[(int)(Row * (int)(down * Height))..];
        var first = (int)(across * Width) * Parts;
        for (var part = 0; part < Parts; part++)
        {
            var bit = (long)(first + part) * Bits;
            var number = Bits == 16 ? (row[(int)(bit / 8)] << 8) | row[(int)(bit / 8) + 1] : (row[(int)(bit / 8)] >> (8 - Bits - (int)(bit % 8))) & ((1 << Bits) - 1);
            into[part] = Low[part] + (number * (High[part] - Low[part]) / ((1 << Bits) - 1));
        }
        return true;
    }
}
