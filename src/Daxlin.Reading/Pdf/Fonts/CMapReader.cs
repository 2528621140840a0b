using System.Text;
using Daxlin.Reading.Pdf.Syntax;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Reads character maps: those that a file holds, and those that have a name (ISO 32000-2, 9.7.5.4 and 9.10.3).</summary>
internal static class CMapReader
{
    /// <summary>Maps that use maps; more are a circle.</summary>
    private const int Deepest = 6;

    /// <summary>Entries of one map; the largest that have a name hold some 30,000.</summary>
    private const int MostEntries = 200_000;

    /// <summary>Texts of one code; a ligature has three or four letters.</summary>
    private const int LongestText = 512;

    private static readonly Keyword EndCodeSpace = Keyword.Of("endcodespacerange");
    private static readonly Keyword EndCidRange = Keyword.Of("endcidrange");
    private static readonly Keyword EndCidChar = Keyword.Of("endcidchar");
    private static readonly Keyword EndBfRange = Keyword.Of("endbfrange");
    private static readonly Keyword EndBfChar = Keyword.Of("endbfchar");
    private static readonly Keyword UseMap = Keyword.Of("usecmap");
    private static readonly Keyword Define = Keyword.Of("def");

    /// <param name="named">Gives a map that has a name; null for one that is not known.</param>
    public static CMap Read(ReadOnlySpan<byte> content, Func<string, int, CMap?> named, int depth = 0)
    {
        var map = new CMap();
        var operands = new Operands();
        var lexer = new Lexer(content, operands);
        var entries = 0;
        while (lexer.Next(out var word))
        {
            entries += operands.Count;
            if (entries > 3 * MostEntries)
                throw new UnreadableException("too-large", $"A font's character map has more than {MostEntries} entries, which no invoice needs; it was not read.");
            if (word == EndCodeSpace)
            {
                for (var index = 0; index + 1 < operands.Count; index += 2)
                    map.AddCodeSpace(Math.Clamp(operands.All[index].Length, 1, 4), CodeOf(operands, index, content), CodeOf(operands, index + 1, content));
            }
            else if (word == EndCidRange)
            {
                for (var index = 0; index + 2 < operands.Count; index += 3)
                    map.AddRange(CodeOf(operands, index, content), CodeOf(operands, index + 1, content), (uint)operands.All[index + 2].Number);
            }
            else if (word == EndCidChar)
            {
                for (var index = 0; index + 1 < operands.Count; index += 2)
                    map.AddRange(CodeOf(operands, index, content), CodeOf(operands, index, content), (uint)operands.All[index + 1].Number);
            }
            else if (word == EndBfChar)
            {
                for (var index = 0; index + 1 < operands.Count; index += 2)
                    map.AddText(CodeOf(operands, index, content), TextOf(operands, index + 1, content));
            }
            else if (word == EndBfRange)
                AddTexts(map, operands, content);
            else if (word == UseMap && operands.Count > 0 && depth < Deepest)
                UseNamed(map, named(NameOf(operands, operands.Count - 1, content), depth + 1));
            else if (word == Define && operands.Count >= 2 && NameOf(operands, operands.Count - 2, content) == "WMode")
                map.IsVertical = operands.Number(0) == 1;
        }
        map.Sort();
        return map;
    }

    private static void UseNamed(CMap map, CMap? named)
    {
        if (named is not null)
            map.Use(named);
    }

    private static void AddTexts(CMap map, Operands operands, ReadOnlySpan<byte> content)
    {
        for (var index = 0; index + 2 < operands.Count; index++)
        {
            var (first, last) = (CodeOf(operands, index, content), CodeOf(operands, index + 1, content));
            index += 2;
            if (operands.All[index].Kind != OperandKind.ArrayStart)
            {
                map.AddTexts(first, last, TextOf(operands, index, content));
                continue;
            }
            for (index++; index < operands.Count && operands.All[index].Kind != OperandKind.ArrayEnd; index++)
                map.AddText(first++, TextOf(operands, index, content));
        }
    }

    private static uint CodeOf(Operands operands, int index, ReadOnlySpan<byte> content)
    {
        var operand = operands.All[index];
        if (operand.Kind != OperandKind.Text)
            return (uint)Math.Max(0, operand.Number);
        uint code = 0;
        foreach (var next in operands.BytesOf(operand, content))
            code = (code << 8) | next;
        return code;
    }

    private static string NameOf(Operands operands, int index, ReadOnlySpan<byte> content) =>
        operands.All[index].Kind == OperandKind.Name ? Encoding.Latin1.GetString(operands.BytesOf(operands.All[index], content)) : "";

    /// <summary>The text of a code, in UTF-16 with its higher byte first; some files write a name of a glyph instead.</summary>
    private static string TextOf(Operands operands, int index, ReadOnlySpan<byte> content)
    {
        var operand = operands.All[index];
        if (operand.Kind == OperandKind.Name)
            return GlyphNames.TextOf(NameOf(operands, index, content)) ?? Glyph.Unnamed;
        if (operand.Kind != OperandKind.Text)
            return Glyph.Unnamed;
        var bytes = operands.BytesOf(operand, content);
        bytes = bytes[..Math.Min(bytes.Length, LongestText)];
        return bytes.Length == 1 ? ((char)bytes[0]).ToString() : Encoding.BigEndianUnicode.GetString(bytes);
    }
}
