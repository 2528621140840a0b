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

    /// <summary>A TrueType program as by <see cref="TrueType(string)"/> whose glyphs have outlines, or have none.</summary>
    public static byte[] Outlined(string characters, params bool[] isSeen)
    {
        var places = new List<byte>();
        Add(places, [0, 0, .. isSeen.Select((_, at) => 6 * isSeen.Take(at + 1).Count(seen => seen))]);
        return Sfnt(("cmap", Characters(characters)), ("head", Head()), ("hhea", Heads(characters.Length + 1)), ("hmtx", Metrics(characters.Length + 1)), ("loca", [.. places]));
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

    /// <summary>A Type 1 program with an encoding of its own.</summary>
    public static byte[] Type1(params (int Code, string Name)[] encoding) => Encoding.ASCII.GetBytes(
        "%!PS-AdobeFont-1.0: Made\n/FontInfo 2 dict dup begin end def\n/Encoding 256 array\n0 1 255 {1 index exch /.notdef put} for\n"
        + string.Concat(encoding.Select(one => $"dup {one.Code} /{one.Name} put\n")) + "readonly def\ncurrentfile eexec\n");

    /// <summary>A compact program; each glyph's number is its place from 1.</summary>
    /// <param name="glyphs">Names, and whether the glyph leaves a mark; a number where the program is one of a collection.</param>
    /// <param name="codes">Its encoding; the standard one if there is none.</param>
    public static byte[] Compact((string Name, bool IsSeen)[] glyphs, byte[]? codes = null)
    {
        var isCollection = int.TryParse(glyphs[0].Name, out _);
        byte[] head = [1, 0, 4, 1];
        var names = Index(["Made"u8.ToArray()]);
        var strings = Index(isCollection ? ["Adobe"u8.ToArray(), "Identity"u8.ToArray()] : [.. glyphs.Select(glyph => Encoding.ASCII.GetBytes(glyph.Name))]);
        // A width and the end; or a move, a line and the end.
        var programs = Index([new byte[] { 14 }, .. glyphs.Select(glyph => glyph.IsSeen ? new byte[] { 139, 149, 21, 149, 149, 5, 14 } : [149, 14])]);
        var charset = new List<byte> { 0 };
        Add(charset, glyphs.Select((glyph, at) => isCollection ? int.Parse(glyph.Name, System.Globalization.CultureInfo.InvariantCulture) : 391 + at));
        byte[] encoding = codes is null ? [] : [0, (byte)codes.Length, .. codes];
        byte[] Top(int from) =>
        [
            .. isCollection ? new byte[] { 28, 1, 135, 28, 1, 136, 139, 12, 30 } : [],
            .. Number(from), 15, .. codes is null ? [] : (byte[])[.. Number(from + charset.Count), 16], .. Number(from + charset.Count + encoding.Length), 17,
        ];
        byte[] none = [0, 0];
        var before = head.Length + names.Length + Index([Top(0)]).Length + strings.Length + none.Length;
        return [.. head, .. names, .. Index([Top(before)]), .. strings, .. none, .. charset, .. encoding, .. programs];
    }

    private static byte[] Number(int value) => [29, (byte)(value >> 24), (byte)(value >> 16), (byte)(value >> 8), (byte)value];

    private static byte[] Index(byte[][] items)
    {
        var index = new List<byte>();
        Add(index, items.Length);
        index.Add(2);
        var at = 1;
        Add(index, at);
        foreach (var item in items)
            Add(index, at += item.Length);
        return [.. index, .. items.SelectMany(item => item)];
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
