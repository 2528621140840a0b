using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>The widths of a composite font's glyphs by their numbers (ISO 32000-2, 9.7.4.3), and how they stand in a column.</summary>
internal sealed class GlyphWidths
{
    /// <summary>Entries of one list.</summary>
    private const int Most = 200_000;

    private readonly Dictionary<int, double> single = [];
    private readonly List<(uint First, uint Last, double Width)> ranges = [];
    private readonly Dictionary<int, (double Advance, double X, double Y)> columns = [];
    private readonly List<(uint First, uint Last, double Advance, double X, double Y)> columnRanges = [];
    private readonly double usual;
    private readonly double usualY = 880;
    private readonly double usualAdvance = -1000;

    /// <param name="descendant">The font whose glyphs have numbers; all have the usual width where there is none.</param>
    public GlyphWidths(DictionaryToken? descendant, PdfObjects objects)
    {
        usual = objects.Number(descendant, "DW") ?? 1000;
        if (objects.Numbers(descendant, "DW2", 2) is { } column)
            (usualY, usualAdvance) = (column[0], column[1]);
        Read(objects.Array(descendant, "W"), 1, objects, (number, parts) => single[number] = parts[0], (first, last, parts) => ranges.Add(((uint)first, (uint)last, parts[0])));
        Read(
            objects.Array(descendant, "W2"), 3, objects,
            (number, parts) => columns[number] = (parts[0], parts[1], parts[2]), (first, last, parts) => columnRanges.Add(((uint)first, (uint)last, parts[0], parts[1], parts[2])));
        ranges.Sort((one, other) => one.First.CompareTo(other.First));
        columnRanges.Sort((one, other) => one.First.CompareTo(other.First));
    }

    /// <summary>Reads a list of <c>first [a b c]</c> and <c>first last a</c>, each entry of so many numbers.</summary>
    private static void Read(IReadOnlyList<IToken>? listed, int parts, PdfObjects objects, Action<int, double[]> one, Action<int, int, double[]> range)
    {
        if (listed is null)
            return;
        var entry = new double[parts];
        for (var at = 0; at + 1 < Math.Min(listed.Count, Most);)
        {
            var first = (int)(objects.AsNumber(listed[at]) ?? 0);
            if (objects.Resolve(listed[at + 1]) is ArrayToken own)
            {
                for (var index = 0; index + parts <= Math.Min(own.Data.Count, Most); index += parts)
                {
                    for (var part = 0; part < parts; part++)
                        entry[part] = objects.AsNumber(own.Data[index + part]) ?? 0;
                    one(first + (index / parts), entry);
                }
                at += 2;
                continue;
            }
            if (at + 1 + parts >= listed.Count)
                return;
            for (var part = 0; part < parts; part++)
                entry[part] = objects.AsNumber(listed[at + 2 + part]) ?? 0;
            if (objects.AsNumber(listed[at + 1]) is { } last && last >= first && first >= 0)
                range(first, (int)last, entry);
            at += 2 + parts;
        }
    }

    /// <summary>Of the type's size.</summary>
    public double WidthOf(int number)
    {
        if (single.TryGetValue(number, out var width))
            return width / 1000;
        if (Sorted.Find(ranges, (uint)number, range => range.First, range => range.Last) is { } found)
            return found.Width / 1000;
        return usual / 1000;
    }

    /// <summary>How far a glyph moves down its column (negative), and where it starts from the column's line; of the type's size.</summary>
    public (double Advance, double X, double Y) ColumnOf(int number)
    {
        if (columns.TryGetValue(number, out var own))
            return (own.Advance / 1000, -own.X / 1000, -own.Y / 1000);
        if (Sorted.Find(columnRanges, (uint)number, range => range.First, range => range.Last) is { } found)
            return (found.Advance / 1000, -found.X / 1000, -found.Y / 1000);
        return (usualAdvance / 1000, -WidthOf(number) / 2, -usualY / 1000);
    }
}
