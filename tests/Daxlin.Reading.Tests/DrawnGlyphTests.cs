using System.Text;
using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Glyphs that are drawings: they hide what lies under them, and are read as what they draw.</summary>
public sealed class DrawnGlyphTests
{
    private const string Font = "<< /Type /Font /Subtype /Type3 /FontBBox [0 0 1000 1000] /FontMatrix [0.001 0 0 0.001 0 0] /FirstChar 97 /LastChar 99 /Widths [600 600 600] /CharProcs << /box 7 0 R /nine 8 0 R /minus 9 0 R >> "
        + "/Encoding << /Differences [97 /box /nine /minus] >> /ToUnicode 10 0 R /Resources << /Font << /F1 3 0 R >> >> >>";

    private const string Claims = "1 beginbfchar <61> <0020> endbfchar 1 beginbfchar <62> <0039> endbfchar 1 beginbfchar <63> <002D> endbfchar";

    /// <param name="drawings">What the glyphs a, b and c draw; they are said to be a blank, a 9 and a minus.</param>
    private static Page Read(string content, params string[] drawings) => PdfReader.Read(TinyPdf.WithFont(
        content + " 0 g BT /F1 10 Tf 1 0 0 1 100 300 Tm (Total) Tj ET", Font,
        [.. drawings.Select(drawing => ("", (byte[]?)Encoding.ASCII.GetBytes(drawing))), ("", Encoding.ASCII.GetBytes(Claims))]))[0];

    private const string Filled = "600 0 0 -200 600 900 d1 1 0 0 rg -100 -200 800 1100 re f", Figure = "BT 0 g /F1 10 Tf 1 0 0 1 100 700 Tm (8) Tj ET";

    [Theory]
    [InlineData("1 g", Filled, false)]
    [InlineData("1 g", "600 0 d0 1 1 1 rg -100 -200 800 1100 re f", false)]
    [InlineData("1 g", "600 0 d0 q 800 0 0 1100 -100 -200 cm BI /W 1 /H 1 /BPC 8 /CS /G ID x EI Q", false)]
    [InlineData("1 g", "600 0 d0", true)]
    [InlineData("1 g", "600 0 d0 1 1 1 rg -100 -200 800 200 re f", true)]
    public void A_glyph_hides_what_lies_under_it(string ink, string drawing, bool isSeen)
    {
        var page = Read($"{Figure} {ink} BT /F2 10 Tf 1 0 0 1 100 700 Tm (a) Tj ET", drawing, "", "");
        Assert.Equal((isSeen, !isSeen), (page.Words.Any(word => word.Text == "8"), page.Unseen.Any(word => word.Text == "8")));
    }

    /// <summary>The colours of a glyph that is drawn in the ink of its text say nothing, those of another do.</summary>
    [Theory]
    [InlineData(Filled, "1 g", true)]
    [InlineData(Filled, "1 0 0 rg", false)]
    [InlineData("600 0 d0 1 0 0 rg -100 -200 800 1100 re f", "1 0 0 rg", true)]
    public void A_figure_stands_on_what_a_glyph_draws(string drawing, string letter, bool isHidden)
    {
        var page = Read($"1 g BT /F2 10 Tf 1 0 0 1 100 700 Tm (a) Tj ET {letter} BT /F1 10 Tf 1 0 0 1 100 700 Tm (8) Tj ET", drawing, "", "");
        Assert.Equal((!isHidden, isHidden), (page.Words.Any(word => word.Text == "8"), page.Unseen.Any(word => word.Text == "8")));
    }

    [Theory]
    [InlineData("600 0 d0 BT /F1 1000 Tf (5) Tj ET", "5", "9")]
    [InlineData("600 0 d0 BT /F1 1000 Tf (9) Tj ET", "9", null)]
    [InlineData("600 0 d0 0 0 400 700 re f", "9", null)]
    [InlineData("600 0 d0 BT /F2 1000 Tf (b) Tj ET", "9", null)]
    public void A_glyph_of_letters_is_those_letters(string drawing, string read, string? claimed)
    {
        var page = Read("BT /F2 10 Tf 1 0 0 1 100 700 Tm (b) Tj ET", "", drawing, "");
        Assert.Equal(read, page.Lines[0].Text);
        Assert.Equal(claimed is null ? [] : new[] { (claimed, read, UnseenBy.Claimed) }, page.Unseen.Select(word => (word.Text, word.Drawn!, word.Why)));
    }

    /// <summary>A minus is a bar all over, and is seen on the page for that; it is no ruling.</summary>
    [Fact]
    public void A_glyph_does_not_hide_itself()
    {
        var page = Read("BT 0 g /F2 20 Tf 1 0 0 1 100 700 Tm (cb) Tj ET", "", "600 0 0 0 600 700 d1 0 0 500 700 re f", "600 0 0 0 600 700 d1 0 250 600 100 re f");
        Assert.Equal("-9", page.Lines[0].Text);
        Assert.Empty(page.Unseen);
        Assert.Empty(page.Strokes);
    }
}
