using System.Buffers.Binary;

namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>Numbers with their higher bytes first; 0 beyond the end, since a font's own offsets can be as false as any.</summary>
internal static class BigEndian
{
    public static int Short(ReadOnlySpan<byte> bytes, long at) => at >= 0 && at + 2 <= bytes.Length ? BinaryPrimitives.ReadUInt16BigEndian(bytes[(int)at..]) : 0;

    public static long Long(ReadOnlySpan<byte> bytes, long at) => at >= 0 && at + 4 <= bytes.Length ? BinaryPrimitives.ReadUInt32BigEndian(bytes[(int)at..]) : 0;

    public static int Byte(ReadOnlySpan<byte> bytes, long at) => at >= 0 && at < bytes.Length ? bytes[(int)at] : 0;
}
