using Daxlin.Core.Capture;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>Each rule is seen to hold an invoice that breaks it, and to leave alone one that keeps it.</summary>
public class RulesTests
{
    private const string Template = """
        {
          "name": "rules", "vendor": "Rules & Sons", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Rules & Sons"], "creditNote": ["Credit note"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "Invoice no" } }, "invoiceDate": { "where": { "beside": "Date" } }, "dueDate": { "where": { "beside": "Due on" }, "required": false },
            "subtotal": { "where": { "beside": "Goods" }, "required": false }, "discount": { "where": { "beside": "Discount" }, "required": false },
            "freight": { "where": { "beside": "Freight" }, "required": false }, "tax": { "where": { "beside": "Taxes" }, "required": false },
            "deposit": { "type": "money", "where": { "beside": "Deposit" }, "required": false }, "total": { "where": { "beside": "Total" } }
          },
          "blocks": [
            {
              "name": "goods", "closes": ["Goods", "Total"],
              "columns": {
                "description": { "heading": "Text", "fold": "down" }, "quantity": { "heading": "Qty" }, "unitPrice": { "heading": "Price" },
                "taxRate": { "heading": "VAT", "required": false }, "amount": { "heading": "Sum" }
              },
              "row": { "begins": { "filled": "amount" } }
            },
            {
              "name": "taxes", "columns": { "rate": {}, "base": { "required": false }, "amount": {} },
              "row": { "matching": "^VAT (?<rate>[\\d.]+ %)( on (?<base>[\\d.,]+))? (?<amount>[\\d.,]+)$" }
            }
          ]
        }
        """;

    /// <summary>A discount shared by amounts, a freight taxed at 20 %.</summary>
    private const string Sheet = """
        Rules & Sons
        Invoice no  R-1
        Date        14.03.2026

        Text            Qty   Price   VAT      Sum
        Rope             40    2.00    20    80.00
        Tar               2   10.00     5    20.00
        Goods                               100.00
        Discount                            -10.00
        Freight                               6.00
        VAT 20 % on 78.00                    15.60
        VAT 5 % on 18.00                      0.90
        Taxes                                16.50
        Total                               112.50
        """;

    private static string CodesOf(string sheet, string? template = null) => string.Join(' ', InvoicePath
        .Take(Typewriter.Set(sheet), [TemplateReader.Read(template ?? Template)], DocumentFacts.Unknown)[0].Checked!.Findings.Select(finding => finding.Code).Distinct());

    /// <summary>The sheet with some of its texts replaced: "a=>b; c=>d".</summary>
    private static string With(string changes) => changes.Length == 0 ? Sheet : changes.Split("; ").Select(change => change.Split("=>"))
        .Aggregate(Sheet, (sheet, change) =>
        {
            Assert.Contains(change[0], sheet, StringComparison.Ordinal);
            return sheet.Replace(change[0], change[1], StringComparison.Ordinal);
        });

    [Fact]
    public void A_rate_of_nothing_is_proved_by_no_sum()
    {
        var invoice = InvoicePath.Take(
            Typewriter.Set(With("Taxes                                16.50=>VAT 9 % on 0.00                       0.00\nTaxes                                16.50")),
            [TemplateReader.Read(Template)], DocumentFacts.Unknown)[0].Checked!;
        Assert.Contains("taxes[3].rate", invoice.Unproved);
        Assert.DoesNotContain("taxes[2].rate", invoice.Unproved);
    }

    [Theory]
    // As it is, and with discount and freight taxed in each other way that vendors have.
    [InlineData("", "")]
    [InlineData("on 78.00=>on 76.80; 15.60=>15.36; on 18.00=>on 19.20; 0.90=>0.96; 16.50=>16.32; 112.50=>112.32", "")]
    [InlineData("on 78.00=>on 72.00; 15.60=>14.40; 16.50=>15.30; 112.50=>111.30", "tax-bases")]
    [InlineData("on 78.00=>on 72.00; 15.60=>14.40; on 18.00=>on 24.00; 0.90=>1.20; 16.50=>15.60; 112.50=>111.60", "")]
    [InlineData("on 78.00=>on 76.00; 15.60=>15.20; on 18.00=>on 20.00; 0.90=>1.00; 16.50=>16.20; 112.50=>112.20", "")]
    // Without the bases, and without the rates of the lines.
    [InlineData(" on 78.00=>         ; on 18.00=>         ", "")]
    [InlineData(" on 78.00=>         ; on 18.00=>         ; 15.60=>16.60; 16.50=>17.50; 112.50=>113.50", "tax-rate")]
    [InlineData(" on 78.00=>         ; on 18.00=>         ; 2.00    20=>2.00      ; 10.00     5=>10.00      ", "")]
    [InlineData(" on 78.00=>         ; on 18.00=>         ; 2.00    20=>2.00      ; 10.00     5=>10.00      ; 15.60=>25.60; 16.50=>26.50; 112.50=>122.50", "tax-rates")]
    // Without any tax by rate: the lines' rates against the stated tax.
    [InlineData("VAT 20 % on 78.00                    15.60=>; VAT 5 % on 18.00                      0.90=>", "")]
    [InlineData("VAT 20 % on 78.00                    15.60=>; VAT 5 % on 18.00                      0.90=>; 16.50=>61.50; 112.50=>157.50", "tax-rate")]
    // One figure wrong at a time.
    [InlineData("Rope             40=>Rope             41", "line-amount")]
    [InlineData("40    2.00=>40    2.10", "line-amount")]
    [InlineData("80.00=>81.00", "line-amount lines-subtotal rate-base")]
    [InlineData("2.00    20=>2.00     5", "rate-base")]
    [InlineData("2.00    20=>2.00     7", "rate-base rate-untaxed")]
    [InlineData("10.00     5=>10.00     0", "rate-base")]
    [InlineData("VAT 5 %=>VAT 9 %", "tax-rate rate-base rate-untaxed")]
    [InlineData("on 18.00=>on 19.00", "tax-rate tax-bases")]
    [InlineData("0.90=>0.80", "tax-rate tax-sum")]
    [InlineData("16.50=>16.40", "tax-sum total")]
    [InlineData("-10.00=>-11.00", "tax-bases total")]
    [InlineData("6.00=>7.00", "tax-bases total")]
    [InlineData("Goods                               100.00=>Goods                               110.00", "lines-subtotal tax-bases total")]
    [InlineData("112.50=>121.50", "total")]
    // What is missing, and what no sum contains.
    [InlineData("Total                               112.50=>", "value-missing")]
    [InlineData("Invoice no  R-1=>", "value-missing")]
    [InlineData("Rope             40    2.00    20    80.00=>; Tar               2   10.00     5    20.00=>", "no-rows")]
    [InlineData("Rope             40    2.00=>Rope                   2.00", "value-missing")]
    [InlineData("Date        14.03.2026=>Date        31.02.2026", "value-unreadable")]
    [InlineData("Freight                               6.00=>Freight                               6.00\nDeposit                               4.00", "amount-untied")]
    [InlineData("Rope  =>R\uE000pe  ", "letters-unknown")]
    [InlineData("80.00=>$80.00", "currency-differs")]
    [InlineData("2.00    20=>2.00      ", "rate-base rate-missing")]
    [InlineData("14.03.2026=>14.03.2026\nDue on      13.03.2026", "due-before-date")]
    [InlineData("14.03.2026=>14.03.2026\nDue on      14.03.2026", "")]
    // Pages that are numbered, and not all there; a number that may be a page's of another count says nothing.
    [InlineData("112.50=>112.50\n\nPage 1 of 2", "pages-missing")]
    [InlineData("112.50=>112.50\n\nSeite: 1/3", "pages-missing")]
    [InlineData("112.50=>112.50\n\nPage 1 of 1", "")]
    [InlineData("112.50=>112.50\n\nPage 1 of 2\nTerms, page 2 of 4", "")]
    [InlineData("112.50=>112.50\n\nSee page 3 of our price list", "")]
    public void An_invoice_is_held_by_what_it_breaks_and_by_nothing_else(string changes, string codes)
    {
        var found = CodesOf(With(changes)).Split(' ', StringSplitOptions.RemoveEmptyEntries).ToList();
        Assert.All(codes.Split(' ', StringSplitOptions.RemoveEmptyEntries), code => Assert.Contains(code, found));
        Assert.Equal(codes.Length == 0, found.Count == 0);
    }

    [Fact]
    public void An_amount_that_no_sum_contains_passes_where_the_template_says_so() => Assert.Equal("", CodesOf(
        With("Freight                               6.00=>Freight                               6.00\nDeposit                               4.00"),
        Template.Replace("\"beside\": \"Deposit\" }", "\"beside\": \"Deposit\" }, \"untied\": \"allowed\"", StringComparison.Ordinal)));

    [Fact]
    public void Two_templates_that_claim_an_invoice_alike_leave_it_unplaced()
    {
        var one = TemplateReader.Read(Template);
        var taken = Assert.Single(InvoicePath.Take(Typewriter.Set(Sheet), [one, one with { Name = "other" }], DocumentFacts.Unknown));
        Assert.Null(taken.Checked);
        Assert.Equal("several-templates", Placing.FindingOf(taken.Found).Code);
        // One that asks for more of what is printed is the better of the two.
        var better = one with { Name = "better", Recognise = one.Recognise with { May = [new Cue(["Freight"])] } };
        Assert.Equal("better", Assert.Single(InvoicePath.Take(Typewriter.Set(Sheet), [one, better], DocumentFacts.Unknown)).Found.Template!.Name);
        var without = one with { Name = "without", Recognise = one.Recognise with { MustNot = [new Cue(["Freight"])] } };
        Assert.Equal("rules", Assert.Single(InvoicePath.Take(Typewriter.Set(Sheet), [one, without], DocumentFacts.Unknown)).Found.Template!.Name);
        var unknown = Placing.FindingOf(Assert.Single(InvoicePath.Take(Typewriter.Set(Sheet), [without], DocumentFacts.Unknown)).Found);
        Assert.Equal("no-template", unknown.Code);
        Assert.Contains("The template without would, but for “Freight”, which must not be on it.", unknown.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("Credit note", true)]
    [InlineData("Debit note", false)]
    public void A_credit_note_is_told_by_its_cue(string words, bool isCreditNote) => Assert.Equal(isCreditNote, InvoicePath.Take(
        Typewriter.Set(words + "\n" + Sheet), [TemplateReader.Read(Template)], DocumentFacts.Unknown)[0].Checked!.Captured.IsCreditNote);
}
