using Daxlin.Core.Capture;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>How a file with invoices of several vendors is taken apart.</summary>
public class InvoiceSplitterTests
{
    private const string TwoVendors = """
        Brinewood Chandlery      Invoice no  BC-1
        Total     96.00
        ═══ page 2 ═══
        Terms of sale
        ═══ page 3 ═══
        Skerrow Sail Loft        Invoice no  SL-9
        Total     12.00
        ═══ page 4 ═══
        Brinewood Chandlery      Invoice no  BC-2
        Total     14.00
        """;

    private static Template TemplateOf(string name, string vendor) => TemplateReader.Read($$"""
        {
          "name": "{{name}}", "vendor": "{{vendor}}", "recognise": { "must": ["{{vendor}}"] },
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "fields": { "invoiceNumber": { "where": { "beside": "Invoice no" } }, "total": { "where": { "beside": "Total" } } }
        }
        """);

    [Fact]
    public void Invoices_of_two_vendors_are_parted_and_an_annex_goes_with_the_one_before_it()
    {
        var found = InvoiceSplitter.Split(
            Typewriter.Set(TwoVendors), [TemplateOf("brinewood", "Brinewood Chandlery"), TemplateOf("skerrow", "Skerrow Sail Loft")]);
        Assert.Equal(
            ["brinewood on 1, 2", "skerrow on 3", "brinewood on 4"],
            found.Select(invoice => $"{invoice.Template?.Name} on {string.Join(", ", invoice.Pages.Select(page => page.Number))}"));
        Assert.Equal(
            ["BC-1", "SL-9", "BC-2"],
            found.Select(invoice => InvoiceCapture.Capture(invoice.Pages, invoice.Template!).Find("invoiceNumber")?.Value));
    }

    [Fact]
    public void An_invoice_of_a_vendor_that_nobody_knows_is_not_lost_behind_another()
    {
        var pages = Typewriter.Set("""
            Brinewood Chandlery      Invoice no  BC-1
            Total     96.00
            ═══ page 2 ═══
            Unheard-of Fenders       INVOICE  77
            Fender    10.00
            To pay    11.90
            """);
        var template = TemplateOf("brinewood", "Brinewood Chandlery");
        var invoice = Assert.Single(InvoiceSplitter.Split(pages, [template]));
        Assert.Equal(
            "Page 2 looks like an invoice, but the template captured nothing on it.",
            Assert.Single(InvoiceCapture.Capture(invoice.Pages, template).Findings, finding => finding.Code == "page-unread").Message);
    }
}
