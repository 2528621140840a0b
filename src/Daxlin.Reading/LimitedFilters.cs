using System.Buffers.Binary;
using System.IO.Compression;
using System.Runtime.InteropServices;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading;

/// <summary>The PDF library's own filters, with a stop on streams that unpack without end.</summary>
internal sealed class LimitedFilters(ReadingLimits limits) : IFilterProvider
{
    private long unpacked;
    private long unpackedApart;

    public IReadOnlyList<IFilter> GetFilters(DictionaryToken dictionary) => Wrap(DefaultFilterProvider.Instance.GetFilters(dictionary));

    public IReadOnlyList<IFilter> GetNamedFilters(IReadOnlyList<NameToken> names) =>
        Wrap(DefaultFilterProvider.Instance.GetNamedFilters(names));

    public IReadOnlyList<IFilter> GetAllFilters() => Wrap(DefaultFilterProvider.Instance.GetAllFilters());

    private IFilter[] Wrap(IReadOnlyList<IFilter> filters) => [.. filters.Select(filter => new Limited(filter, this))];

    private sealed class Limited(IFilter inner, LimitedFilters owner) : IFilter
    {
        public bool IsSupported => inner.IsSupported;

        public Memory<byte> Decode(
            Memory<byte> input, DictionaryToken streamDictionary, IFilterProvider filterProvider, int filterIndex)
        {
            var output = inner is FlateFilter && !HasPredictor(streamDictionary) && owner.Inflated(input) is { } plain
                ? plain.ToArray()
                : inner.Decode(input, streamDictionary, filterProvider, filterIndex);
            owner.Count(output.Length);
            return output;
        }
    }

    /// <summary>Unpacks what a document can be read without, a picture: beyond the limits it is not there, and the limits of all else stay as they were.</summary>
    public T? Apart<T>(Func<T?> unpack)
        where T : class
    {
        var (before, refusal) = (unpacked, Refusal);
        unpacked = unpackedApart;
        try
        {
            return Damage.OrNull(unpack);
        }
        catch (UnreadableException)
        {
            return null;
        }
        finally
        {
            (unpackedApart, unpacked, Refusal) = (unpacked, before, refusal);
        }
    }

    /// <summary>Counts bytes that were unpacked.</summary>
    /// <exception cref="UnreadableException">They are too many.</exception>
    public void Count(int bytes)
    {
        unpacked += bytes;
        if (unpacked > limits.DocumentBytes)
            throw TooLarge(limits.DocumentBytes);
    }

    /// <summary>Unpacks a stream that is packed in the one usual way, into bytes that are good until the thread unpacks the next.</summary>
    /// <returns>Null for one that is packed otherwise, or damaged: the library has its ways with it.</returns>
    public ReadOnlyMemory<byte>? Plainly(StreamToken stream)
    {
        var dictionary = stream.StreamDictionary;
        if (!dictionary.TryGet(NameToken.Filter, out var filter) || filter is not (NameToken { Data: "FlateDecode" } or ArrayToken { Data: [NameToken { Data: "FlateDecode" }] }) || HasPredictor(dictionary)
            || Inflated(stream.Data) is not { } plain)
            return null;
        Count(plain.Length);
        return plain;
    }

    /// <summary>Rows that are told as differences from the row before (ISO 32000-2, 7.4.4.4) are the library's.</summary>
    private static bool HasPredictor(DictionaryToken stream) =>
        stream.ContainsKey(NameToken.DecodeParms) || stream.ContainsKey(NameToken.Create("DP"));

    /// <summary>
    /// What packed bytes are, however long their stream says that they are: a font program's own statement of its length
    /// (<c>/Length1</c>) can be as false as any.
    /// </summary>
    /// <returns>
    /// Good until the thread unpacks the next: a page's content is large, and gone in a millisecond. Null where they are damaged: the
    /// library has its own ways with what can be read of them.
    /// </returns>
    private ReadOnlyMemory<byte>? Inflated(Memory<byte> input)
    {
        ReadOnlyMemory<byte>? output;
        try
        {
            output = Unpacked(new ZLibStream(StreamOf(input), CompressionMode.Decompress));
        }
        catch (InvalidDataException)
        {
            // Its head or its sum may be wrong, and the bytes between them whole.
            output = input.Length > Head ? Bare(input[Head..]) : null;
        }
        HasCut |= output is not { } plain || !(EndsWithSum(input.Span, plain.Span) || IsWithoutSum(input));
        return output;
    }

    /// <summary>Bytes of the format's own before the packed ones, and the sum behind them (RFC 1950).</summary>
    private const int Head = 2, Sum = 4;

    /// <summary>Unpacks bytes without head and sum.</summary>
    /// <returns>Null where they are damaged.</returns>
    private ReadOnlyMemory<byte>? Bare(ReadOnlyMemory<byte> packed)
    {
        try
        {
            return Unpacked(new DeflateStream(StreamOf(packed), CompressionMode.Decompress));
        }
        catch (InvalidDataException)
        {
            return null;
        }
    }

    private ReadOnlyMemory<byte> Unpacked(Stream plain)
    {
        using var _ = plain;
        var output = kept ??= new byte[FirstKept];
        var length = 0;
        for (int read; (read = plain.Read(output, length, output.Length - length)) > 0;)
        {
            length += read;
            if (length < output.Length)
                continue;
            if (length >= limits.StreamBytes)
                throw TooLarge(limits.StreamBytes);
            Array.Resize(ref output, (int)Math.Min(output.Length * 2L, limits.StreamBytes));
        }
        if (output.Length <= MostKept)
            kept = output;
        return output.AsMemory(0, length);
    }

    /// <summary>Says that a stream was unpacked whose packed bytes are damaged, or end before it does: what came of it is a part, or another.</summary>
    public bool HasCut { get; set; }

    private static MemoryStream StreamOf(ReadOnlyMemory<byte> bytes) =>
        MemoryMarshal.TryGetArray(bytes, out var segment) ? new MemoryStream(segment.Array!, segment.Offset, segment.Count) : new MemoryStream(bytes.ToArray());

    /// <summary>Says that the sum over all bytes stands behind the packed ones (RFC 1950, Adler-32).</summary>
    private static bool EndsWithSum(ReadOnlySpan<byte> packed, ReadOnlySpan<byte> plain)
    {
        const int Most = 5552;
        var (low, high) = (1u, 0u);
        for (var at = 0; at < plain.Length; at += Most)
        {
            foreach (var value in plain[at..Math.Min(plain.Length, at + Most)])
            {
                low += value;
                high += low;
            }
            (low, high) = (low % 65521, high % 65521);
        }
        Span<byte> sum = stackalloc byte[Sum];
        BinaryPrimitives.WriteUInt32BigEndian(sum, (high << 16) | low);
        // Behind it may stand an end of line, or whatever fills a block.
        return packed[^Math.Min(packed.Length, Filling)..].IndexOf(sum) >= 0;
    }

    /// <summary>Bytes that may follow a stream's own.</summary>
    private const int Filling = 4096;

    /// <summary>Says that packed bytes are whole but for their sum, which some programs leave out. A sum that is there and wrong is damage: a figure may be another.</summary>
    private static bool IsWithoutSum(ReadOnlyMemory<byte> input) => EndsByItself(input.Span) && !EndsByItself(input.Span[..^Math.Min(Sum, input.Length)]);

    /// <summary>Says that packed bytes come to an end by themselves: whatever follows makes nothing more of them.</summary>
    private static bool EndsByItself(ReadOnlySpan<byte> packed)
    {
        if (packed.Length <= Head)
            return false;
        var longer = new byte[packed.Length + 64];
        packed.CopyTo(longer);
        longer.AsSpan(packed.Length).Fill(0x55);
        return LengthOf(longer[Head..packed.Length]) is { } length && LengthOf(longer[Head..]) == length;
    }

    /// <returns>How many bytes come of packed ones; null where they are damaged.</returns>
    private static long? LengthOf(byte[] packed)
    {
        using var plain = new DeflateStream(new MemoryStream(packed), CompressionMode.Decompress);
        var (buffer, length) = (new byte[4096], 0L);
        try
        {
            for (int read; (read = plain.Read(buffer)) > 0;)
                length += read;
            return length;
        }
        catch (InvalidDataException)
        {
            return null;
        }
    }

    /// <summary>Bytes kept for the thread's next stream.</summary>
    private const int FirstKept = 128 << 10, MostKept = 4 << 20;

    [ThreadStatic]
    private static byte[]? kept;

    /// <summary>Why a stream was not unpacked; null if all were. The library goes on without a font that it could not load.</summary>
    public UnreadableException? Refusal { get; private set; }

    private UnreadableException TooLarge(long bytes) => Refusal = new UnreadableException(
        "too-large", $"The file unpacks to more than {bytes >> 20} MB, which no invoice needs; it was not read.");
}
