using System.Buffers.Binary;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Pictures;

/// <summary>How a camera was held, as a JPEG, PNG or WebP says it (Exif 2.32, tag 274 of its first directory).</summary>
/// <remarks>Mirrored pictures, which no camera makes, are shown as they are.</remarks>
internal static class PhotoTurn
{
    private const int Orientation = 274;

    /// <summary>Which way text runs in the dots of a picture that is to be shown upright.</summary>
    public static Drawn Of(ReadOnlySpan<byte> bytes) => TiffDirectories.ValueOf(ExifOf(bytes), Orientation) switch
    {
        3 => Drawn.UpsideDown,
        6 => Drawn.Upwards,
        8 => Drawn.Downwards,
        _ => Drawn.Upright,
    };

    private static ReadOnlySpan<byte> ExifOf(ReadOnlySpan<byte> bytes) => PictureFile.KindOf(bytes) switch
    {
        "JPEG" => OfJpeg(bytes),
        "PNG" => OfChunks(bytes, 8, "eXIf"u8, isBig: true),
        "WebP" => OfChunks(bytes, 12, "EXIF"u8, isBig: false),
        _ => [],
    };

    /// <summary>Goes from marker to marker until the picture's own bytes begin (ITU-T T.81, B.1.1).</summary>
    private static ReadOnlySpan<byte> OfJpeg(ReadOnlySpan<byte> bytes)
    {
        for (var at = 2; at + 4 <= bytes.Length && bytes[at] == 0xFF && bytes[at + 1] is not (0xDA or 0xD9);)
        {
            var length = BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 2)..]);
            if (at + 2 + length > bytes.Length)
                break;
            if (bytes[at + 1] == 0xE1 && bytes[(at + 4)..(at + 2 + Math.Max(2, (int)length))].StartsWith("Exif\0\0"u8))
                return bytes[(at + 10)..(at + 2 + length)];
            at += 2 + length;
        }
        return [];
    }

    /// <summary>Goes from chunk to chunk: PNG has the length before the name and a check behind, WebP the length behind the name and even.</summary>
    private static ReadOnlySpan<byte> OfChunks(ReadOnlySpan<byte> bytes, int at, ReadOnlySpan<byte> name, bool isBig)
    {
        while (at + 8 <= bytes.Length)
        {
            var length = isBig ? BinaryPrimitives.ReadUInt32BigEndian(bytes[at..]) : BinaryPrimitives.ReadUInt32LittleEndian(bytes[(at + 4)..]);
            if (length > bytes.Length - at - 8)
                break;
            if (bytes.Slice(isBig ? at + 4 : at, 4).SequenceEqual(name))
                return bytes.Slice(at + 8, (int)length) is var own && own.StartsWith("Exif\0\0"u8) ? own[6..] : own;
            at += 8 + (int)length + (isBig ? 4 : (int)(length & 1));
        }
        return [];
    }
}
