using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>What letters are by their font; what the file claims of them counts only where the font draws it.</summary>
public sealed class FontTextsTests
{
    private const string Show = "BT /F2 10 Tf 1 0 0 1 100 700 Tm {0} Tj ET BT /F1 10 Tf 1 0 0 1 100 300 Tm (Total) Tj ET";

    private static Page Read(string shown, string font, params (string, byte[]?)[] objects) => PdfReader.Read(TinyPdf.WithFont(Show.Replace("{0}", shown, StringComparison.Ordinal), font, objects))[0];

    private static void Says(Page page, string read, string? claimed)
    {
        Assert.Equal([read, "Total"], page.Words.Select(word => word.Text));
        Assert.Equal(claimed is null ? [] : new[] { (claimed, read, UnseenBy.Claimed) }, page.Unseen.Select(word => (word.Text, word.Drawn, word.Why)));
    }

    private static void Says(Page page, string[] words) => Assert.Equal(words, page.Words.Select(word => word.Text));

    private const string Simple = "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding << /Differences [1 /five /nine /zero /period /f_i /one.oldstyle /g35 /onehalf /twosuperior /uniwm12 /ucwmx /u110000] >> /ToUnicode 7 0 R >>";

    [Theory]
    [InlineData("<010303>", "", "500", null)]
    [InlineData("<010303>", "1=5 3=0", "500", null)]
    [InlineData("<010303>", "1=9", "500", "900")]
    [InlineData("<020103>", "1=9", "950", "990")]
    [InlineData("<010303>", "3=.", "500", "5..")]
    [InlineData("<010403>", "4=0", "5.0", "500")]
    [InlineData("<010303>", "1=٥", "500", null)]
    [InlineData("<05>", "5=fi", "fi", null)]
    [InlineData("<05>", "5=ﬁ", "fi", null)]
    [InlineData("<06>", "6=1", "1", null)]
    [InlineData("<07>", "7=8", "8", null)]
    [InlineData("<08>", "8=1/2", "1/2", null)]
    [InlineData("<08>", "8=9", "½", "9")]
    [InlineData("<09>", "9=2", "2", null)]
    [InlineData("<010A0B0C01>", "", "5\uFFFD\uFFFD\uFFFD5", null)]
    public void A_character_map_is_a_claim_beside_the_names_of_glyphs(string shown, string map, string read, string? claimed)
    {
        var texts = map.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(one => (int.Parse(one.Split('=')[0], System.Globalization.CultureInfo.InvariantCulture), one.Split('=')[1])).ToArray();
        Says(Read(shown, Simple, ("", TinyFont.Map(texts))), read, claimed);
    }

    private const string Composite = "<< /Type /Font /Subtype /Type0 /BaseFont /Made /Encoding /Identity-H /DescendantFonts [8 0 R] /ToUnicode 7 0 R >>";
    private const string Descendant = "<< /Type /Font /Subtype /CIDFontType2 /BaseFont /Made /CIDSystemInfo << /Registry (Adobe) /Ordering (Identity) >> /DW 600 /FontDescriptor 9 0 R >>";
    private const string Descriptor = "<< /Type /FontDescriptor /FontName /Made /Flags 4 /FontFile2 10 0 R >>";

    /// <summary>The program draws glyphs 1 to 3 as 5, 9 and 0.</summary>
    [Theory]
    [InlineData("1=5 2=9 3=0", "590", null)]
    [InlineData("1=9 2=5 3=0", "590", "950")]
    [InlineData("3=0", "590", null)]
    [InlineData("", "590", null)]
    [InlineData("1=x", "590", "x90")]
    public void A_character_map_is_a_claim_beside_a_font_program(string map, string read, string? claimed)
    {
        var texts = map.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(one => (one[0] - '0', one[2..])).ToArray();
        foreach (var program in new[] { TinyFont.TrueType("590"), TinyFont.Named("five", "nine", "zero") })
            Says(Read("<000100020003>", Composite, ("", TinyFont.Map(texts)), (Descendant, null), (Descriptor, null), ("", program)), read, claimed);
    }

    [Fact]
    public void A_number_that_an_invoice_claims_otherwise_is_told_whole()
    {
        var page = Read("[<00010003> -20 <0003>]".Replace("] ", "]", StringComparison.Ordinal) + " TJ () ", Composite, ("", TinyFont.Map((1, "9"), (3, "0"))), (Descendant, null), (Descriptor, null), ("", TinyFont.TrueType("590")));
        Says(page, "500", "900");
    }

    /// <summary>What nothing names is no letter, and does not vanish within a number.</summary>
    [Theory]
    [InlineData("<0001000400030003>", "5\uFFFD00")]
    [InlineData("<000100040004000300030003>", "5\uFFFD\uFFFD000")]
    [InlineData("<000100030004>", "50\uFFFD")]
    public void A_glyph_that_nothing_names_cannot_be_told(string shown, string read) =>
        Says(Read(shown, Composite, ("", TinyFont.Map((1, "5"), (3, "0"))), (Descendant, null), (Descriptor, null), ("", TinyFont.TrueType("590"))), read, null);

    [Fact]
    public void Text_in_a_font_that_is_not_there_does_not_vanish() =>
        Assert.Equal("\uFFFD\uFFFD\uFFFD \uFFFD", PdfReader.Read(TinyPdf.OnePage("BT /F9 10 Tf 1 0 0 1 100 700 Tm (500 0) Tj ET BT /F1 10 Tf 1 0 0 1 100 300 Tm (Total) Tj ET"))[0].Lines[0].Text);

    [Theory]
    [InlineData("UniJIS-UTF16-H", "Japan1", "<5408 8A08 0031>", "合計1")]
    [InlineData("90ms-RKSJ-H", "Japan1", "<8D87 8C76 31>", "合計1")]
    [InlineData("UniGB-UCS2-H", "GB1", "<5408 8BA1 0031>", "合计1")]
    [InlineData("UniKS-UCS2-H", "Korea1", "<D569 ACC4 0031>", "합계1")]
    public void Collections_that_have_a_name_are_read_without_a_program(string encoding, string ordering, string shown, string read) => Says(
        Read(
            shown, $"<< /Type /Font /Subtype /Type0 /BaseFont /Made /Encoding /{encoding} /DescendantFonts [7 0 R] >>",
            ($"<< /Type /Font /Subtype /CIDFontType0 /BaseFont /Made /CIDSystemInfo << /Registry (Adobe) /Ordering ({ordering}) >> >>", null)),
        read, null);

    /// <summary>The codes of a symbolic font are its program's own; what is named beside is taken only where nothing else says.</summary>
    [Theory]
    [InlineData(4, "1=7 2=8 3=6", "786", null)]
    [InlineData(32, "1=7 2=8 3=6", "590", "786")]
    [InlineData(4, "", "590", null)]
    public void The_encoding_of_a_symbolic_font_is_no_witness(int flags, string map, string read, string? claimed)
    {
        var texts = map.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(one => (one[0] - '0', one[2..])).ToArray();
        Says(
            Read(
                "<010203>",
                $"<< /Type /Font /Subtype /TrueType /BaseFont /Made /Encoding << /Differences [1 /five /nine /zero] >> {(map.Length > 0 ? "/ToUnicode 7 0 R" : "")} /FontDescriptor 8 0 R >>",
                ("", TinyFont.Map(texts)), ($"<< /Type /FontDescriptor /FontName /Made /Flags {flags} /FontFile2 9 0 R >>", null), ("", TinyFont.Symbolic(3))),
            read, claimed);
    }

    private const string BuiltIn = "<< /Type /Font /Subtype /Type1 /BaseFont /Made {0} /FontDescriptor 8 0 R >>";

    /// <summary>Type 1 and compact programs say by themselves what their codes are, and are a witness beside the file's map.</summary>
    [Theory]
    [InlineData("", "590", null)]
    [InlineData("1=5", "590", null)]
    [InlineData("1=9 2=5", "590", "950")]
    public void A_program_with_an_encoding_of_its_own_says_what_its_codes_are(string map, string read, string? claimed)
    {
        var texts = map.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(one => (one[0] - '0', one[2..])).ToArray();
        var font = BuiltIn.Replace("{0}", map.Length > 0 ? "/ToUnicode 7 0 R" : "", StringComparison.Ordinal);
        Says(
            Read("<010203>", font, ("", TinyFont.Map(texts)), ("<< /Type /FontDescriptor /Flags 4 /FontFile 9 0 R >>", null), ("", TinyFont.Type1((1, "five"), (2, "nine"), (3, "zero")))), read, claimed);
        Says(
            Read(
                "<010203>", font, ("", TinyFont.Map(texts)), ("<< /Type /FontDescriptor /Flags 4 /FontFile3 9 0 R >>", null),
                ("/Subtype /Type1C", TinyFont.Compact([("five", true), ("nine", true), ("zero", true)], [1, 2, 3]))),
            read, claimed);
    }

    /// <summary>Glyphs of a collection have no names; whether one leaves a mark its program says all the same.</summary>
    [Fact]
    public void A_glyph_without_a_name_is_a_blank_only_if_it_leaves_no_mark() => Says(
        Read(
            "<0007000900070008000700070007>", "<< /Type /Font /Subtype /Type0 /BaseFont /Made /Encoding /Identity-H /DescendantFonts [8 0 R] /ToUnicode 7 0 R >>", ("", TinyFont.Map((7, "5"))),
            ("<< /Type /Font /Subtype /CIDFontType0 /BaseFont /Made /DW 600 /FontDescriptor 9 0 R >>", null), ("<< /Type /FontDescriptor /Flags 4 /FontFile3 10 0 R >>", null),
            ("/Subtype /CIDFontType0C", TinyFont.Compact([("7", true), ("8", false), ("9", true)]))),
        ["5\uFFFD5", "555", "Total"]);

    public static TheoryData<string, byte[], bool> Marks => new()
    {
        { "/CIDFontType2 /FontFile2", TinyFont.Outlined("590", true, true, true), true },
        { "/CIDFontType2 /FontFile2", TinyFont.Outlined("590", true, false, true), false },
        { "/CIDFontType2 /FontFile2", TinyFont.Outlined("590", true), true },
        { "/CIDFontType0 /FontFile3", TinyFont.Compact([("1", true), ("2", true), ("3", true)]), true },
        { "/CIDFontType0 /FontFile3", TinyFont.Compact([("1", true), ("2", false), ("3", true)]), false },
        { "/Type1 /FontFile3", TinyFont.Compact([("five", true), ("nine", false), ("zero", true)], [1, 2, 3]), false },
        { "/TrueType /FontFile2", TinyFont.Outlined("590", true, false, true), false },
    };

    /// <summary>A figure that the file claims of a glyph without an outline is one that nobody sees.</summary>
    [Theory]
    [MemberData(nameof(Marks))]
    public void A_figure_that_its_font_draws_nothing_for_is_not_seen(string kind, byte[] program, bool isSeen)
    {
        var (subtype, key) = (kind.Split(' ')[0], kind.Split(' ')[1]);
        var isComposite = subtype.StartsWith("/CID", StringComparison.Ordinal);
        var descriptor = ($"<< /Type /FontDescriptor /FontName /Made /Flags 32 {key} 10 0 R >>", (byte[]?)null);
        var (map, stream) = (("", (byte[]?)TinyFont.Map((1, "5"), (2, "9"), (3, "0"))), ($"/Subtype /{(isComposite ? "CIDFontType0C" : "Type1C")}", (byte[]?)program));
        var page = isComposite
            ? Read("<000100020003>", Composite, map, (Descendant.Replace("/CIDFontType2", subtype, StringComparison.Ordinal), null), descriptor, stream)
            : Read("<010203>", $"<< /Type /Font /Subtype {subtype} /BaseFont /Made /Encoding << /Differences [1 /five /nine /zero] >> /ToUnicode 7 0 R /FontDescriptor 9 0 R >>", map, ("<< >>", null), descriptor, stream);
        Assert.Equal(isSeen ? "590" : "5 0", page.Lines[0].Text.Replace("50", "5 0", StringComparison.Ordinal));
        Assert.Equal(isSeen ? [] : new[] { ("9", UnseenBy.NoInk) }, page.Unseen.Select(word => (word.Text, word.Why)));
    }

    /// <summary>A blank that leaves a mark is none: it may be a bar over a figure.</summary>
    [Theory]
    [InlineData(true, "5�0")]
    [InlineData(false, "5 0")]
    public void What_is_said_to_be_a_blank_and_is_drawn_cannot_be_told(bool isSeen, string read) => Assert.Equal(
        read,
        Read("<000100020003>", Composite, ("", TinyFont.Map((1, "5"), (2, " "), (3, "0"))), (Descendant, null), (Descriptor, null), ("", TinyFont.Outlined("5\u2002" + "0", true, isSeen, true))).Lines[0].Text);

    /// <summary>A font program or a map that is damaged is no reason to refuse a file whose letters have names.</summary>
    [Theory]
    [InlineData("/FontFile", "/Filter /FlateDecode")]
    [InlineData("/FontFile2", "/Filter /FlateDecode")]
    [InlineData("/FontFile3", "/Filter /Nonsense")]
    public void A_damaged_program_is_one_that_says_nothing(string key, string entries) => Says(
        Read(
            "<0102>", "<< /Type /Font /Subtype /Type1 /BaseFont /Made /Encoding << /Differences [1 /five /nine] >> /ToUnicode 7 0 R /FontDescriptor 8 0 R >>", ("/Filter /FlateDecode", "no map"u8.ToArray()),
            ($"<< /Type /FontDescriptor /Flags 4 {key} 9 0 R >>", null), (entries, "no program"u8.ToArray())),
        "59", null);

    /// <summary>The glyphs of a Type 3 font are drawings, whose names say nothing where the file has a map.</summary>
    [Theory]
    [InlineData("", "590")]
    [InlineData("1=7 2=8 3=6", "786")]
    public void Drawings_as_glyphs_are_what_the_map_says_or_else_their_names(string map, string read)
    {
        var texts = map.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(one => (one[0] - '0', one[2..])).ToArray();
        Says(
            Read(
                "<010203>",
                "<< /Type /Font /Subtype /Type3 /FontBBox [0 0 10 10] /FontMatrix [0.1 0 0 0.1 0 0] /FirstChar 1 /LastChar 3 /Widths [6 6 6] /CharProcs << /five 8 0 R /nine 8 0 R /zero 8 0 R >> "
                + "/Encoding << /Differences [1 /five /nine /zero] >> /ToUnicode 7 0 R >>",
                ("", TinyFont.Map(texts)), ("", "6 0 d0 0 0 5 5 re f"u8.ToArray())),
            read, null);
    }

    /// <summary>Widths are where the file has them: a list, a range, or what all others have.</summary>
    [Theory]
    [InlineData("/W [1 [500 250] 3 3 1000]", 100 + 5 + 2.5 + 10)]
    [InlineData("/W [1 3 400]", 100 + 4 + 4 + 4)]
    [InlineData("/DW 300", 100 + 3 + 3 + 3)]
    [InlineData("", 100 + 10 + 10 + 10)]
    public void Glyphs_are_as_wide_as_the_file_says(string widths, double right)
    {
        var page = Read(
            "<000100020003>", Composite, ("", TinyFont.Map((1, "a"), (2, "b"), (3, "c"))),
            ($"<< /Type /Font /Subtype /CIDFontType2 /BaseFont /Made {widths} >>", null));
        Assert.Equal(("abc", right), (page.Words[0].Text, Math.Round(page.Words[0].Box.Right, 3)));
    }

    [Fact]
    public void A_column_runs_down_the_page()
    {
        var page = Read(
            "<000100020003>", Composite.Replace("Identity-H", "Identity-V", StringComparison.Ordinal), ("", TinyFont.Map((1, "金"), (2, "合"), (3, "計"))),
            ("<< /Type /Font /Subtype /CIDFontType2 /BaseFont /Made /DW 1000 >>", null));
        var column = page.Words.Where(word => word.Text != "Total").ToList();
        Assert.Equal(["金", "合", "計"], column.Select(word => word.Text));
        Assert.All(column, word => Assert.Equal(95, word.Box.Left, 3));
        Assert.Equal([10, 10], column.Zip(column.Skip(1), (one, next) => Math.Round(next.Baseline - one.Baseline, 3)));
    }
}
