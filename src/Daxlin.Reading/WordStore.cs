namespace Daxlin.Reading;

/// <summary>Keeps the words of a document with few objects: equal texts once, the stops of many words in one array.</summary>
/// <remarks>
/// The collector's work grows with the objects that stay. On an invoice of 100 pages most words stand there many times
/// over: units, rates, the words of descriptions.
/// </remarks>
internal sealed class WordStore
{
    /// <summary>Below the size at which the runtime treats an array as large.</summary>
    private const int ChunkLength = 4096;

    private readonly HashSet<string> texts = new(StringComparer.Ordinal);
    private readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> lookup;
    private double[] chunk = [];
    private int used;

    public WordStore() => lookup = texts.GetAlternateLookup<ReadOnlySpan<char>>();

    /// <summary>The one text for some characters.</summary>
    public string Text(ReadOnlySpan<char> characters)
    {
        if (lookup.TryGetValue(characters, out var known))
            return known;
        var text = new string(characters);
        texts.Add(text);
        return text;
    }

    /// <summary>Room for the stops of a word.</summary>
    public Memory<double> Stops(int length)
    {
        if (length > chunk.Length - used)
            (chunk, used) = (new double[Math.Max(ChunkLength, length)], 0);
        used += length;
        return chunk.AsMemory(used - length, length);
    }
}
