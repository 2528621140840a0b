using System.Collections.Concurrent;
using System.Security.Cryptography;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>The font programs and character maps that documents share: a vendor's next invoice has those of its last one.</summary>
/// <remarks>They are known by a hash of their packed bytes, so what is known is not even unpacked.</remarks>
internal static class FontPrograms
{
    /// <summary>Characters and names kept, some 100 bytes each; when there are more, all are let go.</summary>
    private const int MostKept = 200_000;

    private static int kept;

    private static readonly ConcurrentDictionary<Int128, FontProgram> programs = [];
    private static readonly ConcurrentDictionary<Int128, CMap> maps = [];

    /// <summary>The program that is embedded with a font; a silent one if none is.</summary>
    /// <param name="descriptor">The font's.</param>
    public static FontProgram Of(DictionaryToken? descriptor, PdfObjects objects)
    {
        if (objects.Stream(descriptor, "FontFile2") is { } trueType)
            return Known(programs, trueType, objects, FontProgram.Damaged, bytes => SfntReader.Read(bytes.Span), program => program.Weight);
        if (objects.Stream(descriptor, "FontFile3") is { } compact)
            return Known(programs, compact, objects, FontProgram.Damaged, bytes => bytes.Span.StartsWith("OTTO"u8) || bytes.Span.StartsWith("\0\u0001\0\0"u8) ? SfntReader.Read(bytes.Span) : CffReader.Read(bytes.Span), program => program.Weight);
        return objects.Stream(descriptor, "FontFile") is { } type1 ? Known(programs, type1, objects, FontProgram.Damaged, bytes => Type1Reader.Read(bytes.Span), program => program.Weight) : FontProgram.Silent;
    }

    /// <summary>The character map of a stream.</summary>
    public static CMap MapOf(StreamToken stream, PdfObjects objects) => Known(maps, stream, objects, new CMap(), bytes => CMapReader.Read(bytes.Span, NamedCMaps.Find), map => map.Weight);

    /// <param name="damaged">Taken for one that cannot be unpacked or read: letters have their names and widths from elsewhere, as a rule.</param>
    private static T Known<T>(ConcurrentDictionary<Int128, T> known, StreamToken stream, PdfObjects objects, T damaged, Func<ReadOnlyMemory<byte>, T> read, Func<T, int> weigh)
        where T : class
    {
        Span<byte> hash = stackalloc byte[SHA256.HashSizeInBytes];
        SHA256.HashData(stream.Data.Span, hash);
        var key = BitConverter.ToInt128(hash);
        if (known.TryGetValue(key, out var same))
            return same;
        if (Damage.OrNull(() => read(objects.Unpack(stream))) is not { } made)
            return damaged;
        // Even what says nothing has a name to be kept by.
        if (Interlocked.Add(ref kept, weigh(made) + 1) > MostKept)
        {
            programs.Clear();
            maps.Clear();
            Interlocked.Exchange(ref kept, weigh(made) + 1);
        }
        return known[key] = made;
    }
}
