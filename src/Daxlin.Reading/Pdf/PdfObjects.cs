using UglyToad.PdfPig;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf;

/// <summary>A document's objects: the PDF library finds, decrypts and unpacks them; here they are asked for by what they are.</summary>
/// <param name="own">Our own way of unpacking, with its limits, which the library's filters go through, too.</param>
internal sealed class PdfObjects(IPdfTokenScanner scanner, ILookupFilterProvider filters, LimitedFilters own)
{
    /// <summary>References that lead to references; more are a circle.</summary>
    private const int LongestChain = 10;

    /// <summary>What a reference stands for; null for one that leads nowhere.</summary>
    public IToken? Resolve(IToken? token)
    {
        for (var step = 0; token is IndirectReferenceToken reference; step++)
        {
            if (step == LongestChain)
                return null;
            token = scanner.Get(reference.Data)?.Data;
        }
        return token is NullToken ? null : token;
    }

    public IToken? Get(DictionaryToken? dictionary, string key) => dictionary is not null && dictionary.Data.TryGetValue(key, out var found) ? Resolve(found) : null;

    /// <summary>A dictionary, or a stream's.</summary>
    public DictionaryToken? Dictionary(DictionaryToken? dictionary, string key) => AsDictionary(Get(dictionary, key));

    public static DictionaryToken? AsDictionary(IToken? token) => token as DictionaryToken ?? (token as StreamToken)?.StreamDictionary;

    public StreamToken? Stream(DictionaryToken? dictionary, string key) => Get(dictionary, key) as StreamToken;

    public IReadOnlyList<IToken>? Array(DictionaryToken? dictionary, string key) => (Get(dictionary, key) as ArrayToken)?.Data;

    public string? Name(DictionaryToken? dictionary, string key) => (Get(dictionary, key) as NameToken)?.Data;

    public double? Number(DictionaryToken? dictionary, string key) => AsNumber(Get(dictionary, key));

    public double? AsNumber(IToken? token) => (Resolve(token) as NumericToken)?.Data;

    /// <returns>Null unless it has just so many numbers.</returns>
    public double[]? Numbers(DictionaryToken? dictionary, string key, int count)
    {
        if (Array(dictionary, key) is not { } listed || listed.Count != count)
            return null;
        var numbers = new double[count];
        for (var index = 0; index < count; index++)
        {
            if (AsNumber(listed[index]) is not { } number)
                return null;
            numbers[index] = number;
        }
        return numbers;
    }

    /// <summary>What a reference refers to, to know the same object by; null for an object that stands where it is used.</summary>
    public static IndirectReference? Reference(DictionaryToken? dictionary, string key) =>
        dictionary is not null && dictionary.Data.TryGetValue(key, out var found) && found is IndirectReferenceToken reference ? reference.Data : null;

    /// <summary>The content of a page, good until the thread unpacks the next stream.</summary>
    /// <exception cref="UnreadableException">As for <see cref="UnpackContent"/>.</exception>
    public ReadOnlyMemory<byte> UnpackContentBriefly(StreamToken stream) => Whole(stream, brief => own.Plainly(brief) ?? Unpack(brief));

    /// <summary>What is drawn, all of it.</summary>
    /// <exception cref="UnreadableException">Only a part of it can be unpacked: half a page is none.</exception>
    public ReadOnlyMemory<byte> UnpackContent(StreamToken stream) => Whole(stream, Unpack);

    private ReadOnlyMemory<byte> Whole(StreamToken stream, Func<StreamToken, ReadOnlyMemory<byte>> unpack)
    {
        own.HasCut = false;
        var bytes = unpack(stream);
        return own.HasCut ? throw PartlyThere() : bytes;
    }

    /// <summary>Why a page is not read of which a part is missing.</summary>
    public static UnreadableException PartlyThere() => new("damaged", "The PDF is damaged: what a page draws is there only in part; ask the vendor to send it again.");

    /// <inheritdoc cref="LimitedFilters.Apart"/>
    public T? Apart<T>(Func<T?> unpack)
        where T : class => own.Apart(unpack);

    /// <inheritdoc cref="LimitedFilters.Count"/>
    public void Count(int bytes) => own.Count(bytes);

    /// <summary>The bytes of a photograph, which the library does not unpack.</summary>
    /// <returns>Null for a stream that is none.</returns>
    public ReadOnlyMemory<byte>? Photograph(StreamToken stream)
    {
        var dictionary = stream.StreamDictionary;
        IReadOnlyList<IToken> filters = Get(dictionary, "Filter") switch { ArrayToken several => several.Data, NameToken one => [one], _ => [] };
        if (filters.Count == 0 || Resolve(filters[^1]) is not NameToken { Data: "DCTDecode" or "DCT" })
            return null;
        if (filters.Count == 1)
            return stream.Data;
        var around = new Dictionary<NameToken, IToken> { [NameToken.Filter] = new ArrayToken([.. filters.SkipLast(1)]) };
        if (Array(dictionary, "DecodeParms") is { } hints)
            around[NameToken.DecodeParms] = new ArrayToken([.. hints.Take(filters.Count - 1)]);
        return Unpack(new StreamToken(new DictionaryToken(around), stream.Data));
    }

    public ReadOnlyMemory<byte> Unpack(StreamToken stream) => stream.Decode(filters, scanner);
}
