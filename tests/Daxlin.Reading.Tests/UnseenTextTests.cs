using System.Globalization;
using CsCheck;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading.Recognising;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>What a person does not see is not captured, and hidden figures hold an invoice.</summary>
public sealed class UnseenTextTests
{
    private const string Figures = "BT /F1 10 Tf 1 0 0 1 100 700 Tm (9,500.00) Tj ET";

    private const string Resources =
        "/ExtGState << /Half << /ca 0.5 >> /Veil << /ca 0.8 >> /Faint << /ca 0.02 >> /Whole << /ca 1 >> /Darker << /BM /Multiply >> >> "
        + "/Shading << /Run << /ShadingType 2 /ColorSpace /DeviceRGB /Coords [0 0 600 0] /Function << /FunctionType 2 /Domain [0 1] /C0 [0 0 1] /C1 [1 0 0] /N 1 >> /Extend [true true] >> >>";

    private static Page Read(string content) => PdfReader.Read(TinyPdf.OnePage(content + "\n/Whole gs BT 0 g /F1 10 Tf 1 0 0 1 100 300 Tm (Total) Tj ET", resources: Resources))[0];

    [Theory]
    [InlineData("1 g " + Figures, UnseenBy.SameColour)]
    [InlineData("0.95 g " + Figures, UnseenBy.SameColour)]
    [InlineData("0 0 0 0 k " + Figures, UnseenBy.SameColour)]
    [InlineData("0 0 1 rg 90 690 200 30 re f 0 0 0.98 rg " + Figures, UnseenBy.SameColour)]
    [InlineData("0 g 90 690 200 30 re f 1 g 90 690 200 30 re f " + Figures, UnseenBy.SameColour)]
    [InlineData(Figures + " 1 g 90 690 200 30 re f", UnseenBy.Covered)]
    [InlineData(Figures + " 0 0 1 rg 50 700 m 150 900 l 250 700 l 150 500 l h B", UnseenBy.Covered)]
    [InlineData(Figures + " 1 G 20 w 90 703 m 300 703 l S", UnseenBy.Covered)]
    [InlineData(Figures + " q 80 0 0 20 90 695 cm BI /W 1 /H 1 /BPC 8 /CS /G ID x EI Q", UnseenBy.Covered)]
    [InlineData("q 90 690 200 30 re W n /Run sh Q " + Figures + " q 90 690 200 30 re W n /Run sh Q", UnseenBy.Covered)]
    [InlineData(Figures + " /Veil gs 1 g 90 690 200 30 re f 90 690 200 30 re f", UnseenBy.Covered)]
    [InlineData("/Faint gs " + Figures, UnseenBy.NoInk)]
    [InlineData("/Faint gs 0 g 90 690 200 30 re f /Whole gs 1 g " + Figures, UnseenBy.SameColour)]
    [InlineData("/Half gs 0 g 90 690 200 30 re f /Whole gs 0.5 g " + Figures, UnseenBy.SameColour)]
    [InlineData("q 0 0 50 50 re W n " + Figures + " Q", UnseenBy.Clipped)]
    [InlineData("3 Tr " + Figures + " 0 Tr", UnseenBy.NoInk)]
    [InlineData("BT /F1 1.5 Tf 1 0 0 1 100 700 Tm (9,500.00) Tj ET", UnseenBy.TooSmall)]
    [InlineData("0.1 0 0 0.1 90 630 cm " + Figures + " 10 0 0 10 -900 -6300 cm", UnseenBy.TooSmall)]
    [InlineData("BT /F1 10 Tf 1 0 0 1 700 700 Tm (9,500.00) Tj ET", UnseenBy.OffPage)]
    [InlineData("1 g BT /F1 10 Tf 0 1 -1 0 100 700 Tm (9,500.00) Tj ET", UnseenBy.SameColour)]
    public void Text_that_leaves_no_mark_is_kept_apart_with_its_reason(string content, UnseenBy why)
    {
        var page = Read(content);
        Assert.Equal(["Total"], page.Words.Select(word => word.Text));
        Assert.Equal([("9,500.00", why)], page.Unseen.Select(word => (word.Text, word.Why)));
        Assert.InRange(page.Unseen[0].Box.CenterX, 90, 750);
    }

    [Theory]
    [InlineData("0.8 g " + Figures)]
    [InlineData("0 0 0.4 rg 90 690 200 30 re f 1 g " + Figures)]
    [InlineData("1 g 90 690 200 30 re f 0 g " + Figures)]
    [InlineData("q 90 690 200 30 re W n /Run sh Q 1 g " + Figures)]
    [InlineData("/Half gs 0 g 90 690 200 30 re f /Whole gs 1 g " + Figures)]
    [InlineData(Figures + " /Half gs 1 g 90 690 200 30 re f")]
    [InlineData(Figures + " /Veil gs 1 g 90 690 200 30 re f")]
    [InlineData(Figures + " /Darker gs 1 1 0 rg 90 690 200 30 re f")]
    [InlineData(Figures + " 1 G 2 w 90 703 m 300 703 l S")]
    [InlineData(Figures + " 1 g 90 690 200 30 re n")]
    [InlineData(Figures + " 90 690 200 30 re S")]
    [InlineData(Figures + " 1 g 90 703 200 1 re f")]
    [InlineData(Figures + " 1 g 200 690 200 30 re f 90 720 100 30 re f")]
    [InlineData(Figures + " q 0 0 50 50 re W n 1 g 90 690 200 30 re f Q")]
    [InlineData("q 0 0 50 50 re W n Q " + Figures)]
    [InlineData(Figures + " 1 g 50 600 m 250 600 l 250 800 l h 90 690 m h f")]
    public void Text_that_is_seen_is_read(string content)
    {
        var page = Read(content);
        Assert.Equal(["9,500.00", "Total"], page.Words.Select(word => word.Text).Order());
        Assert.Empty(page.Unseen);
    }

    [Theory]
    [InlineData("(9,500.00)", "(5,900.00)", "5,900.00", "9,500.00")]
    [InlineData("(Paid)", "(Due)", "Due", "Paid")]
    [InlineData("(Total due)", "(TOTAL DUE)", "Total due", null)]
    [InlineData("(5,900.00)", "(5,900.00)", "5,900.00", null)]
    [InlineData("<FEFF00AD>", "(-)", "-", null)]
    public void What_the_file_claims_of_letters_counts_only_where_it_is_what_they_draw(string claimed, string drawn, string read, string? told)
    {
        var page = Read($"/Span << /ActualText {claimed} >> BDC BT /F1 10 Tf 1 0 0 1 100 700 Tm {drawn} Tj ET EMC");
        Assert.Equal(read, page.Lines[0].Text);
        Assert.Equal(told is null ? [] : new[] { (told, read, UnseenBy.Claimed) }, page.Unseen.Select(word => (word.Text, word.Drawn, word.Why)));
    }

    /// <summary>Areas in any order and colour, and a figure among them: it is unseen if and only if the page looks the same without it.</summary>
    [Fact]
    public void A_figure_is_seen_if_the_page_looks_otherwise_without_it()
    {
        var colours = Gen.Int[0, 4].Select(at => new[] { "0 g", "1 g", "0.5 g", "1 0 0 rg", "0 0 1 rg" }[at]);
        var areas = Gen.Select(colours, Gen.Int[0, 4], Gen.Int[0, 4], Gen.Int[1, 4], Gen.Int[1, 4]).Array[0, 6];
        var (seen, unseen) = (0, 0);
        Gen.Select(areas, areas, colours, Gen.Int[0, 4], Gen.Int[0, 4]).Sample(
            (under, over, ink, column, row) =>
            {
                string Drawn(IEnumerable<(string, int, int, int, int)> all) => string.Join(' ', all.Select(area =>
                    string.Create(CultureInfo.InvariantCulture, $"{area.Item1} {40 * area.Item2} {40 * area.Item3} {40 * area.Item4} {40 * area.Item5} re f")));
                string Page(string letter) => $"{Drawn(under)} BT {ink} /F1 12 Tf 1 0 0 1 {(40 * column) + 15} {(40 * row) + 15} Tm ({letter}) Tj ET {Drawn(over)}";
                var isSeen = !Looks(Page("8")).SequenceEqual(Looks(Page(" ")));
                var page = PdfReader.Read(TinyPdf.OnePage(Page("8") + " 0 g BT /F1 10 Tf 1 0 0 1 400 800 Tm (Total) Tj ET"))[0];
                Assert.Equal(isSeen, page.Words.Any(word => word.Text == "8"));
                Assert.Equal(!isSeen, page.Unseen.Any(word => word.Text == "8"));
                (seen, unseen) = (seen + (isSeen ? 1 : 0), unseen + (isSeen ? 0 : 1));
            },
            iter: 60, threads: 1);
        Assert.True(seen > 10 && unseen > 10, $"{seen} were seen and {unseen} were not");
    }

    private const string Over = "/Rect [95 695 195 715] /AP << /N 6 0 R >>";

    [Theory]
    [InlineData("/Subtype /Stamp " + Over, "1 g 0 0 100 20 re f 0 g BT /F1 10 Tf 1 0 0 1 5 5 Tm (5,900.00) Tj ET", "5,900.00 Total", "9,500.00")]
    [InlineData("/Subtype /Stamp /F 2 " + Over, "1 g 0 0 100 20 re f", "9,500.00 Total", "")]
    [InlineData("/Subtype /Stamp /F 32 " + Over, "1 g 0 0 100 20 re f", "9,500.00 Total", "")]
    [InlineData("/Subtype /Popup " + Over, "1 g 0 0 100 20 re f", "9,500.00 Total", "")]
    [InlineData("/Subtype /Stamp /Rect [95 695 195 715]", "1 g 0 0 100 20 re f", "9,500.00 Total", "")]
    [InlineData("/Subtype /Widget /FT /Tx /Rect [300 695 400 715] /AP << /N 6 0 R >>", "BT /F1 10 Tf 1 0 0 1 5 5 Tm (paid) Tj ET", "9,500.00 paid Total", "")]
    [InlineData("/Subtype /Widget /FT /Btn /AS /On /Rect [300 695 400 715] /AP << /N << /On 6 0 R >> >>", "BT /F1 10 Tf 1 0 0 1 5 5 Tm (x) Tj ET", "9,500.00 x Total", "")]
    [InlineData("/Subtype /Widget /FT /Btn /AS /Off /Rect [300 695 400 715] /AP << /N << /On 6 0 R >> >>", "BT /F1 10 Tf 1 0 0 1 5 5 Tm (x) Tj ET", "9,500.00 Total", "")]
    [InlineData("/Subtype /Stamp /Rect [95 695 295 735] /AP << /N 6 0 R >>", "1 g 0 0 40 20 re f", "9,500.00 Total", "", "/BBox [0 0 400 20] /Matrix [0.5 0 0 1 0 0]", "q 1 0 0 1 100 0 cm " + Figures + " Q")]
    [InlineData("/Subtype /Stamp /Rect [95 695 195 715] /AP << /N 6 0 R >>", "1 g 0 0 500 500 re f", "9,500.00 Total", "", "/BBox [0 0 100 20]", "q 1 0 0 1 0 40 cm " + Figures + " Q")]
    public void Annotations_and_form_fields_are_drawn_over_the_page(string annotation, string drawing, string read, string unseen, string form = "/BBox [0 0 100 20]", string content = Figures)
    {
        var page = PdfReader.Read(TinyPdf.Annotated(content + " BT /F1 10 Tf 1 0 0 1 100 300 Tm (Total) Tj ET", annotation, form, drawing))[0];
        Assert.Equal(read, string.Join(' ', page.Lines.Select(line => line.Text)));
        Assert.Equal(unseen, string.Join(' ', page.Unseen.Select(word => word.Text)));
    }

    private static byte[] Looks(string content) => Rasteriser.Draw(TinyPdf.OnePage(content), (0, 600, 260, 242));

    private static CheckedInvoice? Capture(string file)
    {
        var template = TemplateReader.Read(File.ReadAllText(Path.Combine(Repository.Samples, "halvard-marine-diesel", "halvard.template.json")));
        return Assert.Single(InvoicePath.Take(PdfReader.Read(File.ReadAllBytes(Repository.Path("tests/cases/tricks/" + file))), [template], DocumentFacts.Unknown)).Checked;
    }

    /// <summary>Words without figures that nobody sees are left alone, but for what a template steers by.</summary>
    [Theory]
    [InlineData("1 g BT /F1 10 Tf 1 0 0 1 100 650 Tm (Total due) Tj ET", "“Total due”")]
    [InlineData("3 Tr BT /F1 10 Tf 1 0 0 1 100 650 Tm (Unit) Tj 30 0 Td (price) Tj ET 0 Tr", "“Unit price”")]
    [InlineData("1 g BT /F1 10 Tf 1 0 0 1 100 650 Tm (Made with care) Tj ET", null)]
    [InlineData("1 g BT /F1 10 Tf 1 0 0 1 102 600.5 Tm (Total due) Tj ET", null)]
    public void What_the_template_steers_by_is_told_where_nobody_sees_it(string hidden, string? told)
    {
        var template = TemplateReader.Read("""
            { "name": "shore", "vendor": "Shore", "reads": { "currency": "GBP", "dates": "day-first", "decimal": ".", "grouping": "," }, "recognise": { "must": ["Shore"] },
              "fields": { "invoiceNumber": { "where": [{ "beside": "No" }] }, "invoiceDate": { "where": [{ "beside": "Date" }] }, "total": { "where": [{ "beside": "Total due" }] } },
              "blocks": [{ "name": "goods", "closes": ["Total due"], "columns": { "description": { "heading": "Goods" }, "unitPrice": { "heading": "Unit price" }, "amount": { "heading": "Amount" } }, "row": { "begins": { "filled": "amount" } } }] }
            """);
        string Line(int left, int height, string text) => string.Create(CultureInfo.InvariantCulture, $"BT /F1 10 Tf 1 0 0 1 {left} {height} Tm ({text}) Tj ET ");
        var seen = "0 g " + Line(100, 780, "Shore") + Line(100, 760, "No 7") + Line(300, 760, "Date 1/11/2026") + Line(100, 740, "Goods") + Line(250, 740, "Unit price") + Line(400, 740, "Amount")
            + Line(100, 720, "Rope") + Line(250, 720, "5.00") + Line(400, 720, "5.00") + Line(100, 600, "Total due 5.00");
        var taken = Assert.Single(InvoicePath.Take(PdfReader.Read(TinyPdf.OnePage(hidden + " " + seen)), [template], DocumentFacts.Unknown)).Checked!;
        Assert.Equal("5.00", taken.Captured.Find("total")!.Value);
        Assert.Equal(
            told is null ? [] : new[] { $"Page 1 holds words that the template steers by where nobody sees them: {told}. Nothing was captured by them." },
            taken.Findings.Where(finding => finding.Code == "hidden-text").Select(finding => finding.Message));
    }

    /// <summary>Two invoices in one file: a person sees one of 1,978.70 GBP, hidden is one of 19,787.06. The hidden one is never captured.</summary>
    [Theory]
    [InlineData("10-ActualText.pdf", "draws “684.20” and claims that it is “6,842.00”")]
    [InlineData("11-ActualText-IBAN-only.pdf", "claims that it is “GB53 EVIL 0000 0061 2084 11”")]
    [InlineData("13-annotation-Stamp.pdf", "covered by what is drawn over it")]
    [InlineData("15-white-nearer-to-cue.pdf", "in the colour of what lies under it: “99-001”")]
    [InlineData("16-white-box-then-A-on-top.pdf", "covered by what is drawn over it")]
    public void A_hidden_invoice_holds_the_one_that_is_seen(string file, string says)
    {
        var invoice = Capture(file)!;
        Assert.Equal("1978.70", invoice.Captured.Find("total")!.Value);
        Assert.False(invoice.IsClear);
        Assert.Contains(says, string.Join(' ', invoice.Findings.Where(finding => finding.Code == "hidden-text").Select(finding => finding.Message)), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("01-covered-by-image.pdf", "covered by what is drawn over it")]
    [InlineData("05-alpha0.pdf", "drawn without ink")]
    [InlineData("06-clipped-away.pdf", "outside the part of the page that is drawn in")]
    [InlineData("08-layer-off.pdf", "in a layer that is off")]
    public void A_picture_with_hidden_text_is_a_scan_and_says_so(string file, string says)
    {
        var refused = Assert.Throws<PicturesUnreadException>(() => Capture(file));
        Assert.Equal("no-text", refused.Code);
        Assert.Contains($"Nobody sees the text that the PDF holds: it is {says}.", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void White_figures_over_a_picture_of_others_are_not_captured_and_told_all_the_same()
    {
        var taken = Assert.Single(InvoicePath.Take(PdfReader.Read(File.ReadAllBytes(Repository.Path("tests/cases/tricks/02-white-over-image.pdf"))), [], DocumentFacts.Unknown));
        Assert.Null(taken.Checked);
        Assert.Equal(["no-template", "hidden-text"], Placing.FindingsOf(taken.Found).Select(finding => finding.Code));
        Assert.Null(Capture("02-white-over-image.pdf"));
    }

    [Theory]
    [InlineData("00-control-A.pdf", "1978.70")]
    [InlineData("00-control-B.pdf", "19787.06")]
    public void Where_nothing_is_hidden_both_are_clear(string file, string total)
    {
        var invoice = Capture(file)!;
        Assert.Equal((true, total), (invoice.IsClear, invoice.Captured.Find("total")!.Value));
    }

    /// <summary>Producers leave marks of their own that nobody sees; none of them holds an invoice.</summary>
    [Fact]
    public void No_family_hides_a_figure() => Assert.All(FamilyInvoices.Folders.SelectMany(FamilyInvoices.Clear), invoice =>
        Assert.DoesNotContain(invoice.Checked.Findings, finding => finding.Code == "hidden-text"));
}
