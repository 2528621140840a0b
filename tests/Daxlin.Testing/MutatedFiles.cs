namespace Daxlin.Testing;

/// <summary>Small PDFs whose content, fonts and character maps stand unpacked, with bytes changed at random by a seed: what a damaged or hostile file may be.</summary>
public static class MutatedFiles
{
    private const string Content = "q 1 0 0 1 0 0 cm /Faint gs 0.9 g 50 50 100 100 re f BT /F2 10 Tf 2 Tc 1 0 0 1 100 700 Tm <000100020003> Tj [<0001> -200 <0002>] TJ T* (a\\(b\\051) ' ET Q "
        + "/Span << /ActualText (5) /MCID 0 >> BDC BT /F1 10 Tf 100 300 Td (Total 1,204.50) Tj ET EMC q 10 0 0 10 300 300 cm BI /W 2 /H 2 /BPC 8 /CS /G ID abcd EI Q 10 10 m 20 20 30 30 40 40 c W n /X Do";

    private const string Composite = "<< /Type /Font /Subtype /Type0 /BaseFont /Made /Encoding 11 0 R /DescendantFonts [8 0 R] /ToUnicode 7 0 R >>";

    private static readonly byte[] Encoding = "/WMode 0 def 2 begincodespacerange <00> <00> <0001> <FFFF> endcodespacerange 1 begincidrange <0001> <00FF> 1 endcidrange 1 begincidchar <0100> 7 endcidchar /Identity-H usecmap"u8.ToArray();

    private static readonly byte[] Map = "1 begincodespacerange <0000> <FFFF> endcodespacerange 1 beginbfrange <0001> <0003> <0035> endbfrange 1 beginbfrange <0004> <0005> [<0036> <00370038>] endbfrange"u8.ToArray();

    /// <summary>Those that are changed, unchanged.</summary>
    public static IReadOnlyList<byte[]> Whole { get; } =
    [
        TinyPdf.WithFont(
            Content, Composite, ("", Map),
            ("<< /Type /Font /Subtype /CIDFontType2 /BaseFont /Made /DW 600 /W [1 [500 250] 3 9 1000] /W2 [1 3 -1000 500 880] /FontDescriptor 9 0 R >>", null),
            ("<< /Type /FontDescriptor /FontName /Made /Flags 4 /FontFile2 10 0 R >>", null), ("", TinyFont.TrueType("59012")), ("/Type /CMap", Encoding)),
        TinyPdf.WithFont(
            Content, "<< /Type /Font /Subtype /TrueType /BaseFont /Made /FirstChar 1 /LastChar 3 /Widths [500 600 700] /FontDescriptor 7 0 R /Encoding << /BaseEncoding /WinAnsiEncoding /Differences [1 /five /nine /f_i] >> >>",
            ("<< /Type /FontDescriptor /FontName /Made /Flags 4 /FontFile2 8 0 R >>", null), ("", TinyFont.Named("five", "nine", "zero"))),
        TinyPdf.WithForm(Content, "/BBox [0 0 400 400] /Matrix [1 0 0 1 5 5] /Group << /S /Transparency >> /Resources << /Font << /F1 3 0 R >> /XObject << /X 6 0 R >> >>", "BT /F1 9 Tf 5 5 Td (in a form) Tj ET /X Do", "<< /ca 0.5 /BM /Multiply /LW 3 >>"),
        TinyPdf.Annotated(Content, "/Subtype /Stamp /Rect [95 695 195 715] /AP << /N 6 0 R >>", "/BBox [0 0 100 20]", "1 g 0 0 100 20 re f"),
        TinyPdf.OnePage(
            "q 200 0 0 30 90 690 cm /X Do Q BT 1 g /F1 10 Tf 100 700 Td (Total) Tj 0 -400 Td 0 g (1,204.50) Tj ET q 200 0 0 30 90 690 cm /Y Do Q q 60 0 0 30 90 690 cm BI /W 2 /H 2 /BPC 1 /CS [/I /RGB 1 <FFFFFF000000>] /D [1 0] /F /AHx ID 8040> EI Q",
            resources: "/XObject << /X 6 0 R /Y 7 0 R >> /ColorSpace << /A /B /B [/Indexed /DeviceRGB 1 (abcdef)] >>",
            objects:
            [
                ("/Subtype /Image /Width 16 /Height 8 /BitsPerComponent 8 /ColorSpace /DeviceGray /Filter /DCTDecode", TinyPicture.Photograph(16, 8, 1, column => column < 8)),
                ("/Subtype /Image /Width 3 /Height 2 /BitsPerComponent 4 /ColorSpace [/Indexed /DeviceRGB 1 <FFFFFF000000>] /Decode [0 15] /SMask 8 0 R", [0x10, 0x10, 0x01, 0x10]),
                ("/Subtype /Image /Width 1 /Height 1 /BitsPerComponent 16 /ColorSpace /DeviceGray", [0xFF, 0xFE]),
            ]),
        TinyPdf.WithFont(
            Content.Replace("<000100020003>", "<010201>", StringComparison.Ordinal),
            "<< /Type /Font /Subtype /Type3 /FontMatrix [0.001 0 0 0.001 0 0] /FirstChar 1 /LastChar 2 /Widths [600 600] /CharProcs << /a 7 0 R /b 8 0 R >> /Encoding << /Differences [1 /a /b] >> /Resources << /Font << /F1 3 0 R /F2 6 0 R >> >> >>",
            ("", "600 0 0 0 600 700 d1 1 g 0 0 600 700 re f q 600 0 0 700 0 0 cm BI /W 1 /H 1 /IM true ID \0 EI Q"u8.ToArray()), ("", "600 0 d0 BT /F1 1000 Tf (5) Tj /F2 1 Tf (\x01) Tj ET"u8.ToArray())),
    ];

    /// <summary>One of them with one to eight changes: a bit, a byte, a digit, a piece left out or put twice.</summary>
    public static byte[] Make(int seed)
    {
        var chance = new Random(seed);
        var bytes = Whole[chance.Next(Whole.Count)].ToList();
        for (var change = chance.Next(1, 9); change > 0; change--)
        {
            var at = chance.Next(bytes.Count);
            var length = Math.Min(chance.Next(1, 12), bytes.Count - at);
            switch (chance.Next(6))
            {
                case 0:
                    bytes[at] ^= (byte)(1 << chance.Next(8));
                    break;
                case 1:
                    bytes[at] = (byte)chance.Next(256);
                    break;
                case 2:
                    bytes[at] = (byte)('0' + chance.Next(10));
                    break;
                case 3:
                    bytes.RemoveRange(at, length);
                    break;
                case 4:
                    bytes.InsertRange(at, bytes.GetRange(at, length));
                    break;
                default:
                    bytes.InsertRange(at, System.Text.Encoding.ASCII.GetBytes(Bits[chance.Next(Bits.Length)]));
                    break;
            }
        }
        return [.. bytes];
    }

    /// <summary>More than a number can be.</summary>
    private static readonly string Enormous = " " + new string('9', 400);

    /// <summary>What content, maps and fonts are made of.</summary>
    private static readonly string[] Bits = ["[", "]", "<<", ">>", "(", ")", "<", ">", "/", "%", " q ", " Q ", " BT ", " ET ", " Do ", " BI ", " ID ", " EMC ", " Tj ", " TJ ", " re ", " 99999999999 ", " -1e9 ", " 1 0 0 0 0 1 cm ", " 1000000000 0 0 1000000000 0 0 cm ", Enormous, Enormous + " 0 0 1 0 0 cm ", "\\", "\0\0\0\0", "\u007F"];
}
