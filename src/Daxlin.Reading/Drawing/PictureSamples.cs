using UglyToad.PdfPig;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>A picture's points where they can be read: eight bits a part, grey or red, green and blue.</summary>
/// <param name="Bytes">Row by row from the top.</param>
/// <param name="Parts">1 for grey, 3 for red, green and blue.</param>
internal sealed record PictureSamples(ReadOnlyMemory<byte> Bytes, int Width, int Height, int Parts)
{
    /// <returns>Null where they are packed as a photograph, or have other than eight bits a part.</returns>
    public static PictureSamples? Of(StreamToken stream, IPdfTokenScanner scanner, ILookupFilterProvider filters)
    {
        var dictionary = stream.StreamDictionary;
        if (!dictionary.TryGet<NumericToken>(NameToken.Width, scanner, out var width) || !dictionary.TryGet<NumericToken>(NameToken.Height, scanner, out var height)
            || !dictionary.TryGet<NumericToken>(NameToken.BitsPerComponent, scanner, out var bits) || bits.Int != 8 || width.Int <= 0 || height.Int <= 0
            || (dictionary.TryGet(NameToken.Filter, out var filter) && filter is not NameToken { Data: "FlateDecode" or "ASCIIHexDecode" or "ASCII85Decode" or "LZWDecode" or "RunLengthDecode" }))
            return null;
        var bytes = stream.Decode(filters, scanner);
        var points = (long)width.Int * height.Int;
        return bytes.Length == points ? new PictureSamples(bytes, width.Int, height.Int, 1) : bytes.Length == 3 * points ? new PictureSamples(bytes, width.Int, height.Int, 3) : null;
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
