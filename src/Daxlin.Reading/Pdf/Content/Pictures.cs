using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Syntax;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What pictures say of themselves (ISO 32000-2, 8.9).</summary>
internal static class Pictures
{
    /// <returns>Null where they are packed as a photograph, or have other than eight bits a part.</returns>
    public static PictureSamples? SamplesOf(StreamToken stream, PdfObjects objects)
    {
        var dictionary = stream.StreamDictionary;
        if (objects.Number(dictionary, "BitsPerComponent") != 8 || objects.Number(dictionary, "Width") is not (>= 1 and < int.MaxValue and var width) || objects.Number(dictionary, "Height") is not (>= 1 and < int.MaxValue and var height)
            || objects.Get(dictionary, "Filter") is not (null or NameToken { Data: "FlateDecode" or "ASCIIHexDecode" or "ASCII85Decode" or "LZWDecode" or "RunLengthDecode" }))
            return null;
        var bytes = objects.Unpack(stream);
        var points = (long)width * (long)height;
        return bytes.Length == points ? new PictureSamples(bytes, (int)width, (int)height, 1) : bytes.Length == 3 * points ? new PictureSamples(bytes, (int)width, (int)height, 3) : null;
    }

    /// <summary>Reads the entries of a picture that stands in the content itself (8.9.7).</summary>
    /// <returns>How many bytes follow, null where they are packed or nothing says; and whether it is a mask, which lets through what lies under it.</returns>
    public static (int? Length, bool IsMask) Within(Operands operands, ReadOnlySpan<byte> content)
    {
        double width = 0, height = 0, bits = 8, parts = 0;
        bool isPacked = false, isMask = false;
        for (var index = 0; index + 1 < operands.Count; index++)
        {
            var (key, value) = (operands.All[index], operands.All[index + 1]);
            if (key.Kind != OperandKind.Name)
                continue;
            var name = operands.BytesOf(key, content);
            var said = operands.BytesOf(value, content);
            if (IsAny(name, "W"u8, "Width"u8))
                width = value.Number;
            else if (IsAny(name, "H"u8, "Height"u8))
                height = value.Number;
            else if (IsAny(name, "BPC"u8, "BitsPerComponent"u8))
                bits = value.Number;
            else if (IsAny(name, "IM"u8, "ImageMask"u8))
                isMask = said.SequenceEqual("true"u8);
            else if (IsAny(name, "F"u8, "Filter"u8))
                isPacked = true;
            else if (IsAny(name, "CS"u8, "ColorSpace"u8))
                parts = PartsOf(said);
        }
        var bytes = Math.Ceiling(width * (isMask ? 1 : bits * parts) / 8) * height;
        return (isPacked || bytes is not (> 0 and < int.MaxValue) ? null : (int)bytes, isMask);
    }

    private static bool IsAny(ReadOnlySpan<byte> name, ReadOnlySpan<byte> brief, ReadOnlySpan<byte> whole) => name.SequenceEqual(brief) || name.SequenceEqual(whole);

    /// <summary>How many numbers a point has; 0 for a space that has a name of its own.</summary>
    private static int PartsOf(ReadOnlySpan<byte> space) =>
        IsAny(space, "G"u8, "DeviceGray"u8) || IsAny(space, "I"u8, "Indexed"u8) ? 1 : IsAny(space, "RGB"u8, "DeviceRGB"u8) ? 3 : IsAny(space, "CMYK"u8, "DeviceCMYK"u8) ? 4 : 0;
}
