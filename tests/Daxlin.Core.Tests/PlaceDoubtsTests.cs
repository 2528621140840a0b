using Daxlin.Core.Capture;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>Figures that no sum misses: they multiply out wherever they stand, or stand among the words of another column.</summary>
public class PlaceDoubtsTests
{
    private const string Template = """
        {
          "name": "places", "vendor": "Places & Co", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Places & Co"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "Invoice no" } }, "invoiceDate": { "where": { "beside": "Date" } }, "total": { "where": { "beside": "Total" } }
          },
          "blocks": [
            {
              "name": "goods", "closes": ["Total"],
              "columns": {
                "description": { "heading": "Text" }, "quantity": { "heading": "Quantity", "tidy": [{ "splitUnit": "unit" }] },
                "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" }
              },
              "row": { "begins": { "filled": "amount" } }
            }
          ]
        }
        """;

    private const string Head = """
        Places & Co
        Invoice no  P-1
        Date        14.03.2026

        Text            Quantity       Price                       Sum

        """;

    private static string[] FindingsOf(string template, params string[] rows) => [.. InvoicePath
        .Take(Typewriter.Set(Head + string.Join('\n', rows)), [TemplateReader.Read(template)], DocumentFacts.Unknown)[0].Checked!
        .Findings.Select(finding => $"{finding.Code}: {finding.Message}")];

    /// <summary>A row with its cells at the characters where they begin.</summary>
    private static string Row(params (int At, string Text)[] cells) =>
        cells.Aggregate("", (line, cell) => line.PadRight(cell.At) + cell.Text);

    private static string Total(string amount) => Row((0, "Total"), (62 - amount.Length, amount));

    [Fact]
    public void Rows_whose_figures_stand_in_their_columns_are_clear() => Assert.Empty(FindingsOf(Template,
        Row((0, "Rope"), (22, "40"), (32, "2.00"), (57, "80.00")), Row((0, "Tar"), (23, "2"), (31, "10.00"), (57, "20.00")), Total("100.00")));

    [Fact]
    public void A_quantity_printed_behind_its_price_is_seen_by_where_the_other_rows_have_them() => Assert.Equal(
        ["figure-elsewhere: “10.00” on page 1, row 2 of the block goods, was taken for the quantity, and stands where other rows have the unit price."],
        FindingsOf(Template,
            Row((0, "Rope"), (22, "40"), (32, "2.00"), (57, "80.00")), Row((0, "Tar"), (31, "10.00"), (38, "2"), (57, "20.00")),
            Row((0, "Oil"), (23, "3"), (32, "5.00"), (57, "15.00")), Total("115.00")));

    [Fact]
    public void In_a_single_row_the_headings_tell() => Assert.Equal(
        ["figure-elsewhere: “2.00” on page 1, row 1 of the block goods, was taken for the quantity, and stands where the headings have the unit price."],
        FindingsOf(Template, Row((0, "Rope"), (32, "2.00"), (38, "40"), (57, "80.00")), Total("80.00")));

    [Theory]
    [InlineData("5 kg 19", "unit-doubtful: Row 1: the unit “kg 19” holds the figure 19, which may be another column's.")]
    [InlineData("5 kg 20%", "unit-doubtful: Row 1: the unit “kg 20%” holds the figure 20%, which may be another column's.")]
    [InlineData("5 kg 2.5", "unit-doubtful: Row 1: the unit “kg 2.5” holds the figure 2.5, which may be another column's.")]
    [InlineData("5 m2", null)]
    [InlineData("5 kg", null)]
    public void A_second_figure_behind_a_quantity_is_in_doubt(string quantity, string? finding) => Assert.Equal(
        finding is null ? [] : new[] { finding },
        FindingsOf(Template, Row((0, "Rope"), (18, quantity), (32, "2.00"), (57, "10.00")), Total("10.00")));

    [Fact]
    public void A_rate_beside_a_number_is_said_to_be_taken_by_no_column() => Assert.Equal(
        ["rate-beside: Row 1: beside the quantity stands a rate, “5 20%”, that no column takes."],
        FindingsOf(
            Template.Replace("\"splitUnit\": \"unit\"", "\"take\": \"^\\\\S+\"", StringComparison.Ordinal),
            Row((0, "Rope"), (18, "5 20%"), (32, "2.00"), (57, "10.00")), Total("10.00")));

    [Theory]
    [InlineData("Ropes12.50", "Ropes", "12.50", false)]
    [InlineData("Ropewalker", "Ropewal", "ker", true)]
    [InlineData("AB123456", "AB123", "456", true)]
    public void A_word_across_an_edge_is_cut_in_silence_only_where_two_touch(string word, string left, string right, bool isHeld)
    {
        const string edges = """
            {
              "name": "edges", "vendor": "Places & Co", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Places & Co"] }, "fields": { "total": { "where": { "beside": "Total" } } },
              "blocks": [{
                "name": "goods", "opens": "Text", "closes": ["Total"], "row": { "begins": { "filled": "amount" } },
                "columns": { "description": { "edges": [30, EDGE] }, "note": { "edges": [EDGE, 200], "required": false }, "amount": { "edges": [200, 500] } }
              }]
            }
            """;
        var at = 36 + 6 * left.Length;
        var findings = FindingsOf(edges.Replace("EDGE", at.ToString(System.Globalization.CultureInfo.InvariantCulture), StringComparison.Ordinal),
            Row((0, word), (40, "10.00")), Total("10.00"));
        Assert.Equal(isHeld, findings.Contains($"word-cut: “{word}” on page 1, row 1 of the block goods, stands across the edge of two columns and was cut into “{left}” and “{right}”."));
    }
}
