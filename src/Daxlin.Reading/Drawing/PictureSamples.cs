using Daxlin.Reading.Pdf;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>A picture's points where they can be read: eight bits a part, grey or red, green and blue.</summary>
/// <param name="Bytes">Row by row from the top.</param>
/// <param name="Parts">1 for grey, 3 for red, green and blue.</param>
internal sealed record PictureSamples(ReadOnlyMemory<byte> Bytes, int Width, int Height, int Parts)
{
    /// <returns>Null where they are packed as a photograph, or have other than eight bits a part.</returns>
    public static PictureSamples? Of(StreamToken stream, PdfObjects objects)
    {
        var dictionary = stream.StreamDictionary;
        if (objects.Number(dictionary, "BitsPerComponent") != 8 || objects.Number(dictionary, "Width") is not (>= 1 and < int.MaxValue and var width) || objects.Number(dictionary, "Height") is not (>= 1 and < int.MaxValue and var height)
            || objects.Get(dictionary, "Filter") is not (null or NameToken { Data: "FlateDecode" or "ASCIIHexDecode" or "ASCII85Decode" or "LZWDecode" or "RunLengthDecode" }))
            return null;
        var bytes = objects.Unpack(stream);
        var points = (long)width * (long)height;
        return bytes.Length == points ? new PictureSamples(bytes, (int)width, (int)height, 1) : bytes.Length == 3 * points ? new PictureSamples(bytes, (int)width, (int)height, 3) : null;
    }

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
