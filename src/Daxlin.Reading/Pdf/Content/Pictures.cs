using System.Text;
using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Syntax;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What pictures say of themselves (ISO 32000-2, 8.9).</summary>
internal static class Pictures
{
    /// <summary>Points that a photograph is unpacked to at most from side to side: enough to see what colour lies under a letter.</summary>
    private const int MostAcross = 2000;

    /// <summary>What a picture shows, as far as its points, its colours and its mask can be read.</summary>
    /// <param name="resources">Where it is drawn, which its colours may be named in.</param>
    /// <param name="ink">What a stencil is drawn in.</param>
    public static PictureContent ContentOf(StreamToken stream, Resources resources, PdfObjects objects, Ink? ink)
    {
        var dictionary = stream.StreamDictionary;
        if (objects.Get(dictionary, "ImageMask") is BooleanToken { Data: true })
        {
            // Where its bit is 0, ink is laid on the page (8.9.6.2).
            var stencil = GridOf(stream, 1, 1, isTable: false, objects);
            return new PictureContent(null, _ => ink, stencil is null ? null : stencil with { Low = stencil.High, High = stencil.Low }, stencil is null);
        }
        var space = resources.SpaceOf(dictionary.Data.GetValueOrDefault("ColorSpace"));
        var colours = GridOf(stream, objects.Number(dictionary, "BitsPerComponent"), space?.Parts, space?.IsTable == true, objects);
        var read = space ?? (colours is null ? null : ColourSpace.OfParts(colours.Parts));
        var (cover, isUntold) = MaskOf(dictionary, objects);
        return new PictureContent(read is null ? null : colours, colours is null || read is null ? _ => null : parts => read.Read(parts), cover, isUntold);
    }

    /// <summary>How much each point hides: a picture of its own (11.6.5.2), or a stencil whose bit 1 lets all through (8.9.6.3).</summary>
    private static (PointGrid? Cover, bool IsUntold) MaskOf(DictionaryToken picture, PdfObjects objects)
    {
        if (objects.Stream(picture, "SMask") is { } soft)
            return GridOf(soft, objects.Number(soft.StreamDictionary, "BitsPerComponent"), 1, isTable: false, objects) is { } cover ? (cover, false) : (null, true);
        if (objects.Stream(picture, "Mask") is { } hard)
            return GridOf(hard, 1, 1, isTable: false, objects) is { } stencil ? (stencil with { Low = stencil.High, High = stencil.Low }, false) : (null, true);
        // Some of its colours let all through (8.9.6.4), or its format has a mask within (7.4.9).
        return (null, objects.Get(picture, "Mask") is not null || objects.Number(picture, "SMaskInData") is > 0);
    }

    /// <param name="bits">Null where the picture's format says.</param>
    /// <param name="parts">As <paramref name="bits"/>.</param>
    /// <returns>Null for a format that is not read, for points that are not all there, and for more than a document's pictures may have.</returns>
    private static PointGrid? GridOf(StreamToken stream, double? bits, int? parts, bool isTable, PdfObjects objects) => objects.Apart(() => Unpacked(stream, bits, parts, isTable, objects));

    private static PointGrid? Unpacked(StreamToken stream, double? bits, int? parts, bool isTable, PdfObjects objects)
    {
        var dictionary = stream.StreamDictionary;
        PointGrid grid;
        if (objects.Photograph(stream) is { } packed)
        {
            if (Photograph.Unpacked(packed, MostAcross) is not { } photograph || (parts ?? photograph.Parts) != photograph.Parts)
                return null;
            objects.Count(photograph.Bytes.Length);
            grid = photograph;
        }
        else
        {
            if (bits is not (1 or 2 or 4 or 8 or 16) || parts is not { } told || objects.Number(dictionary, "Width") is not (>= 1 and < 1 << 20 and var width) || objects.Number(dictionary, "Height") is not (>= 1 and < 1 << 20 and var height))
                return null;
            grid = new PointGrid(objects.Unpack(stream), (int)width, (int)height, told, (int)bits.Value, [], []);
            if (grid.Bytes.Length < grid.Length)
                return null;
        }
        var (low, high) = (new double[grid.Parts], new double[grid.Parts]);
        Array.Fill(high, isTable ? (1 << grid.Bits) - 1 : 1);
        if (objects.Numbers(dictionary, "Decode", 2 * grid.Parts) is { } own)
        {
            for (var part = 0; part < grid.Parts; part++)
                (low[part], high[part]) = (own[2 * part], own[(2 * part) + 1]);
        }
        return grid with { Low = low, High = high };
    }

    /// <summary>The entries of a picture that stands in the content itself (8.9.7), by their whole names.</summary>
    public static DictionaryToken EntriesOf(Operands operands, ReadOnlySpan<byte> content)
    {
        var entries = new Dictionary<NameToken, IToken>();
        var at = 0;
        while (at + 1 < operands.Count)
        {
            var key = TokenAt(operands, content, ref at, 0);
            var value = TokenAt(operands, content, ref at, 0);
            if (key is NameToken name)
                entries[NameToken.Create(WholeName(name.Data))] = value;
        }
        return new DictionaryToken(entries);
    }

    /// <summary>How many bytes follow its entries; null where they are packed or nothing says.</summary>
    public static int? LengthOf(DictionaryToken entries, Resources resources, PdfObjects objects)
    {
        var isStencil = objects.Get(entries, "ImageMask") is BooleanToken { Data: true };
        var bits = isStencil ? 1 : objects.Number(entries, "BitsPerComponent") ?? 8;
        var parts = isStencil ? 1 : resources.SpaceOf(entries.Data.GetValueOrDefault("ColorSpace"))?.Parts ?? 0;
        var bytes = Math.Ceiling((objects.Number(entries, "Width") ?? 0) * bits * parts / 8) * (objects.Number(entries, "Height") ?? 0);
        return objects.Get(entries, "Filter") is not null || bytes is not (> 0 and < int.MaxValue) ? null : (int)bytes;
    }

    private static string WholeName(string brief) => brief switch
    {
        "W" => "Width",
        "H" => "Height",
        "BPC" => "BitsPerComponent",
        "CS" => "ColorSpace",
        "D" => "Decode",
        "DP" => "DecodeParms",
        "F" => "Filter",
        "IM" => "ImageMask",
        _ => brief,
    };

    /// <summary>What stands for itself only within content.</summary>
    private static string WholeValue(string brief) => brief switch
    {
        "I" => "Indexed",
        "G" => "DeviceGray",
        "RGB" => "DeviceRGB",
        "CMYK" => "DeviceCMYK",
        "AHx" => "ASCIIHexDecode",
        "A85" => "ASCII85Decode",
        "LZW" => "LZWDecode",
        "Fl" => "FlateDecode",
        "RL" => "RunLengthDecode",
        "CCF" => "CCITTFaxDecode",
        "DCT" => "DCTDecode",
        _ => brief,
    };

    /// <summary>Lists within lists; a list of colours stands within one.</summary>
    private const int Deepest = 8;

    private static IToken TokenAt(Operands operands, ReadOnlySpan<byte> content, ref int at, int depth)
    {
        if (at >= operands.Count)
            return NullToken.Instance;
        var operand = operands.All[at++];
        var bytes = operand.Kind is OperandKind.Name or OperandKind.Text or OperandKind.Other ? operands.BytesOf(operand, content) : [];
        switch (operand.Kind)
        {
            case OperandKind.Number:
                return new NumericToken(operand.Number);
            case OperandKind.Name:
                return NameToken.Create(WholeValue(Encoding.Latin1.GetString(bytes)));
            case OperandKind.Text:
                return new HexToken(Convert.ToHexString(bytes).AsSpan());
            case OperandKind.Other:
                return bytes.SequenceEqual("true"u8) ? BooleanToken.True : bytes.SequenceEqual("false"u8) ? BooleanToken.False : NullToken.Instance;
            case OperandKind.ArrayStart or OperandKind.DictionaryStart when depth < Deepest:
                var end = operand.Kind == OperandKind.ArrayStart ? OperandKind.ArrayEnd : OperandKind.DictionaryEnd;
                var within = new List<IToken>();
                while (at < operands.Count && operands.All[at].Kind != end)
                    within.Add(TokenAt(operands, content, ref at, depth + 1));
                at++;
                if (operand.Kind == OperandKind.ArrayStart)
                    return new ArrayToken(within);
                return new DictionaryToken(within.Chunk(2).Where(pair => pair is [NameToken, _]).GroupBy(pair => (NameToken)pair[0]).ToDictionary(pairs => pairs.Key, pairs => pairs.Last()[1]));
            default:
                return NullToken.Instance;
        }
    }
}
