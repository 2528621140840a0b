using System.IO.Compression;
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
            var output = inner is FlateFilter && owner.Inflated(input) is { } plain && !HasPredictor(streamDictionary)
                ? plain
                : inner.Decode(input, streamDictionary, filterProvider, filterIndex);
            owner.unpacked += output.Length;
            if (owner.unpacked > owner.Limits.DocumentBytes)
                throw owner.TooLarge(owner.Limits.DocumentBytes);
            return output;
        }
    }

    private ReadingLimits Limits => limits;

    /// <summary>Rows that are told as differences from the row before (ISO 32000-2, 7.4.4.4) are the library's.</summary>
    private static bool HasPredictor(DictionaryToken stream) =>
        stream.ContainsKey(NameToken.DecodeParms) || stream.ContainsKey(NameToken.Create("DP"));

    /// <summary>
    /// What packed bytes are, however long their stream says that they are: a font program's own statement of its length
    /// (<c>/Length1</c>) can be as false as any.
    /// </summary>
    /// <returns>Null where they are damaged: the library has its own ways with what can be read of them.</returns>
    private Memory<byte>? Inflated(Memory<byte> input)
    {
        using var packed = new MemoryStream(input.ToArray());
        using var plain = new ZLibStream(packed, CompressionMode.Decompress);
        // Deflate packs at most about 1:1032; what text and fonts come to is a third to a fifth.
        var output = new byte[Math.Min(Math.Max(4096, input.Length * 4L), limits.StreamBytes)];
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
        return output.AsMemory(0, length);
    }

    /// <summary>Why a stream was not unpacked; null if all were. The library goes on without a font that it could not load.</summary>
    public UnreadableException? Refusal { get; private set; }

    private UnreadableException TooLarge(long bytes) => Refusal = new UnreadableException(
        "too-large", $"The file unpacks to more than {bytes >> 20} MB, which no invoice needs; it was not read.");
}
