using System.Buffers.Binary;
using System.Text;

namespace Daxlin.Testing;

/// <summary>Writes font programs that say what their glyphs are, and draw nothing.</summary>
public static class TinyFont
{
    /// <summary>A TrueType program whose table of characters has these; each glyph's number is its place from 1.</summary>
    public static byte[] TrueType(string characters) => Sfnt(("cmap", Characters(characters)), ("head", Head()), ("hhea", Heads(characters.Length + 1)), ("hmtx", Metrics(characters.Length + 1)));

    /// <summary>A TrueType program that knows its glyphs by codes of its own, from 1, and does not say what they are.</summary>
    public static byte[] Symbolic(int glyphs)
    {
        var table = new List<byte>();
        // Of the Macintosh: a table of glyphs by code.
        Add(table, [0, 1, 1, 0, 0, 12, 6, 10 + (2 * glyphs), 0, 1, glyphs, .. Enumerable.Range(1, glyphs)]);
        return Sfnt(("cmap", [.. table]), ("head", Head()), ("hhea", Heads(glyphs + 1)), ("hmtx", Metrics(glyphs + 1)));
    }

    /// <summary>A TrueType program that names its glyphs; each one's number is its place from 1.</summary>
    public static byte[] Named(params string[] names)
    {
        var table = new List<byte>();
        Add(table, 0x0002, 0x0000);
        table.AddRange(new byte[28]);
        Add(table, [names.Length + 1, 0, .. Enumerable.Range(0, names.Length).Select(at => 258 + at)]);
        foreach (var name in names)
        {
            table.Add((byte)name.Length);
            table.AddRange(Encoding.ASCII.GetBytes(name));
        }
        return Sfnt(("post", [.. table]));
    }

    /// <summary>A character map that claims a text for each code.</summary>
    public static byte[] Map(params (int Code, string Text)[] texts) => Encoding.ASCII.GetBytes(
        $"/CIDInit /ProcSet findresource begin begincmap 1 begincodespacerange <0000> <FFFF> endcodespacerange {texts.Length} beginbfchar "
        + string.Join(' ', texts.Select(one => $"<{one.Code:X4}> <{string.Concat(one.Text.Select(letter => $"{(int)letter:X4}"))}>")) + " endbfchar endcmap end");

    private static byte[] Characters(string characters)
    {
        var sorted = characters.Select((letter, at) => (Letter: (int)letter, Glyph: at + 1)).OrderBy(one => one.Letter).ToList();
        var segments = sorted.Count + 1;
        var table = new List<byte>();
        // Of Windows, Unicode; then segments of one character each, and the one that ends them.
        Add(table, 0, 1, 3, 1, 0, 12, 4, 16 + (8 * segments), 0, 2 * segments, 0, 0, 0);
        Add(table, [.. sorted.Select(one => one.Letter), 0xFFFF, 0, .. sorted.Select(one => one.Letter), 0xFFFF]);
        Add(table, [.. sorted.Select(one => one.Glyph - one.Letter), 1, .. Enumerable.Repeat(0, segments)]);
        return [.. table];
    }

    private static byte[] Head()
    {
        var head = new byte[54];
        BinaryPrimitives.WriteUInt16BigEndian(head.AsSpan(18), 1000);
        return head;
    }

    private static byte[] Heads(int glyphs)
    {
        var heads = new byte[36];
        BinaryPrimitives.WriteUInt16BigEndian(heads.AsSpan(34), (ushort)glyphs);
        return heads;
    }

    private static byte[] Metrics(int glyphs)
    {
        var table = new List<byte>();
        for (var glyph = 0; glyph < glyphs; glyph++)
            Add(table, 600, 0);
        return [.. table];
    }

    private static byte[] Sfnt(params (string Name, byte[] Bytes)[] tables)
    {
        var font = new List<byte>();
        Add(font, 1, 0, tables.Length, 0, 0, 0);
        var at = 12 + (16 * tables.Length);
        foreach (var (name, bytes) in tables)
        {
            font.AddRange(Encoding.ASCII.GetBytes(name));
            Add(font, 0, 0, at >> 16, at & 0xFFFF, 0, bytes.Length);
            at += bytes.Length;
        }
        foreach (var (_, bytes) in tables)
            font.AddRange(bytes);
        return [.. font];
    }

    private static void Add(List<byte> table, params IEnumerable<int> numbers)
    {
        foreach (var number in numbers)
        {
            table.Add((byte)(number >> 8));
            table.Add((byte)number);
        }
    }
}
