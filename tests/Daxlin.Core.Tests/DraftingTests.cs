using System.Text.Json.Nodes;
using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Templates proposed from invoices that nobody wrote a rule for.</summary>
public class DraftingTests
{
    public DraftingTests() => Assert.SkipWhen(Effort.IsSmall, "A whole template is drafted in each of these.");

    private const string Head = """
        Brinewood Ropes Ltd
        Invoice no: BR-471      Date: 14.03.2026      Your order: KSF 204

        """;

    [Fact]
    public void A_draft_that_calls_another_invoice_of_the_vendor_clear_has_captured_every_row_of_it() => Gen
        .Select(MadeUpInvoice.Gen, MadeUpInvoice.Gen, Quirks.Gen)
        .Sample(
            (shown, other, quirks) =>
            {
                var spaced = quirks with { RowGap = Math.Max(quirks.RowGap, 1.4 * quirks.LineGap) };
                var draft = Drafter.Draft([new Sample("shown.pdf", shown.Set(quirks: spaced).Pages())]);
                var captured = InvoiceChecks.Check(InvoiceCapture.Capture(other.Set(quirks: spaced).Pages(), TemplateReader.Read(draft.Document)));
                if (captured.IsClear)
                {
                    Assert.Equal(
                        other.Rows.Select(row => $"{row.Code}|{row.Description}|{row.Quantity:G29}|{row.Price:G29}|{row.Amount:G29}"),
                        captured.Captured.Lines.Select(line => $"{line.Find("itemCode")?.Value}|{line.Find("description")?.Value}|{line.NumberIn("quantity"):G29}|{line.NumberIn("unitPrice"):G29}|{line.NumberIn("amount"):G29}"));
                }
            },
            iter: Effort.Times(25));

    [Fact]
    public void A_draft_of_an_invoice_with_several_rows_captures_that_invoice_itself() => MadeUpInvoice.Gen
        .Where(invoice => invoice.Rows.Length >= 3)
        .Sample(
            invoice =>
            {
                var draft = Drafter.Draft([new Sample("shown.pdf", invoice.Set().Pages())]);
                Assert.True(draft.Invoices[0].IsClear, string.Join(' ', draft.Invoices[0].Findings.Select(finding => finding.Message)));
                Assert.Equal(invoice.Rows.Length, draft.Invoices[0].Captured.Lines.Length);
                Assert.Equal(Certainty.Certain, draft.Notes.Single(note => note.Key == "fields.total").Certainty);
            },
            iter: Effort.Times(15));

    [Theory]
    [InlineData("Ware                  Stk      je     zusammen", "Stk", "je", "zusammen")]
    [InlineData("Bits                  Foo     Bar          Baz", "Foo", "Bar", "Baz")]
    public void Columns_are_named_by_their_arithmetic_whatever_they_are_called(string headings, string quantity, string price, string amount)
    {
        var columns = Columns(DraftOf(Head + headings + "\n" + """
            Rope, tarred           40    2.00        80.00
            Shackle                 3    8.00        24.00
            Deck paint              5   12.50        62.50
            Subtotal                                166.50
            VAT 20 % on 166.50                       33.30
            Total due                               199.80
            """));
        Assert.Equal(quantity, (string?)columns["quantity"]!["heading"]);
        Assert.Equal(price, (string?)columns["unitPrice"]!["heading"]);
        Assert.Equal(amount, (string?)columns["amount"]!["heading"]);
    }

    [Fact]
    public void Price_and_quantity_in_each_others_place_are_told_by_their_headings()
    {
        var columns = Columns(DraftOf(Head + """
            Description          Price     Qty      Amount
            Rope, tarred          2.00      40       80.00
            Shackle               8.00       3       24.00
            Subtotal                                104.00
            Total due                               104.00
            """));
        Assert.Equal("Qty", (string?)columns["quantity"]!["heading"]);
        Assert.Equal("Price", (string?)columns["unitPrice"]!["heading"]);
    }

    [Fact]
    public void Amounts_below_the_rows_are_told_by_what_adds_up_where_their_captions_tell_nothing()
    {
        var draft = DraftOf(Head + """
            Description            Qty   Price      Amount
            Rope, tarred            40    2.00       80.00
            Shackle                  3    8.00       24.00
            Before anything                         104.00
            Launch hire                              15.00
            VAT 20 % on 119.00                       23.80
            To be sent to us                        142.80
            """);
        Assert.Equal("Before anything", Cue(draft, "subtotal"));
        Assert.Equal("Launch hire", Cue(draft, "freight"));
        Assert.Equal("To be sent to us", Cue(draft, "total"));
        Assert.True(draft.Invoices[0].IsClear);
    }

    [Theory]
    [InlineData("1.204,50", "12,00", ",", ".")]
    [InlineData("1,204.50", "12.00", ".", ",")]
    [InlineData("1'204.50", "12.00", ".", "'")]
    [InlineData("1 204,50", "12,00", ",", " ")]
    public void Marks_in_numbers_are_told_by_the_numbers(string large, string small, string mark, string grouping)
    {
        var document = JsonNode.Parse(DraftOf(Head + $"""
            Description            Amount
            Rope, tarred         {large}
            Shackle                 {small}
            """).Document)!;
        Assert.Equal(mark, (string?)document["reads"]!["decimal"]);
        Assert.Equal(grouping, (string?)document["reads"]!["grouping"]);
    }

    [Theory]
    [InlineData("03/25/2026", "month-first")]
    [InlineData("25/03/2026", "day-first")]
    [InlineData("2026-03-25", "year-first")]
    public void The_order_of_dates_is_told_by_a_date_that_has_only_one(string date, string order)
    {
        var document = JsonNode.Parse(DraftOf($"""
            Brinewood Ropes Ltd
            Invoice no: BR-471      Date: {date}
            Total due                 199.80
            """).Document)!;
        Assert.Equal(order, (string?)document["reads"]!["dates"]);
    }

    [Fact]
    public void A_name_that_other_vendors_print_as_well_is_not_what_recognises_an_invoice()
    {
        const string Group = """
            Sound Group Ltd
            Invoice no: X-1      Date: 14.03.2026      VAT reg GB 123 4567 89
            Total due                 199.80
            """;
        var others = new[] { Sample(Group.Replace("123 4567 89", "987 6543 21", StringComparison.Ordinal)) };
        var alone = JsonNode.Parse(Drafter.Draft([Sample(Group)]).Document)!["recognise"]!["must"]!.AsArray();
        var among = JsonNode.Parse(Drafter.Draft([Sample(Group)], others: others).Document)!["recognise"]!["must"]!.AsArray();
        Assert.Equal(["Sound Group Ltd"], alone.Select(cue => (string?)cue));
        Assert.Equal(["Sound Group Ltd", "GB 123 4567 89"], among.Select(cue => (string?)cue));
    }

    [Fact]
    public void A_draft_that_found_no_rows_calls_nothing_clear()
    {
        var draft = DraftOf("""
            Brinewood Ropes Ltd
            Invoice no: BR-471      Date: 14.03.2026
            Subtotal                  166.50
            VAT 20 % on 166.50         33.30
            Total due                 199.80
            """);
        Assert.False(draft.Invoices[0].IsClear);
        Assert.Contains(draft.Notes, note => note is { Key: "blocks", Certainty: Certainty.NotFound });
    }

    [Fact]
    public void What_no_template_can_be_drafted_from_is_refused_in_a_sentence()
    {
        Assert.Equal("no-text", Assert.Throws<DraftException>(() => Drafter.Draft([new Sample("scan.pdf", [new Page(1, 595, 842, [], [])])])).Code);
        Assert.Equal("no-samples", Assert.Throws<DraftException>(() => Drafter.Draft([])).Code);
        var letter = Assert.Throws<DraftException>(() => DraftOf("Dear all,\n\nthank you for the day out.\n"));
        Assert.Equal("nothing-found", letter.Code);
        Assert.EndsWith(".", letter.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Each_way_to_find_a_value_that_was_pointed_at_finds_it_and_is_proved_on_the_others()
    {
        const string Shown = """
            Brinewood Ropes Ltd
            Our mark: QX-17      Date: 14.03.2026
            Berth
            North quay
            """;
        var sample = Sample(Shown);
        var others = new[] { Sample(Shown.Replace("QX-17", "QX-99", StringComparison.Ordinal)), Sample("Brinewood Ropes Ltd\nOur mark   none yet, see QX-55 of March\n") };
        var word = sample.Pages[0].Words.Single(word => word.Text == "QX-17");
        var ways = Pointing.Ways(sample, new PlaceOnPage(1, word.Box), "orderMark", ValueKind.Text, Habits, others);
        var beside = ways.Single(way => way.Says == "beside “Our mark”");
        Assert.Equal(["QX-99", "none yet, see QX-55 of March"], beside.Values);
        var form = ways.Single(way => way.Says == "by its form, as “QX-17”");
        Assert.Equal(["QX-99", "QX-55"], form.Values);
        Assert.All(ways, way => Assert.True(way.Fits <= others.Length));
        Assert.Equal(ways.OrderByDescending(way => way.Fits).Select(way => way.Says), ways.Select(way => way.Says));

        var quay = sample.Pages[0].Lines.Single(line => line.Text == "North quay").Box;
        Assert.Contains(Pointing.Ways(sample, new PlaceOnPage(1, quay), "berth", ValueKind.Text, Habits, others), way => way.Says == "under “Berth”");
        Assert.Empty(Pointing.Ways(sample, new PlaceOnPage(1, new Box(0, 0, 5, 5)), "berth", ValueKind.Text, Habits, others));
        Assert.Empty(Pointing.Ways(sample, new PlaceOnPage(9, quay), "berth", ValueKind.Text, Habits, others));
    }

    [Fact]
    public void What_is_pointed_at_on_a_credit_note_is_added_to_what_finds_the_invoices()
    {
        var credit = Sample("Brinewood Ropes Ltd\nSUM CREDITED      -12,50\n");
        var others = new[] { Sample("Brinewood Ropes Ltd\nTOTAL DUE         99,00\n"), Sample("Brinewood Ropes Ltd\nTOTAL DUE         41,75\n") };
        var known = JsonNode.Parse("""{ "where": { "beside": "TOTAL DUE" }, "tidy": [{ "drop": "EUR" }], "type": "money" }""")!.AsObject();
        var place = new PlaceOnPage(1, credit.Pages[0].Words.Single(word => word.Text == "-12,50").Box);
        var first = Pointing.Ways(credit, place, "total", ValueKind.Money, Habits, others, known)[0];
        Assert.Equal(("beside “SUM CREDITED”, where what the template says finds nothing", 2), (first.Says, first.Fits));
        Assert.Equal(["99.00", "41.75"], first.Values);
        // All else that the template says of the field stays.
        Assert.Equal("""{"where":[{"beside":"TOTAL DUE"},{"beside":"SUM CREDITED"}],"tidy":[{"drop":"EUR"}],"type":"money"}""", first.Rule);
        Assert.DoesNotContain(Pointing.Ways(credit, place, "total", ValueKind.Money, Habits, others), way => way.Fits > 0 && way.Says.Contains("CREDITED", StringComparison.Ordinal));
    }

    private static readonly Habits Habits = new(Currency.Find("EUR")!, DateOrder.DayFirst, ',', ".");

    private static Sample Sample(string page) => new("page.pdf", Typewriter.Set(page));

    private static TemplateDraft DraftOf(string page) => Drafter.Draft([Sample(page)]);

    private static JsonObject Columns(TemplateDraft draft) => JsonNode.Parse(draft.Document)!["blocks"]![0]!["columns"]!.AsObject();

    private static string? Cue(TemplateDraft draft, string field) => (string?)JsonNode.Parse(draft.Document)!["fields"]![field]!["where"]!["beside"];
}
