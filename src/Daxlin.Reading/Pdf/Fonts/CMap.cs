namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A character map (ISO 32000-2, 9.7.5 and 9.10.3): which bytes are a code, and what glyph number or text the code stands for.</summary>
internal sealed class CMap
{
    /// <summary>Spaces of codes looked through for each letter; maps have one to five.</summary>
    private const int MostSpaces = 100;

    private readonly List<(int Bytes, uint First, uint Last)> codeSpaces = [];
    private readonly List<(uint First, uint Last, uint Number)> ranges = [];
    private readonly Dictionary<uint, uint> numbers = [];
    private readonly Dictionary<uint, string> texts = [];
    private readonly List<(uint First, uint Last, string Text)> textRanges = [];
    private readonly List<CMap> used = [];

    /// <summary>Two bytes a code, which is the glyph's number.</summary>
    public static CMap Identity(bool isVertical)
    {
        var map = new CMap { IsVertical = isVertical };
        map.AddCodeSpace(2, 0, 0xFFFF);
        map.AddRange(0, 0xFFFF, 0);
        return map;
    }

    public bool IsVertical { get; set; }

    /// <summary>Puts the ranges in order, when all are there: a map is looked up by several threads.</summary>
    public void Sort()
    {
        ranges.Sort((one, other) => one.First.CompareTo(other.First));
        textRanges.Sort((one, other) => one.First.CompareTo(other.First));
    }

    /// <summary>Says which bytes are a code; a map of texts need not.</summary>
    public bool HasCodes => codeSpaces.Count > 0;

    /// <summary>How many things it keeps.</summary>
    public int Weight => numbers.Count + ranges.Count + texts.Count + textRanges.Count;

    public void AddCodeSpace(int bytes, uint first, uint last)
    {
        if (codeSpaces.Count < MostSpaces)
            codeSpaces.Add((bytes, first, last));
    }

    public void AddRange(uint first, uint last, uint number)
    {
        if (first == last)
        {
            numbers[first] = number;
            return;
        }
        ranges.Add((first, last, number));
    }

    public void AddText(uint code, string text) => texts[code] = text;

    /// <summary>Texts that count up in their last character.</summary>
    public void AddTexts(uint first, uint last, string text) => textRanges.Add((first, last, text));

    /// <summary>Has another map say what this one does not.</summary>
    public void Use(CMap other)
    {
        foreach (var (bytes, first, last) in other.codeSpaces)
            AddCodeSpace(bytes, first, last);
        used.Add(other);
    }

    /// <summary>The code at the start of some bytes: the shortest that lies within one of the map's spaces, byte by byte.</summary>
    public uint Code(ReadOnlySpan<byte> text, out int length)
    {
        uint code = 0;
        for (length = 1; length <= Math.Min(4, text.Length); length++)
        {
            code = (code << 8) | text[length - 1];
            foreach (var (bytes, first, last) in codeSpaces)
            {
                if (bytes == length && IsWithin(code, first, last, bytes))
                    return code;
            }
        }
        // None fits: as many bytes as the map's shortest codes have are passed over (9.7.6.3).
        length = Math.Min(text.Length, codeSpaces.Count == 0 ? 1 : codeSpaces.Min(space => space.Bytes));
        code = 0;
        foreach (var next in text[..length])
            code = (code << 8) | next;
        return code;
    }

    private static bool IsWithin(uint code, uint first, uint last, int bytes)
    {
        for (var shift = 0; shift < 8 * bytes; shift += 8)
        {
            var (part, from, to) = ((code >> shift) & 0xFF, (first >> shift) & 0xFF, (last >> shift) & 0xFF);
            if (part < from || part > to)
                return false;
        }
        return true;
    }

    /// <returns>Null for a code that it says nothing of.</returns>
    public uint? NumberOf(uint code)
    {
        if (numbers.TryGetValue(code, out var single))
            return single;
        if (Sorted.Find(ranges, code, range => range.First, range => range.Last) is { } found)
            return found.Number + (code - found.First);
        foreach (var other in used)
        {
            if (other.NumberOf(code) is { } there)
                return there;
        }
        return null;
    }

    /// <returns>Null for a code that it says nothing of.</returns>
    public string? TextOf(uint code)
    {
        if (texts.TryGetValue(code, out var single))
            return single;
        if (Sorted.Find(textRanges, code, range => range.First, range => range.Last) is { Text.Length: > 0 } found)
            return found.Text[..^1] + (char)(found.Text[^1] + (code - found.First));
        foreach (var other in used)
        {
            if (other.TextOf(code) is { } there)
                return there;
        }
        return null;
    }
}
