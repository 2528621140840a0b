using System.Text;

namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>Reads the names and the encoding of a Compact Font Format program (Adobe Technical Note 5176).</summary>
internal static class CffReader
{
    private const int MostGlyphs = 65_536;

    /// <summary>Keys of the top dictionary; those of two bytes count from 1200.</summary>
    private const int Charset = 15, EncodingKey = 16, CharStrings = 17, Registry = 1230;

    public static FontProgram Read(ReadOnlySpan<byte> font)
    {
        var program = new FontProgram();
        ReadInto(font, program);
        return program;
    }

    public static void ReadInto(ReadOnlySpan<byte> font, FontProgram program)
    {
        var names = IndexAt(font, BigEndian.Byte(font, 2));
        var tops = IndexAt(font, names.End);
        var strings = IndexAt(font, tops.End);
        if (tops.Count == 0)
            return;
        var top = TopOf(tops.Item(font, 0));
        if (!top.TryGetValue(CharStrings, out var glyphsAt))
            return;
        var glyphs = IndexAt(font, glyphsAt);
        var blanks = new HashSet<int>();
        for (var glyph = 0; glyph < Math.Min(glyphs.Count, MostGlyphs); glyph++)
        {
            if (LeavesNoMark(glyphs.Item(font, glyph)))
                blanks.Add(glyph);
        }
        if (top.ContainsKey(Registry))
        {
            // Glyphs that are numbers of a collection have no names, and are asked for by those numbers.
            var numbers = NumbersOf(font, glyphs.Count, top.GetValueOrDefault(Charset));
            var known = new Dictionary<int, bool>();
            for (var glyph = 0; glyph < Math.Min(numbers.Length, MostGlyphs); glyph++)
                known.TryAdd(numbers[glyph], blanks.Contains(glyph));
            program.IsBlank = number => known.TryGetValue(number, out var isBlank) ? isBlank : null;
            return;
        }
        program.IsBlank = glyph => glyph < Math.Min(glyphs.Count, MostGlyphs) ? blanks.Contains(glyph) : null;
        var glyphNames = GlyphNamesOf(font, glyphs.Count, top.GetValueOrDefault(Charset), strings);
        for (var glyph = 1; glyph < glyphNames.Length; glyph++)
        {
            program.Names.TryAdd(glyphNames[glyph], glyph);
            if (GlyphNames.TextOf(glyphNames[glyph]) is { } text)
                program.AddText(glyph, text);
        }
        ReadEncoding(font, top.GetValueOrDefault(EncodingKey), glyphNames, strings, program);
    }

    /// <summary>A list of things of several lengths.</summary>
    /// <param name="End">Where it ends in the font.</param>
    private readonly record struct Index(int Count, long OffsetsAt, int OffsetSize, long DataAt, long End)
    {
        public ReadOnlySpan<byte> Item(ReadOnlySpan<byte> font, int number)
        {
            if (number < 0 || number >= Count)
                return [];
            var (from, to) = (DataAt + Offset(font, number), DataAt + Offset(font, number + 1));
            return from < 0 || to > font.Length || to <= from ? [] : font[(int)from..(int)to];
        }

        public long Offset(ReadOnlySpan<byte> font, int number)
        {
            long offset = 0;
            for (var index = 0; index < OffsetSize; index++)
                offset = (offset << 8) | (uint)BigEndian.Byte(font, OffsetsAt + (number * OffsetSize) + index);
            return offset;
        }
    }

    private static Index IndexAt(ReadOnlySpan<byte> font, long at)
    {
        var count = BigEndian.Short(font, at);
        if (count == 0)
            return new Index(0, 0, 0, 0, at + 2);
        var size = Math.Clamp(BigEndian.Byte(font, at + 2), 1, 4);
        // Offsets count from 1.
        var index = new Index(count, at + 3, size, at + 2 + ((count + 1L) * size), 0);
        return index with { End = index.DataAt + index.Offset(font, count) };
    }

    /// <summary>The last number before each key: where things stand.</summary>
    private static Dictionary<int, long> TopOf(ReadOnlySpan<byte> dictionary)
    {
        var top = new Dictionary<int, long>();
        long number = 0;
        for (var at = 0; at < dictionary.Length;)
        {
            var first = dictionary[at++];
            switch (first)
            {
                case 12:
                    top[1200 + BigEndian.Byte(dictionary, at++)] = number;
                    break;
                case <= 21:
                    top[first] = number;
                    break;
                case 28:
                    number = (short)BigEndian.Short(dictionary, at);
                    at += 2;
                    break;
                case 29:
                    number = (int)BigEndian.Long(dictionary, at);
                    at += 4;
                    break;
                case 30:
                    while (at < dictionary.Length && (dictionary[at] & 0x0F) != 0x0F && (dictionary[at] & 0xF0) != 0xF0)
                        at++;
                    at++;
                    break;
                case >= 32 and <= 246:
                    number = first - 139;
                    break;
                case >= 247 and <= 250:
                    number = ((first - 247) * 256) + BigEndian.Byte(dictionary, at++) + 108;
                    break;
                case >= 251 and <= 254:
                    number = (-(first - 251) * 256) - BigEndian.Byte(dictionary, at++) - 108;
                    break;
            }
        }
        return top;
    }

    /// <summary>Says that a glyph's program is a width at most, and its end: no move, no line, nothing called.</summary>
    private static bool LeavesNoMark(ReadOnlySpan<byte> program)
    {
        const byte End = 14;
        for (var at = 0; at < program.Length;)
        {
            var first = program[at];
            if (first == End)
                return true;
            if (first is not (28 or >= 32))
                return false;
            at += first switch
            {
                28 => 3,
                255 => 5,
                >= 247 => 2,
                _ => 1,
            };
        }
        return false;
    }

    private static string[] GlyphNamesOf(ReadOnlySpan<byte> font, int count, long charset, Index strings)
    {
        // Those of experts have no figures of money.
        if (charset is 1 or 2)
            return [];
        var numbers = NumbersOf(font, count, charset);
        var names = new string[numbers.Length];
        for (var glyph = 0; glyph < names.Length; glyph++)
            names[glyph] = StringOf(font, numbers[glyph], strings);
        return names;
    }

    /// <summary>The number of each glyph: of its name, or within its collection.</summary>
    private static int[] NumbersOf(ReadOnlySpan<byte> font, int count, long charset)
    {
        var numbers = new int[Math.Min(count, MostGlyphs)];
        if (charset <= 2)
            return [.. Enumerable.Range(0, numbers.Length)];
        var format = BigEndian.Byte(font, charset);
        var at = charset + 1;
        for (var glyph = 1; glyph < numbers.Length && at < font.Length;)
        {
            var number = BigEndian.Short(font, at);
            var more = format switch
            {
                0 => 0,
                1 => BigEndian.Byte(font, at + 2),
                _ => BigEndian.Short(font, at + 2),
            };
            at += format switch
            {
                0 => 2,
                1 => 3,
                _ => 4,
            };
            for (var step = 0; step <= more && glyph < numbers.Length; step++)
                numbers[glyph++] = number + step;
        }
        return numbers;
    }

    private static string StringOf(ReadOnlySpan<byte> font, int number, Index strings) =>
        number < CffStrings.Count ? CffStrings.NameOf(number) : Encoding.Latin1.GetString(strings.Item(font, number - CffStrings.Count));

    private static void ReadEncoding(ReadOnlySpan<byte> font, long at, string[] names, Index strings, FontProgram program)
    {
        if (at is 0 or 1)
        {
            // The standard encoding is taken where nothing else is said; that of experts has no figures of money.
            return;
        }
        var format = BigEndian.Byte(font, at);
        var (count, next, glyph) = (BigEndian.Byte(font, at + 1), at + 2, 1);
        for (var index = 0; index < count; index++)
        {
            var code = BigEndian.Byte(font, next++);
            var more = (format & 0x7F) == 0 ? 0 : BigEndian.Byte(font, next++);
            for (var step = 0; step <= more; step++, glyph++)
            {
                if (glyph < names.Length)
                    program.BuiltIn[code + step] = names[glyph];
            }
        }
        if ((format & 0x80) == 0)
            return;
        var supplements = BigEndian.Byte(font, next++);
        for (var index = 0; index < supplements; index++, next += 3)
            program.BuiltIn[BigEndian.Byte(font, next)] = StringOf(font, BigEndian.Short(font, next + 1), strings);
    }
}
