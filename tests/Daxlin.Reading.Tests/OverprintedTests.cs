using CsCheck;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Figures drawn over figures hold an invoice, since nobody can tell what they say; the same drawn twice does not.</summary>
public class OverprintedTests
{
    private static IEnumerable<string> Told(Page page) => Placing.FindingsOf(Assert.Single(InvoicePath.Take([page], [], DocumentFacts.Unknown)).Found)
        .Where(finding => finding.Code == "text-over-text").Select(finding => finding.Message);

    private static Page Drawn(params (double X, double Y, string Text)[] items) => Assert.Single(PdfReader.Read(TinyPdf.OnePage(TinyPdf.Text([(50, 780, "Turn & Sons"), .. items]))));

    [Fact]
    public void Figures_over_other_figures_are_told_wherever_they_overlap() =>
        Gen.Select(Gen.Int[100, 99_999], Gen.Int[100, 99_999], Gen.Double[-0.2, 0.2], Gen.Double[-4, 4]).Sample((one, other, right, up) =>
        {
            var (first, second) = ($"{one / 100m:F2}", $"{other / 100m:F2}");
            if (first == second)
                return;
            var told = string.Join(' ', Told(Drawn((460, 620, first), (460 + right * 5, 620 + up, second))));
            Assert.Contains("draws text over text, so that nobody can tell what it says: ", told, StringComparison.Ordinal);
        }, iter: 300);

    [Theory]
    [InlineData(0.4, 0)]
    [InlineData(0, 0)]
    [InlineData(0.6, 0.6)]
    public void What_is_drawn_twice_to_look_bold_or_raised_is_one(double right, double up)
    {
        var page = Drawn((460, 620, "1,204.50"), (460 + right, 620 + up, "1,204.50"));
        Assert.Empty(Told(page));
        Assert.Equal("1,204.50", page.Words[^1].Text);
    }

    [Fact]
    public void A_figure_on_the_line_of_a_form_lies_over_nothing() => Assert.Empty(Told(Drawn((460, 620, "________"), (463, 620, "14.03.2026"))));

    [Fact]
    public void Figures_up_a_margin_lie_over_nothing() => Assert.Empty(Told(Assert.Single(PdfReader.Read(TinyPdf.OnePage(
        TinyPdf.Text((50, 780, "Turn & Sons"), (50, 760, "Invoice")) + " BT /F1 8 Tf 0 1 -1 0 20 300 Tm (Register 4711 of 2019, page 12) Tj ET")))));

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void No_family_draws_text_over_text(string family) => Assert.All(
        Directory.GetFiles(Repository.Path(family), "*.pdf"),
        file => Assert.All(PdfReader.Read(File.ReadAllBytes(file)), page => Assert.DoesNotContain("draws text over text", string.Join(' ', Told(page)), StringComparison.Ordinal)));
}
