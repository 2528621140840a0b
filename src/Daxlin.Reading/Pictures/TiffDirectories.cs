using System.Buffers.Binary;

namespace Daxlin.Reading.Pictures;

/// <summary>Walks through the directories of a TIFF (TIFF 6.0, section 2): one a page.</summary>
internal static class TiffDirectories
{
    /// <summary>How many there are, at most <paramref name="most"/>: a chain that bites its own tail is endless.</summary>
    public static int Count(ReadOnlySpan<byte> bytes, int most)
    {
        var count = 0;
        for (var at = FirstOf(bytes); at > 0 && at <= bytes.Length - 6L && count < most; count++)
        {
            var entries = Number16(bytes, (int)at);
            var next = at + 2 + (12L * entries);
            at = next <= bytes.Length - 4 ? Number32(bytes, (int)next) : 0;
        }
        return count;
    }

    /// <summary>The value of a tag of the first directory that holds one small number; null if it is not there.</summary>
    public static int? ValueOf(ReadOnlySpan<byte> bytes, int tag)
    {
        var at = FirstOf(bytes);
        if (at <= 0 || at > bytes.Length - 6L)
            return null;
        for (var entry = 0; entry < Number16(bytes, (int)at); entry++)
        {
            var place = at + 2 + (12L * entry);
            if (place > bytes.Length - 12)
                return null;
            if (Number16(bytes, (int)place) == tag)
                return Number16(bytes, (int)place + 8);
        }
        return null;
    }

    private static long FirstOf(ReadOnlySpan<byte> bytes) => bytes.Length < 8 ? 0 : Number32(bytes, 4);

    private static bool IsLittle(ReadOnlySpan<byte> bytes) => bytes[0] == (byte)'I';

    private static int Number16(ReadOnlySpan<byte> bytes, int at) =>
        IsLittle(bytes) ? BinaryPrimitives.ReadUInt16LittleEndian(bytes[at..]) : BinaryPrimitives.ReadUInt16BigEndian(bytes[at..]);

    private static long Number32(ReadOnlySpan<byte> bytes, int at) =>
        IsLittle(bytes) ? BinaryPrimitives.ReadUInt32LittleEndian(bytes[at..]) : BinaryPrimitives.ReadUInt32BigEndian(bytes[at..]);
}
