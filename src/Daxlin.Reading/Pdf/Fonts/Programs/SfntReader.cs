using System.Text;

namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>Reads what TrueType and OpenType programs say of their glyphs (ISO/IEC 14496-22): the tables cmap, post, hmtx and loca, and CFF for its names.</summary>
internal static class SfntReader
{
    private const int MostGlyphs = 65_536;

    /// <summary>Characters beyond this stand in no table that is read.</summary>
    private const int LastCharacter = 0x10FFFF;

    public static FontProgram Read(ReadOnlySpan<byte> font)
    {
        var program = new FontProgram();
        var start = font.StartsWith("ttcf"u8) ? BigEndian.Long(font, 12) : 0;
        var tables = BigEndian.Short(font, start + 4);
        ReadOnlySpan<byte> heads = [], metrics = [];
        ReadOnlySpan<byte> head = [], places = [];
        for (var index = 0; index < Math.Min(tables, 64); index++)
        {
            var entry = start + 12 + (16 * index);
            if (entry + 16 > font.Length)
                break;
            var (offset, length) = (BigEndian.Long(font, entry + 8), BigEndian.Long(font, entry + 12));
            if (offset >= font.Length)
                continue;
            var table = font.Slice((int)offset, (int)Math.Min(length, font.Length - offset));
            switch (Encoding.Latin1.GetString(font.Slice((int)entry, 4)))
            {
                case "cmap":
                    ReadCharacters(table, program);
                    break;
                case "post":
                    ReadNames(table, program);
                    break;
                case "CFF ":
                    CffReader.ReadInto(table, program);
                    break;
                case "head":
                    head = table;
                    break;
                case "loca":
                    places = table;
                    break;
                case "hhea":
                    heads = table;
                    break;
                case "hmtx":
                    metrics = table;
                    break;
            }
        }
        program.Advances = AdvancesOf(head, heads, metrics);
        if (!places.IsEmpty && !head.IsEmpty)
            program.IsBlank = BlankBy(places.ToArray(), isLong: BigEndian.Short(head, 50) == 1);
        return program;
    }

    /// <summary>A glyph without an outline ends where it begins.</summary>
    private static Func<int, bool?> BlankBy(byte[] places, bool isLong) => glyph =>
        (isLong ? 4 : 2) * (glyph + 2L) > places.Length ? null
        : isLong ? BigEndian.Long(places, 4L * glyph) == BigEndian.Long(places, (4L * glyph) + 4) : BigEndian.Short(places, 2L * glyph) == BigEndian.Short(places, (2L * glyph) + 2);

    private static double[] AdvancesOf(ReadOnlySpan<byte> head, ReadOnlySpan<byte> heads, ReadOnlySpan<byte> metrics)
    {
        double units = BigEndian.Short(head, 18);
        var advances = new double[units > 0 ? Math.Min(BigEndian.Short(heads, 34), metrics.Length / 4) : 0];
        for (var glyph = 0; glyph < advances.Length; glyph++)
            advances[glyph] = BigEndian.Short(metrics, 4 * glyph) / units;
        return advances;
    }

    private static void ReadCharacters(ReadOnlySpan<byte> table, FontProgram program)
    {
        for (var index = 0; index < Math.Min(BigEndian.Short(table, 2), 32); index++)
        {
            var (platform, encoding, offset) = (BigEndian.Short(table, 4 + (8 * index)), BigEndian.Short(table, 6 + (8 * index)), BigEndian.Long(table, 8 + (8 * index)));
            if (offset >= table.Length)
                continue;
            var isUnicode = platform == 0 || (platform == 3 && encoding is 1 or 10);
            foreach (var (code, glyph) in Mapped(table[(int)offset..]))
            {
                if (!isUnicode)
                    program.Codes.TryAdd(platform == 3 ? code & 0xFF : code, glyph);
                // Characters of private use stand for nothing that anybody else knows.
                else if (code is not (< 32 or (>= 0xD800 and <= 0xF8FF) or (>= 0xF0000)))
                    program.AddText(glyph, char.ConvertFromUtf32(code));
            }
        }
    }

    /// <summary>The codes of a table of characters and their glyphs, but for those that have none.</summary>
    private static List<(int Code, int Glyph)> Mapped(ReadOnlySpan<byte> table)
    {
        var mapped = new List<(int, int)>();
        switch (BigEndian.Short(table, 0))
        {
            case 0:
                for (var code = 0; code < 256; code++)
                    Add(mapped, code, BigEndian.Byte(table, 6 + code));
                break;
            case 4:
                AddSegments(table, mapped);
                break;
            case 6:
                for (var index = 0; index < BigEndian.Short(table, 8); index++)
                    Add(mapped, BigEndian.Short(table, 6) + index, BigEndian.Short(table, 10 + (2 * index)));
                break;
            case 12:
                for (var group = 0; group < Math.Min(BigEndian.Long(table, 12), MostGlyphs); group++)
                {
                    var (first, last, glyph) = (BigEndian.Long(table, 16 + (12 * group)), BigEndian.Long(table, 20 + (12 * group)), BigEndian.Long(table, 24 + (12 * group)));
                    for (var code = first; code <= Math.Min(last, LastCharacter) && mapped.Count < MostGlyphs; code++)
                        Add(mapped, (int)code, (int)Math.Min(glyph + (code - first), int.MaxValue));
                }
                break;
        }
        return mapped;
    }

    private static void AddSegments(ReadOnlySpan<byte> table, List<(int, int)> mapped)
    {
        var segments = BigEndian.Short(table, 6) / 2;
        for (var segment = 0; segment < segments; segment++)
        {
            var last = BigEndian.Short(table, 14 + (2 * segment));
            var at = 16 + (2 * segments) + (2 * segment);
            var (first, delta, range) = (BigEndian.Short(table, at), BigEndian.Short(table, at + (2 * segments)), BigEndian.Short(table, at + (4 * segments)));
            for (var code = first; code <= last && code != 0xFFFF && mapped.Count < MostGlyphs; code++)
            {
                var glyph = range == 0 ? (code + delta) & 0xFFFF : BigEndian.Short(table, at + (4 * segments) + range + (2 * (code - first)));
                Add(mapped, code, range == 0 || glyph == 0 ? glyph : (glyph + delta) & 0xFFFF);
            }
        }
    }

    private static void Add(List<(int, int)> mapped, int code, int glyph)
    {
        if (glyph != 0)
            mapped.Add((code, glyph));
    }

    /// <summary>Names of glyphs: those of the Macintosh by their number, and the font's own.</summary>
    private static void ReadNames(ReadOnlySpan<byte> table, FontProgram program)
    {
        const int NumbersAt = 34;
        if (BigEndian.Long(table, 0) != 0x00020000)
            return;
        var count = BigEndian.Short(table, 32);
        var own = new List<string>();
        for (var at = NumbersAt + (2 * count); at < table.Length && own.Count < MostGlyphs;)
        {
            var length = Math.Min(table[at], table.Length - at - 1);
            own.Add(Encoding.Latin1.GetString(table.Slice(at + 1, length)));
            at += 1 + length;
        }
        for (var glyph = 1; glyph < count; glyph++)
        {
            var number = BigEndian.Short(table, NumbersAt + (2 * glyph));
            var name = number < MacintoshGlyphs.Count ? MacintoshGlyphs.NameOf(number) : number - MacintoshGlyphs.Count < own.Count ? own[number - MacintoshGlyphs.Count] : "";
            if (GlyphNames.TextOf(name) is { } text)
                program.AddText(glyph, text);
        }
    }
}
