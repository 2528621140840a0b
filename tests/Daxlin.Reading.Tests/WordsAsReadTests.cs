using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Words come out as a person reads them, however the producer drew them.</summary>
public class WordsAsReadTests
{
    private static List<string> LinesOf(byte[] pdf) => [.. PdfReader.Read(pdf).SelectMany(page => page.Lines).Select(line => line.Text)];

    private static List<string> LinesOf(string file) => LinesOf(File.ReadAllBytes(Path.Combine(Repository.Corpus, file)));

    [Theory]
    [InlineData("solvinge-chromium/inv-6.pdf", "KREDITNOTA NR / CREDIT NO DATUM / DATE")]
    [InlineData("solvinge-chromium/inv-6.pdf", "Solvinge Odlingsljus AB – ljus, vatten & styrning")]
    [InlineData("solvinge-chromium/inv-6.pdf", "Plantskolan, yttre bänkar")]
    [InlineData("wendmark-pdfmake/inv-3.pdf", "INVOICE")]
    [InlineData("minasoko-reportlab/inv-1.pdf", "Total payable ¥862,835")]
    [InlineData("minasoko-reportlab/inv-1.pdf", "Code Description Qty Unit Unit price Amount")]
    [InlineData("hollin-latex/inv-3.pdf", "Cable brace inspection and certification, Fern Gully GBP 138.18 20 % GBP 138.18")]
    [InlineData("tarnbeck-writer/inv-5.pdf", "Offcuts and stillages remain our property. Five per cent of specified flat panes are officially certified; certificates on file.")]
    public void Letter_spacing_small_capitals_ligatures_and_double_drawing_do_not_show(string file, string line) =>
        Assert.Contains(line, LinesOf(file));

    [Fact]
    public void Every_file_of_the_corpus_and_of_the_demo_is_read()
    {
        var files = Directory.GetFiles(Repository.Corpus, "*.pdf", SearchOption.AllDirectories)
            .Concat(Directory.GetFiles(Repository.Samples, "*.pdf", SearchOption.AllDirectories)).ToList();
        Assert.True(files.Count >= 65, $"only {files.Count} files");
        Assert.All(files, file => Assert.All(PdfReader.Read(File.ReadAllBytes(file)), page =>
        {
            Assert.All(page.Words, word => Assert.Equal(word.Text.Length, word.Stops.Length));
            Assert.All(page.Words, word => Assert.InRange(word.Box.CenterX, 0, page.Width));
            Assert.All(page.Words, word => Assert.InRange(word.Box.CenterY, 0, page.Height));
        }));
    }

    [Theory]
    [InlineData("[(T) -20 (otal) 60 ( due)] TJ", "Total due")]
    [InlineData("8 Tc (TOTAL) Tj", "TOTAL")]
    [InlineData("(T O T A L) Tj", "TOTAL")]
    [InlineData("(Total) Tj 1 0 0 1 100.4 700 Tm (Total) Tj", "Total")]
    [InlineData("[(Caf) (\\264) 445 (e)] TJ", "Café")]
    [InlineData("[(M) (\\250) 445 (uller) -600 (\\250) 555 (O)] TJ", "Müller Ö")]
    [InlineData("[(gar) (\\270) 417 (con)] TJ", "garçon")]
    [InlineData("(4\\264 e) Tj", "4´ e")]
    [InlineData("[(5) (\\264) 300 (4)] TJ", "5´4")]
    [InlineData("[(Unit) -400 (price)] TJ", "Unit price")]
    [InlineData("(Total) Tj 3 Tr 1 0 0 1 100 650 Tm (hidden) Tj", "Total")]
    [InlineData("(Total) Tj 1 0 0 1 700 650 Tm (beyond) Tj", "Total")]
    public void Kerned_spaced_doubled_and_hidden_text_reads_as_printed(string drawing, string expected) =>
        Assert.Equal([expected], LinesOf(TinyPdf.OnePage($"BT /F1 10 Tf 1 0 0 1 100 700 Tm {drawing} ET")));

    [Theory]
    [InlineData("", 100, 134.5)]
    [InlineData("/CropBox [50 100 400 800]", 50, 92.5)]
    [InlineData("/Rotate 180", 492, 700)]
    public void Boxes_are_in_points_from_the_top_left_as_a_person_sees_the_page(string entries, double left, double top)
    {
        var page = PdfReader.Read(TinyPdf.OnePage(TinyPdf.Text((100, 700, "Total")), entries))[0];
        var word = Assert.Single(page.Words);
        if (entries == "/Rotate 180")
        {
            Assert.Equal((Drawn.UpsideDown, "Total"), (page.Drawn, word.Text));
            Assert.Equal(595 - 100, page.AsSeen(word.Box).Right, 0.5);
            Assert.Equal(top + 0.75 * 10, page.AsSeen(word.Box).Bottom, 0.5);
        }
        else
        {
            Assert.Equal("Total", word.Text);
            Assert.Equal(left, word.Box.Left, 0.5);
            Assert.Equal(top, word.Box.Top, 0.5);
        }
    }

    [Fact]
    public void A_page_drawn_turned_and_shown_upright_reads_upright()
    {
        // Drawn from bottom to top on a portrait page, which /Rotate 90 turns into a landscape one.
        var content = "BT /F1 10 Tf 0 1 -1 0 200 300 Tm (Total due) Tj ET";
        var page = PdfReader.Read(TinyPdf.OnePage(content, "/Rotate 90"))[0];
        Assert.Equal(842, page.Width, 0.5);
        Assert.Equal("Total due", Assert.Single(page.Lines).Text);
        Assert.Equal(300, page.Lines[0].Box.Left, 0.5);
        Assert.Equal(200 - 7.5, page.Lines[0].Box.Top, 0.5);
    }

    [Fact]
    public void A_note_up_the_margin_is_kept_apart_from_the_lines()
    {
        var content = TinyPdf.Text((100, 700, "Total")) + "BT /F1 10 Tf 0 1 -1 0 20 300 Tm (margin note) Tj ET";
        var page = PdfReader.Read(TinyPdf.OnePage(content))[0];
        Assert.Equal("Total", Assert.Single(page.Lines).Text);
        var turned = page.Words.Where(word => word.Turn == Turn.Turned).ToList();
        Assert.Equal(["margin", "note"], turned.Select(word => word.Text));
        Assert.InRange(turned[0].Box.Bottom, 842 - 300 - 1, 842 - 300 + 1);
    }
}
