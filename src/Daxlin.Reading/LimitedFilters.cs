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
            // A font program states its length and is read whole by the library anyway; a false statement of a hostile
            // file is caught by the sum of what was unpacked.
            if (inner is FlateFilter && !streamDictionary.ContainsKey(NameToken.Create("Length1")))
                owner.RefuseEndless(input);
            var output = inner.Decode(input, streamDictionary, filterProvider, filterIndex);
            owner.unpacked += output.Length;
            if (owner.unpacked > owner.Limits.DocumentBytes)
                throw TooLarge(owner.Limits.DocumentBytes);
            return output;
        }
    }

    private ReadingLimits Limits => limits;

    /// <summary>Unpacks a suspicious stream once without keeping it, to see how large it becomes.</summary>
    private void RefuseEndless(Memory<byte> input)
    {
        // Deflate packs at most about 1:1032, so a stream this small cannot pass the limit.
        if (input.Length * 1032L <= limits.StreamBytes)
            return;
        var seen = 0L;
        var buffer = new byte[81920];
        try
        {
            using var packed = new MemoryStream(input.ToArray());
            using var plain = new System.IO.Compression.ZLibStream(packed, System.IO.Compression.CompressionMode.Decompress);
            for (int read; (read = plain.Read(buffer)) > 0;)
            {
                seen += read;
                if (seen > limits.StreamBytes)
                    throw TooLarge(limits.StreamBytes);
            }
        }
        catch (InvalidDataException)
        {
            // Damaged data ends early; the library has its own ways with it.
        }
    }

    private static UnreadableException TooLarge(long bytes) => new(
        "too-large", $"The file unpacks to more than {bytes >> 20} MB, which no invoice needs; it was not read.");
}
