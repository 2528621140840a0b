using Daxlin.Core.Capture;
using Daxlin.Core.Capture.Fields;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

public class FieldCaptureTests
{
    private static (string? Value, string Findings) Capture(string field, params (double X, double Y, string Text)[] printed)
    {
        var template = TemplateReader.Read($$"""
            { "name": "one-field", "vendor": "V", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["V"] }, "fields": { {{field}} } }
            """);
        var sheet = new Typesetter();
        foreach (var (x, y, text) in printed)
            sheet.Left(text, x, y);
        var (value, findings) = FieldCapture.Capture(
            template.Fields[0], InvoicePages.Of(sheet.Pages(), template), template.Reads, Captions.Of(template));
        return (value?.Value, string.Join(' ', findings.Select(finding => finding.Message)));
    }

    [Fact]
    public void A_caption_of_its_own_counts_before_a_longer_one_that_holds_it() => Assert.Equal(("120.00", ""), Capture(
        """ "total": { "where": [{ "beside": "Total" }] } """,
        (50, 100, "Total discount"), (300, 100, "4.00"), (50, 120, "Goods total"), (300, 120, "100.00"), (50, 140, "Total"), (300, 140, "120.00")));

    [Fact]
    public void Two_different_values_by_one_cue_are_a_finding() => Assert.Equal(
        ("120.00", "The total stands on the invoice in different ways: 120.00 EUR on page 1 and 102.00 EUR on page 1."), Capture(
            """ "total": { "where": [{ "beside": "Total" }] } """, (50, 100, "Total: 120.00"), (50, 400, "Total: 102.00")));

    [Theory]
    [InlineData("\"first\"", "120.00")]
    [InlineData("\"last\"", "102.00")]
    [InlineData("2", "102.00")]
    public void An_occurrence_singles_one_out(string occurrence, string value) => Assert.Equal((value, ""), Capture(
        $$""" "total": { "where": [{ "beside": "Total", "occurrence": {{occurrence}} }] } """, (50, 100, "Total: 120.00"), (50, 400, "Total: 102.00")));

    [Fact]
    public void The_next_whereabouts_serves_where_the_first_finds_nothing() => Assert.Equal(("2026-03-14", ""), Capture(
        """ "invoiceDate": { "where": [{ "beside": "Date" }, { "under": "Date" }] } """,
        (50, 100, "Date"), (200, 100, "Number"), (50, 114, "14.03.2026"), (200, 114, "7")));

    [Theory]
    [InlineData(""" "x": { "where": { "above": "Signed" } } """, "7 nights")]
    [InlineData(""" "x": { "where": { "before": "nights" } } """, "7")]
    [InlineData(""" "x": { "where": { "at": { "left": 40, "top": 80, "right": 140, "bottom": 118 } } } """, "R. Tern 7 nights")]
    [InlineData(""" "x": { "where": { "matching": "(\\d) nights" } } """, "7")]
    [InlineData(""" "x": { "where": { "always": "fixed" } } """, "fixed")]
    public void Other_whereabouts(string field, string value) => Assert.Equal((value, ""), Capture(
        field, (50, 100, "R. Tern"), (50, 114, "7 nights"), (50, 128, "Signed"), (300, 100, "elsewhere")));

    [Theory]
    [InlineData("iban", "GB08 QTXB 0000 0017 7134 90", "The IBAN “GB08 QTXB 0000 0017 7134 90” is no IBAN: its check digits are wrong.")]
    [InlineData("dueDate", "30.04.2026 (net 30)", "The due date “30.04.2026 (net 30)” is no date.")]
    [InlineData("freight", "15.65 paid", "The freight “15.65 paid” is no amount.")]
    [InlineData("dueDate", "31.02.2026", "The due date “31.02.2026” is a day that does not exist.")]
    [InlineData("dueDate", "on receipt", "")]
    public void A_misprint_is_a_finding_even_where_nothing_is_required(string field, string printed, string finding) => Assert.Equal(
        (null, finding), Capture($$""" "{{field}}": { "where": [{ "beside": "Here" }] } """, (50, 100, "Here:"), (150, 100, printed)));

    [Fact]
    public void A_value_of_the_wrong_kind_is_said_to_be_so() => Assert.Equal(
        (null, "The total was not found: “soon” stands there, which is no amount."), Capture(
            """ "total": { "where": [{ "beside": "Total" }] } """, (50, 100, "Total"), (300, 100, "soon")));
}
