using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Json;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Small invoices of one fault each, with the template as it was written for them: see tests/cases/README.md.</summary>
public class SmallCasesTests
{
    private static string Folder(string name) => Repository.Path("tests/cases/" + name);

    private static CheckedInvoice Check(string name)
    {
        var template = TemplateReader.Read(File.ReadAllText(Path.Combine(Folder(name), "case.template.json")));
        var pages = PdfReader.Read(File.ReadAllBytes(Path.Combine(Folder(name), "invoice.pdf")));
        return Assert.Single(InvoicePath.Take(pages, [template], DocumentFacts.Unknown)).Checked!;
    }

    private static string Said(CheckedInvoice invoice) => string.Join(' ', invoice.Findings.Select(finding => finding.Message));

    private static IEnumerable<string> Cells(CheckedInvoice invoice, params string[] columns) => invoice.Captured.Lines.Select(
        line => string.Join(" | ", columns.Select(column => line.Find(column)?.Value ?? "–")));

    [Theory]
    [InlineData("rate-without-base", "Tax at 7.5 % of 100.00 USD comes to 7.50 USD; the invoice states 75.00 USD (67.50 USD more).")]
    [InlineData("rate-without-base-de", "Tax at 19 % of 96.00 EUR comes to 18.24 EUR; the invoice states 99.00 EUR (80.76 EUR more).")]
    public void A_tax_whose_base_is_not_printed_is_recalculated_all_the_same(string name, string says) => Assert.Equal(says, Said(Check(name)));

    [Fact]
    public void Text_about_figures_that_stand_above_its_middle_stays_in_its_row()
    {
        var invoice = Check("wrapped-off-centre");
        Assert.Equal(
            ["HN-1 | Grafting knife with brass bolster, bulk | 148.14", "SV-9 | Nursery consultation, black | 1294.44"],
            Cells(invoice, "itemCode", "description", "amount"));
        // Two rows teach little: in the other row the line would stand nearly as well, so a person must look.
        Assert.Contains("“bulk” on page 1, block goods, may be text of row 1 or of row 2", Said(invoice), StringComparison.Ordinal);
    }

    [Fact]
    public void A_page_foot_that_reads_like_a_row_is_none()
    {
        var invoice = Check("foot-begins-a-row");
        Assert.Equal(90, invoice.Captured.Lines.Length);
        Assert.True(invoice.IsClear, Said(invoice));
    }

    [Fact]
    public void Units_are_no_currencies()
    {
        var invoice = Check("unit-like-currency");
        Assert.Equal(41, invoice.Captured.Lines.Length);
        Assert.All(invoice.Captured.Lines, line => Assert.Equal($"Thing {line.Find("unit")!.Value} | 5", $"{line.Find("description")!.Value} | {line.Find("quantity")!.Value}"));
        Assert.True(invoice.IsClear, Said(invoice));
    }

    [Fact]
    public void Sums_carried_with_their_words_under_the_prices_are_sums()
    {
        var invoice = Check("carried-forward-in-price-column");
        Assert.Equal(3, invoice.Captured.Lines.Length);
        Assert.Equal(
            ["Brought forward: a sum of the rows above", "Carried forward 110.00: a sum of the rows above", "Brought forward 110.00: a sum of the rows above"],
            invoice.Captured.LeftOut.Select(line => $"{line.Text}: {line.Why}"));
    }

    [Fact]
    public void A_code_that_ends_in_the_currency_is_a_code() => Assert.Equal(
        ["PAL-EUR", "PAL-USD", "PAL-ABC", "TER-070", "EUR-PAL", "PALXEUR", "PAL/EUR", "CPV-1M3"],
        Cells(Check("code-ends-in-currency"), "itemCode"));

    [Fact]
    public void A_currency_at_the_end_of_a_description_is_a_word_of_it() => Assert.Equal(
        ["Gift voucher 50 EUR | 2", "Exchange pallet EUR | 2", "Pallet-EUR | 2", "Pallets EUR 1 | 2"],
        Cells(Check("currency-word-vanishes"), "description", "quantity"));

    [Fact]
    public void A_near_miss_of_a_settled_name_is_a_fault_that_names_it()
    {
        var fault = Assert.Throws<JsonFaultException>(() => Check("misspelt-names"));
        Assert.Contains(fault.Faults, one => one.Place == "blocks[0].columns.unitprice" && one.Message.Contains("“unitPrice”", StringComparison.Ordinal));
    }
}
