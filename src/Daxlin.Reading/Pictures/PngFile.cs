using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace Daxlin.Reading.Pictures;

/// <summary>Writes pictures as PNG (ISO/IEC 15948): 8 bits, no filter.</summary>
public static class PngFile
{
    /// <param name="dots">Row by row, a byte for each dot in grey, or three for red, green and blue.</param>
    public static byte[] Of(int width, int height, byte[] dots)
    {
        var isGrey = dots.Length == width * height;
        var row = isGrey ? width : width * 3;
        var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
        {
            for (var y = 0; y < height; y++)
            {
                zlib.WriteByte(0);
                zlib.Write(dots, y * row, row);
            }
        }
        var header = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(header, width);
        BinaryPrimitives.WriteInt32BigEndian(header.AsSpan(4), height);
        (header[8], header[9]) = (8, (byte)(isGrey ? 0 : 2));
        return [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, .. Chunk("IHDR", header), .. Chunk("IDAT", packed.ToArray()), .. Chunk("IEND", [])];
    }

    private static byte[] Chunk(string type, byte[] data)
    {
        var body = new byte[data.Length + 12];
        BinaryPrimitives.WriteInt32BigEndian(body, data.Length);
        Encoding.ASCII.GetBytes(type).CopyTo(body, 4);
        data.CopyTo(body, 8);
        BinaryPrimitives.WriteUInt32BigEndian(body.AsSpan(data.Length + 8), Crc(body.AsSpan(4, data.Length + 4)));
        return body;
    }

    /// <summary>CRC-32 as PNG has it (ISO 3309).</summary>
    private static uint Crc(ReadOnlySpan<byte> bytes)
    {
        var crc = 0xFFFFFFFFu;
        foreach (var one in bytes)
        {
            crc ^= one;
            for (var bit = 0; bit < 8; bit++)
                crc = (crc & 1) == 1 ? 0xEDB88320u ^ (crc >> 1) : crc >> 1;
        }
        return ~crc;
    }
}
