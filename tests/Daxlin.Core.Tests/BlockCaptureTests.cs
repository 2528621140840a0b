using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>What a template can say of rows, each on a small sheet of its own.</summary>
public class BlockCaptureTests
{
    private const string Usual = """
        "description": { "heading": "Text", "fold": "down" }, "quantity": { "heading": "Qty" },
        "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" }
        """;

    private static CheckedInvoice Capture(
        Action<Typesetter> print, string columns = Usual, string row = """ "begins": { "filled": "amount" } """, string more = "", string root = "")
    {
        var template = TemplateReader.Read($$"""
            {
              "name": "rows", "vendor": "Rows", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Rows & Sons"] }, {{root}}
              "fields": {
                "invoiceNumber": { "where": { "always": "1" } }, "invoiceDate": { "where": { "always": "14.03.2026" } },
                "total": { "where": { "beside": "Total" } }
              },
              "blocks": [{ "name": "rows", "closes": ["Total"], "columns": { {{columns}} }, "row": { {{row}} } {{more}} }]
            }
            """);
        var sheet = new Typesetter();
        print(sheet);
        return InvoiceChecks.Check(InvoiceCapture.Capture(sheet.Pages(), template));
    }

    private static void Head(Typesetter sheet, double y = 100)
    {
        sheet.Left("Text", 50, y);
        sheet.Right("Qty", 350, y);
        sheet.Right("Price", 430, y);
        sheet.Right("Sum", 520, y);
    }

    private static void Row(Typesetter sheet, double y, string text, string quantity, string price, string sum)
    {
        sheet.Left(text, 50, y);
        sheet.Right(quantity, 350, y);
        sheet.Right(price, 430, y);
        sheet.Right(sum, 520, y);
    }

    private static void Total(Typesetter sheet, double y, string total)
    {
        sheet.Left("Total", 50, y);
        sheet.Right(total, 520, y);
    }

    private static string Rows(CheckedInvoice invoice) => string.Join(" / ", invoice.Captured.Lines.Select(
        line => string.Join(" | ", line.Cells.Select(cell => cell.Value))));

    private static string Said(CheckedInvoice invoice) => string.Join(" ", invoice.Findings.Select(finding => finding.Message));

    /// <summary>Columns that stand elsewhere on later pages are captured from where they stand there, whether their headings are repeated or not.</summary>
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void Columns_stand_elsewhere_on_the_pages_that_are_said(bool isHeaded)
    {
        void Print(Typesetter sheet)
        {
            if (isHeaded)
                Head(sheet);
            Row(sheet, 120, "Rope", "2", "5.00", "10.00");
            sheet.NewPage();
            // Where the quantity stood on the first page the text ends here.
            foreach (var (y, text, quantity, price, sum) in new[] { (60.0, "Tar, thinned with turpentine", "1", "4.00", "4.00"), (80.0, "Oakum", "3", "2.00", "6.00") })
            {
                sheet.Right(text, 350, y);
                sheet.Right(quantity, 410, y);
                sheet.Right(price, 470, y);
                sheet.Right(sum, 540, y);
            }
            Total(sheet, 120, "20.00");
        }
        const string Elsewhere = """, "edgesOn": [{ "pages": 3, "columns": { "amount": [0, 10] } }, { "pages": [2, "last"], "columns": { "description": [40, 360], "quantity": [360, 420], "unitPrice": [420, 480], "amount": [480, 550] } }]""";
        const string Edged = """ "description": { "edges": [40, 300] }, "quantity": { "edges": [300, 360] }, "unitPrice": { "edges": [360, 440] }, "amount": { "edges": [440, 530] } """;
        var columns = isHeaded ? Usual : Edged;

        var invoice = Capture(Print, columns, more: Elsewhere);
        Assert.Equal("Rope | 2 | 5.00 | 10.00 / Tar, thinned with turpentine | 1 | 4.00 | 4.00 / Oakum | 3 | 2.00 | 6.00", Rows(invoice));
        Assert.Empty(invoice.Findings);
        // Without it, it is held, and said of some columns only, the others stay.
        Assert.NotEmpty(Capture(Print, columns).Findings);
        Assert.NotEmpty(Capture(Print, columns, more: Elsewhere.Replace("\"description\": [40, 360], \"quantity\": [360, 420], ", "", StringComparison.Ordinal)).Findings);
    }

    [Fact]
    public void A_line_that_is_no_row_is_a_finding_and_names_its_place()
    {
        var invoice = Capture(sheet =>
        {
            Head(sheet);
            Row(sheet, 120, "Rope", "2", "5.00", "10.00");
            sheet.Left("Note 77", 300, 140);
            Row(sheet, 160, "Tar", "1", "4.00", "4.00");
            Total(sheet, 200, "14.00");
        });
        Assert.Equal("Rope | 2 | 5.00 | 10.00 / Tar | 1 | 4.00 | 4.00", Rows(invoice));
        Assert.Equal("1 printed line is not accounted for between rows 1 and 2 of the block rows: “Note 77”. “leaveOut”, “carry”, “rowsUnder” or a “fold” can speak of it.", Said(invoice));
        Assert.Equal(["not accounted for"], invoice.Captured.LeftOut.Select(line => line.Why));
    }

    [Fact]
    public void Lines_are_left_out_by_pattern_and_kept_on_record()
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                Row(sheet, 120, "Rope", "2", "5.00", "10.00");
                sheet.Left("Carried forward", 50, 140);
                sheet.Right("10.00", 520, 140);
                Total(sheet, 200, "10.00");
            },
            more: """, "leaveOut": "^Carried forward" """);
        Assert.Equal(("Rope | 2 | 5.00 | 10.00", ""), (Rows(invoice), Said(invoice)));
        Assert.Equal("Carried forward 10.00", Assert.Single(invoice.Captured.LeftOut).Text);
    }

    [Fact]
    public void Text_above_its_figures_folds_up_and_text_far_below_does_not_fold_down()
    {
        static void Print(Typesetter sheet)
        {
            Head(sheet);
            sheet.Left("Eight-strand", 50, 120);
            Row(sheet, 131, "rope", "2", "5.00", "10.00");
            Total(sheet, 200, "10.00");
        }
        var up = Capture(Print, Usual.Replace("\"down\"", "\"up\"", StringComparison.Ordinal));
        Assert.Equal(("Eight-strand rope | 2 | 5.00 | 10.00", ""), (Rows(up), Said(up)));
        var far = Capture(sheet =>
        {
            Head(sheet);
            Row(sheet, 120, "Rope", "2", "5.00", "10.00");
            sheet.Left("Goods remain ours", 50, 160);
            Total(sheet, 200, "10.00");
        });
        Assert.Equal("Rope | 2 | 5.00 | 10.00", Rows(far));
        Assert.Contains("“Goods remain ours”", Said(far), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(""", "carry": { "section": { "matching": "^Vessel: (.+)$" } } """)]
    [InlineData(""", "carry": { "section": { "matching": "[A-Z][a-z]+$", "beginsIn": "description" } } """)]
    public void A_heading_is_carried_onto_the_rows_below_until_the_next(string carry)
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                sheet.Left("Vessel: Fulmar", 50, 118);
                Row(sheet, 136, "Rope", "2", "5.00", "10.00");
                Row(sheet, 154, "Tar", "1", "4.00", "4.00");
                sheet.Left("Vessel: Petrel", 50, 180);
                Row(sheet, 198, "Oil", "1", "1.00", "1.00");
                Total(sheet, 240, "15.00");
            },
            more: carry);
        Assert.Equal("Rope | 2 | 5.00 | 10.00 | Fulmar / Tar | 1 | 4.00 | 4.00 | Fulmar / Oil | 1 | 1.00 | 1.00 | Petrel", Rows(invoice));
        Assert.True(invoice.IsClear, Said(invoice));
    }

    [Fact]
    public void Columns_by_edges_need_no_headings()
    {
        var invoice = Capture(
            sheet =>
            {
                sheet.Left("Our deliveries", 50, 100);
                Row(sheet, 120, "Rope", "2", "5.00", "10.00");
                Total(sheet, 160, "10.00");
            },
            """
            "description": { "edges": [40, 300] }, "quantity": { "edges": [300, 360] },
            "unitPrice": { "edges": [360, 440] }, "amount": { "edges": [440, 560] }
            """,
            more: """, "opens": "Our deliveries" """);
        Assert.Equal(("Rope | 2 | 5.00 | 10.00", ""), (Rows(invoice), Said(invoice)));
    }

    [Fact]
    public void A_heading_over_two_lines_is_found_and_a_strange_column_is_kept_apart()
    {
        var invoice = Capture(
            sheet =>
            {
                sheet.Right("Price", 430, 90);
                sheet.Left("Text", 50, 100);
                sheet.Right("Qty", 350, 100);
                sheet.Right("each", 430, 100);
                sheet.Right("Bin", 460, 100);
                sheet.Right("Sum", 520, 100);
                Row(sheet, 120, "Rope", "2", "5.00", "10.00");
                sheet.Right("7", 460, 120);
                Total(sheet, 160, "10.00");
            },
            Usual.Replace("\"Price\"", "\"Price each\"", StringComparison.Ordinal));
        Assert.Equal(("Rope | 2 | 5.00 | 10.00", ""), (Rows(invoice), Said(invoice)));
    }

    [Fact]
    public void A_description_that_runs_into_its_price_is_cut_at_the_currency()
    {
        var invoice = Capture(
            sheet =>
            {
                sheet.Left("Text", 50, 100);
                sheet.Right("Price", 430, 100);
                sheet.Right("Sum", 520, 100);
                foreach (var (y, text) in new[] { (120, "Rope spliced on board by our own riggers"), (136, "Tar") })
                {
                    sheet.Left(text, 50, y);
                    sheet.Right("EUR 5.00", 430, y);
                    sheet.Right("EUR 5.00", 520, y);
                }
                sheet.Right("Rope for the forward mooring station, tarred, heavy, eyeatbothEUR 5.00", 430, 152);
                sheet.Right("EUR 5.00", 520, 152);
                Total(sheet, 190, "15.00");
            },
            """ "description": { "heading": "Text" }, "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" } """);
        Assert.Equal("Rope for the forward mooring station, tarred, heavy, eyeatboth", invoice.Captured.Lines[^1].Find("description")!.Value);
        Assert.True(invoice.IsClear, Said(invoice));
    }

    [Theory]
    [InlineData("2", "5.00", "10,00", "Row 1: the amount “10,00” is no amount.")]
    [InlineData("–", "5.00", "10.00", "Row 1 has no quantity.")]
    [InlineData("2", "$5.00", "10.00", "“$5.00” is not in EUR, which the template reads all amounts as.")]
    [InlineData("3", "5.00", "10.00", "Line 1: 3 × 5.00 EUR comes to 15.00 EUR; the invoice states 10.00 EUR (5.00 EUR less).")]
    public void A_doubtful_cell_is_said_in_words_and_holds_the_invoice(string quantity, string price, string sum, string says)
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                Row(sheet, 120, "Rope", quantity, price, sum);
                Total(sheet, 160, "10.00");
            },
            row: """ "begins": { "filled": "unitPrice" } """);
        Assert.Contains(says, Said(invoice), StringComparison.Ordinal);
        Assert.False(invoice.IsClear);
    }

    [Fact]
    public void A_block_without_its_end_is_held()
    {
        var invoice = Capture(sheet =>
        {
            Head(sheet);
            Row(sheet, 120, "Rope", "2", "5.00", "10.00");
        });
        Assert.Contains("The end of the block rows was not found: no line begins with “Total”.", Said(invoice), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("down", false)]
    [InlineData("allDown", true)]
    public void Lines_that_repeat_row_by_row_are_no_text_unless_the_template_says_so(string fold, bool isText)
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                Row(sheet, 120, "Rope, eight-strand polyester", "2", "5.00", "10.00");
                sheet.Left("Meter 12, 340 to 980", 50, 131);
                Row(sheet, 150, "Tar", "1", "4.00", "4.00");
                sheet.Left("Meter 7, 90 to 155", 50, 161);
                Total(sheet, 200, "14.00");
            },
            Usual.Replace("\"down\"", $"\"{fold}\"", StringComparison.Ordinal));
        Assert.Equal(isText, invoice.IsClear);
        Assert.Equal(isText, invoice.Captured.Lines[1].Find("description")!.Value.Contains("Meter", StringComparison.Ordinal) && invoice.Findings.IsEmpty);
        Assert.True(isText || Said(invoice).Contains("“Meter 12, 340 to 980”", StringComparison.Ordinal), Said(invoice));
    }

    [Fact]
    public void Text_as_near_to_one_row_as_to_the_other_is_held_and_names_both()
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                // Two rows with three lines between their figures: the middle one is as far from both.
                Row(sheet, 120, "", "2", "5.00", "10.00");
                foreach (var (y, text) in new[] { (120, "Rope"), (131, "tarred"), (142, "in coils") })
                    sheet.Left(text, 50, y);
                Row(sheet, 142, "", "1", "4.00", "4.00");
                Total(sheet, 200, "14.00");
            },
            Usual.Replace("\"down\"", "\"around\"", StringComparison.Ordinal));
        Assert.False(invoice.IsClear);
        Assert.Contains("“tarred” on page 1, block rows, may be text of row 1 or of row 2", Said(invoice), StringComparison.Ordinal);
    }

    [Fact]
    public void A_row_that_is_left_out_takes_its_wrapped_text_with_it()
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                Row(sheet, 120, "Rope", "2", "5.00", "10.00");
                Row(sheet, 140, "Pallet, returned", "1", "9.00", "9.00");
                sheet.Left("next time", 50, 151);
                Row(sheet, 170, "Tar", "1", "4.00", "4.00");
                Total(sheet, 200, "14.00");
            },
            row: """ "begins": { "filled": "amount" }, "only": "^(Rope|Tar)" """);
        Assert.Equal(("Rope | 2 | 5.00 | 10.00 / Tar | 1 | 4.00 | 4.00", ""), (Rows(invoice), Said(invoice)));
        Assert.Equal(["Pallet, returned 1 9.00 9.00", "next time"], invoice.Captured.LeftOut.Select(line => line.Text));
    }

    [Fact]
    public void A_heading_that_no_row_takes_is_a_finding()
    {
        var invoice = Capture(
            sheet =>
            {
                Head(sheet);
                sheet.Left("Vessel: Fulmar", 50, 118);
                sheet.Left("Vessel: Petrel", 50, 136);
                Row(sheet, 154, "Rope", "2", "5.00", "10.00");
                sheet.Left("Vessel: Tern", 50, 176);
                Total(sheet, 200, "10.00");
            },
            more: """, "carry": { "section": { "matching": "^Vessel: (.+)$" } } """);
        Assert.Equal("Rope | 2 | 5.00 | 10.00 | Petrel", Rows(invoice));
        Assert.Contains("“Vessel: Fulmar”", Said(invoice), StringComparison.Ordinal);
        Assert.Contains("“Vessel: Tern”", Said(invoice), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_cover_is_skipped_and_an_invoice_that_comes_without_one_is_not(bool cover)
    {
        var invoice = Capture(
            sheet =>
            {
                if (cover)
                {
                    sheet.Left("Rows & Sons", 50, 60);
                    sheet.Left("Total about 99.00", 50, 90);
                    sheet.NewPage();
                }
                Head(sheet);
                Row(sheet, 120, "Rope", "2", "5.00", "10.00");
                Total(sheet, 160, "10.00");
            },
            root: """ "pages": { "skipFirst": 1 }, """);
        Assert.Equal(("Rope | 2 | 5.00 | 10.00", ""), (Rows(invoice), Said(invoice)));
    }
}
