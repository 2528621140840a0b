using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Content streams are carried out as their operators say (ISO 32000-2, 8 and 9).</summary>
public sealed class ContentTests
{
    private static Page Read(string content) => PdfReader.Read(TinyPdf.OnePage(content + " BT 0 g /F1 10 Tf 1 0 0 1 300 100 Tm (Total) Tj ET"))[0];

    /// <summary>Where a text starts and ends on its line, in points from the page's top left; Helvetica's A is 0.667 wide, its blank 0.278.</summary>
    [Theory]
    [InlineData("BT /F1 10 Tf 100 700 Td (AA) Tj ET", 100, 113.34, 142)]
    [InlineData("BT /F1 10 Tf 1 Tc 100 700 Td (AA) Tj ET", 100, 114.34, 142)]
    [InlineData("BT /F1 10 Tf 200 Tz 100 700 Td (AA) Tj ET", 100, 126.68, 142)]
    [InlineData("BT /F1 10 Tf 5 Ts 100 700 Td (AA) Tj ET", 100, 113.34, 137)]
    [InlineData("BT /F1 10 Tf 12 TL 100 700 Td T* (AA) Tj ET", 100, 113.34, 154)]
    [InlineData("BT /F1 10 Tf 100 700 Td 0 -12 TD T* (AA) Tj ET", 100, 113.34, 166)]
    [InlineData("BT /F1 10 Tf 12 TL 100 700 Td (AA) ' ET", 100, 113.34, 154)]
    [InlineData("BT /F1 10 Tf 12 TL 100 700 Td 0 1 (AA) \" ET", 100, 114.34, 154)]
    [InlineData("BT /F1 10 Tf 100 700 Td [(A) -100 (A)] TJ ET", 100, 114.34, 142)]
    [InlineData("BT /F1 10 Tf 50 Tz 100 700 Td [(A) -100 (A)] TJ ET", 100, 107.17, 142)]
    [InlineData("BT /F1 5 Tf 2 0 0 2 100 700 Tm (AA) Tj ET", 100, 113.34, 142)]
    [InlineData("2 0 0 2 0 0 cm BT /F1 5 Tf 50 350 Td (AA) Tj ET", 100, 113.34, 142)]
    [InlineData("q 1 0 0 1 50 0 cm Q BT /F1 10 Tf 100 700 Td (AA) Tj ET", 100, 113.34, 142)]
    [InlineData("Q Q q BT /F1 10 Tf 100 700 Td (AA) Tj ET", 100, 113.34, 142)]
    [InlineData("BT/F1 10 Tf 1 0 0 1 100 700 Tm(A)Tj(A)Tj ET", 100, 113.34, 142)]
    [InlineData("BT /F#31 +10. Tf 1.000 0 0 1 100.0 700. Tm <4141> Tj ET % (BB) Tj", 100, 113.34, 142)]
    [InlineData("BT /F1 10 Tf 100 700 Td (\\101\\\n\\101) Tj ET", 100, 113.34, 142)]
    [InlineData("BT /F1 10 Tf 100 700 Td <41 4 1> Tj ET", 100, 113.34, 142)]
    public void Text_stands_where_its_operators_put_it(string content, double left, double right, double baseline)
    {
        var word = Assert.Single(Read($"q {content} Q").Words, word => word.Text != "Total");
        Assert.Equal(("AA", left, right, baseline), (word.Text, Math.Round(word.Box.Left, 2), Math.Round(word.Box.Right, 2), Math.Round(word.Baseline, 2)));
    }

    /// <summary>Letters that could be operators within a picture that stands in the content.</summary>
    [Theory]
    [InlineData("BI /W 4 /H 1 /BPC 8 /CS /G ID EI Q EI")]
    [InlineData("BI /W 2 /H 2 /IM true ID (( EI")]
    [InlineData("BI /W 9 /H 9 /F /AHx ID 00 EI\u00FFQ 01> EI")]
    [InlineData("BI /W 1 /H 2 /BPC 8 /CS /RGB ID (((((( EI")]
    [InlineData("BI /Width 1 /Height 1 /BitsPerComponent 8 /ColorSpace /DeviceCMYK ID ((EI EI")]
    public void A_picture_in_the_content_is_passed_over(string picture) =>
        Assert.Equal(["Before", "Total"], Read($"BT /F1 10 Tf 100 700 Td (Before) Tj ET q 1 0 0 1 500 500 cm {picture} Q").Words.Select(word => word.Text));

    private const string Figures = "BT 0 g /F1 10 Tf 1 0 0 1 100 700 Tm (9,500.00) Tj ET";

    /// <summary>Areas hide, and clips cut, by what lies within their outline.</summary>
    [Theory]
    [InlineData(Figures + " 1 g 90 690 200 30 re 90 690 200 30 re f", UnseenBy.Covered)]
    [InlineData(Figures + " 1 g 90 690 200 30 re 90 690 200 30 re f*", null)]
    [InlineData("q 90 690 200 30 re 90 690 200 30 re W n " + Figures + " Q", null)]
    [InlineData("q 90 690 200 30 re 90 690 200 30 re W* n " + Figures + " Q", UnseenBy.Clipped)]
    [InlineData("q 90 600 m 300 600 l 300 680 l h W n " + Figures + " Q", UnseenBy.Clipped)]
    [InlineData("q 50 600 m 400 600 l 50 900 l h W n " + Figures + " Q", null)]
    [InlineData("q 90 600 m 500 600 l 500 1100 l h W n " + Figures + " Q", UnseenBy.Clipped)]
    [InlineData("q 50 600 m 400 600 l 50 900 l h W n 0 0 600 900 re W n " + Figures + " Q", null)]
    [InlineData("q 90 600 m 500 600 l 500 1100 l h W n 0 0 600 900 re W n " + Figures + " Q", UnseenBy.Clipped)]
    [InlineData(Figures + " q 90 600 m 500 600 l 500 1100 l h W n 1 g 0 600 500 300 re f Q", null)]
    [InlineData("q 0 0 50 50 re W Q " + Figures, null)]
    public void What_is_hidden_is_told_by_outlines(string content, UnseenBy? why)
    {
        var page = Read(content);
        Assert.Equal(why is null ? ["9,500.00", "Total"] : ["Total"], page.Words.Select(word => word.Text));
        Assert.Equal(why is null ? [] : new[] { why.Value }, page.Unseen.Select(word => word.Why));
    }

    /// <summary>What is drawn as one group is laid on the page with what the group is laid on with.</summary>
    [Theory]
    [InlineData("/Group << /S /Transparency >>", "<< /ca 0.02 /CA 0.02 >>", UnseenBy.NoInk)]
    [InlineData("", "<< /ca 0.02 /CA 0.02 >>", UnseenBy.NoInk)]
    [InlineData("/Group << /S /Transparency >>", "<< /ca 0.9 /CA 0.9 >>", null)]
    [InlineData("/Group << /S /Transparency >>", "<< /BM /Multiply >>", null)]
    [InlineData("/Matrix [1 0 0 1 600 0]", "<< >>", UnseenBy.OffPage)]
    [InlineData("/BBox [0 0 50 50]", "<< >>", UnseenBy.Clipped)]
    public void A_drawing_is_laid_on_the_page(string form, string state, UnseenBy? why)
    {
        var page = PdfReader.Read(TinyPdf.WithForm("q /Faint gs /X Do Q BT /F1 10 Tf 100 300 Td (Total) Tj ET", $"{form} {(form.Contains("BBox", StringComparison.Ordinal) ? "" : "/BBox [0 0 600 900]")}", Figures, state))[0];
        Assert.Equal(why is null ? ["9,500.00", "Total"] : ["Total"], page.Words.Select(word => word.Text));
        Assert.Equal(why is null ? [] : new[] { why.Value }, page.Unseen.Select(word => word.Why));
    }

    [Theory]
    [InlineData("/UserUnit 2", 200, 284, 1190)]
    [InlineData("/CropBox [50 100 400 800]", 50, 100, 350)]
    [InlineData("/CropBox [400 800 50 100]", 50, 100, 350)]
    [InlineData("/MediaBox [0 0 300 800] /CropBox [0 0 9000 9000]", 100, 100, 300)]
    public void A_page_is_as_large_as_a_person_sees_it(string entries, double left, double baseline, double width)
    {
        var page = PdfReader.Read(TinyPdf.OnePage(Figures, entries))[0];
        var word = Assert.Single(page.Words);
        Assert.Equal((left, baseline, width), (Math.Round(word.Box.Left, 2), Math.Round(word.Baseline, 2), page.Width));
    }

    private const string Spaces =
        "/ColorSpace << /Grey [/ICCBased << /N 1 >>] /Plain /DeviceRGB /Table [/Indexed /DeviceRGB 1 <FFFFFF000000>] "
        + "/Spot [/Separation /Made /DeviceRGB << /FunctionType 2 /Domain [0 1] /C0 [1 1 1] /C1 [0 0 0] /N 1 >>] /Strange [/Made] >>";

    /// <summary>White is white in whatever space it is said; where nobody can say which colour it is, the text is taken for seen.</summary>
    [Theory]
    [InlineData("/DeviceGray cs 1 sc", false)]
    [InlineData("/DeviceGray cs 0 sc", true)]
    [InlineData("/DeviceCMYK cs 0 0 0 0 sc", false)]
    [InlineData("/Grey cs 1 scn", false)]
    [InlineData("/Plain cs 1 1 1 scn", false)]
    [InlineData("/Plain cs", true)]
    [InlineData("/Table cs 0 scn", false)]
    [InlineData("/Table cs 1 scn", true)]
    [InlineData("/Spot cs 0 scn", false)]
    [InlineData("/Spot cs 1 scn", true)]
    [InlineData("/Strange cs 1 scn", true)]
    [InlineData("/Missing cs 1 scn", true)]
    [InlineData("/Pattern cs /P1 scn", true)]
    [InlineData("1 g /DeviceRGB CS 0 0 0 SC", false)]
    [InlineData("1 g 1 Tr 0 G", true)]
    [InlineData("0 g 1 Tr 1 G", false)]
    public void Ink_is_told_in_any_space(string ink, bool isSeen)
    {
        var page = PdfReader.Read(TinyPdf.OnePage($"q {ink} BT /F1 10 Tf 100 700 Td (9,500.00) Tj ET Q BT /F1 10 Tf 100 300 Td (Total) Tj ET", resources: Spaces))[0];
        Assert.Equal(isSeen ? ["9,500.00", "Total"] : ["Total"], page.Words.Select(word => word.Text));
    }
}
