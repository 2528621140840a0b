namespace Daxlin.Reading.Pictures;

/// <summary>Reads binary portable graymaps (P5) and pixmaps (P6) of 8 bits, as programs that draw pages write them (https://netpbm.sourceforge.net/doc/pnm.html).</summary>
public static class Netpbm
{
    /// <returns>How wide and high it is, and its dots row by row: a byte each, or three for red, green and blue.</returns>
    public static (int Width, int Height, byte[] Dots) Read(ReadOnlySpan<byte> bytes)
    {
        // Width, height and the largest shade, each after blanks; one blank after the last.
        var (at, numbers) = (2, new int[3]);
        for (var number = 0; number < 3; number++)
        {
            while (char.IsWhiteSpace((char)bytes[at]))
                at++;
            while (char.IsAsciiDigit((char)bytes[at]))
                numbers[number] = (numbers[number] * 10) + bytes[at++] - '0';
        }
        return (numbers[0], numbers[1], bytes.Slice(at + 1, numbers[0] * numbers[1] * (bytes[1] == (byte)'6' ? 3 : 1)).ToArray());
    }
}
