using System.IO.Compression;
using System.Runtime.InteropServices;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading;

/// <summary>The PDF library's own filters, with a stop on streams that unpack without end.</summary>
internal sealed class LimitedFilters(ReadingLimits limits) : IFilterProvider
{
    private long unpacked;

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

    private void Count(int bytes)
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
        using var packed = MemoryMarshal.TryGetArray<byte>(input, out var segment) ? new MemoryStream(segment.Array!, segment.Offset, segment.Count) : new MemoryStream(input.ToArray());
        using var plain = new ZLibStream(packed, CompressionMode.Decompress);
        var output = kept ??= new byte[FirstKept];
        var length = 0;
        try
        {
            for (int read; (read = plain.Read(output, length, output.Length - length)) > 0;)
            {
                length += read;
                if (length < output.Length)
                    continue;
                if (length >= limits.StreamBytes)
                    throw TooLarge(limits.StreamBytes);
                Array.Resize(ref output, (int)Math.Min(output.Length * 2L, limits.StreamBytes));
            }
        }
        catch (InvalidDataException)
        {
            return null;
        }
        if (output.Length <= MostKept)
            kept = output;
        return output.AsMemory(0, length);
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
