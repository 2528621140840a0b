using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
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

    [Fact]
    public void What_a_person_chose_is_one_invoice_and_every_page_stays_in_exactly_one() => Gen.Select(
        Gen.Int[0, 2].Array[1, 8], Gen.Select(Gen.Int[-1, 9], Gen.Int[-1, 9]).Array[0, 3]).Sample((numbers, ranges) =>
        {
            var other = TemplateOf("scoter", "Scoter Lamps");
            var pages = Typewriter.Set(Pages([.. numbers.Select(number => Own($"BC-{number}"))]));
            var found = InvoiceSplitter.Split(pages, [Brinewood, other], [.. ranges.Select(range => new ChosenTemplate(range.Item1, range.Item2, other))]);
            Assert.Equal(pages, found.SelectMany(invoice => invoice.Pages));
            var counting = new List<(int First, int Last)>();
            foreach (var (first, last) in ranges.Where(range => range.Item1 >= 1 && range.Item1 <= range.Item2 && range.Item2 <= pages.Length))
            {
                if (!counting.Exists(one => one.First <= last && one.Last >= first))
                    counting.Add((first, last));
            }
            Assert.Equal(counting.Order(), found.Where(invoice => invoice.Chosen is not null).Select(invoice => (invoice.Pages[0].Number, invoice.Pages[^1].Number)));
            Assert.All(found, invoice => Assert.Equal(invoice.Chosen is null ? "brinewood" : "scoter", invoice.Template?.Name));
            // The pages between are parted as if the others were not there.
            Assert.All(
                found.Where(invoice => invoice.Chosen is null),
                invoice => Assert.Single(invoice.Pages.Select(page => numbers[page.Number - 1]).Distinct()));
        });

    /// <summary>What was said unseen decides between templates that know an invoice alike; where its cues do not stand, the invoice is captured as its cues say and held.</summary>
    [Fact]
    public void What_a_document_was_sent_for_decides_between_equals_and_never_against_the_cues()
    {
        var (twin, other) = (TemplateOf("brinewood-twin", "Brinewood Chandlery"), TemplateOf("scoter", "Scoter Lamps"));
        var pages = Typewriter.Set(Pages(Own("BC-1"), Own("BC-1"), Own("BC-2")));
        Template? Of(Template said, params Template[] templates) =>
            Assert.Single(InvoiceSplitter.Split(pages, [.. templates], [new ChosenTemplate(1, SaidTemplate.ToTheEnd, said)]).Select(invoice => invoice.Template).Distinct());
        Assert.Equal(2, InvoiceSplitter.Split(pages, [Brinewood, other], [new ChosenTemplate(1, SaidTemplate.ToTheEnd, other)]).Length);
        Assert.Equal((null, twin, Brinewood, Brinewood), (Of(other, Brinewood, twin, other), Of(twin, Brinewood, twin, other), Of(Brinewood, Brinewood, twin, other), Of(other, Brinewood, other)));

        Finding[] Findings(Template said) =>
        [
            .. InvoicePath.Take(pages, [Brinewood, other], new DocumentFacts("any.pdf", "November", new DateOnly(2026, 12, 1)), new ChosenTemplate(1, SaidTemplate.ToTheEnd, said), new ChosenTemplate(3, 3, Brinewood))
                .Select(taken => taken.Checked!.Findings.SingleOrDefault(finding => finding.Code is SaidTemplate.Code or ChosenTemplate.Code)).OfType<Finding>(),
        ];
        Assert.Equal(
            [(Severity.Hold, "It was sent as an invoice for the template scoter, whose cues do not stand on it; the template brinewood is for it by its cues. Choose the right one."), (Severity.Note, "A person chose the template brinewood; by its cues the template brinewood is for this invoice.")],
            Findings(other).Select(finding => (finding.Severity, finding.Message)));
        Assert.Equal([ChosenTemplate.Code], Findings(Brinewood).Select(finding => finding.Code));
    }

    private static string Parts(string sheet, params Template[] templates) => string.Join(
        "; ", InvoiceSplitter.Split(Typewriter.Set(sheet), [.. templates]).Select(invoice =>
            $"{invoice.Template?.Name} on {string.Join(' ', invoice.Pages.Select(page => page.Number))}"
            + (invoice.Parting is { } parting ? $" ({parting.Page}: {parting.Before} to {parting.Value})" : "")));

    private static string Pages(params string[] pages) => string.Join('\n', pages.Select((page, index) => index == 0 ? page : $"═══ page {index + 1} ═══\n{page}"));

    private static string Own(string number) => $"Brinewood Chandlery      Invoice no  {number}\nTotal     9.00";

    private static readonly Template Brinewood = TemplateOf("brinewood", "Brinewood Chandlery");

    [Theory]
    [InlineData("BC-1", "BC-1", "BC-1", "brinewood on 1 2 3")]
    [InlineData("BC-1", "BC-1", "BC-2", "brinewood on 1 2 (3: BC-1 to BC-2); brinewood on 3 (3: BC-1 to BC-2)")]
    [InlineData("BC-1", "BC-2", "BC-2", "brinewood on 1 (2: BC-1 to BC-2); brinewood on 2 3 (2: BC-1 to BC-2)")]
    // A page head repeats the number with more behind it, or with less.
    [InlineData("BC-1", "BC-1 page 2", "BC-1 page 3", "brinewood on 1 2 3")]
    [InlineData("BC-1 page 1", "BC-1", "BC-1 page 3", "brinewood on 1 2 3")]
    [InlineData("BC-1", "BC-1 page 2", "BC-2", "brinewood on 1 2 (3: BC-1 to BC-2); brinewood on 3 (3: BC-1 to BC-2)")]
    public void A_file_is_parted_where_the_number_changes_and_the_part_says_so(string first, string second, string third, string parts) =>
        Assert.Equal(parts, Parts(Pages(Own(first), Own(second), Own(third)), Brinewood));

    [Fact]
    public void Pages_without_a_number_go_with_the_invoice_before_them() =>
        Assert.Equal("brinewood on 1 2 3 (4: BC-1 to BC-2); brinewood on 4 (4: BC-1 to BC-2)", Parts(Pages(Own("BC-1"), "Brinewood Chandlery", "Terms", Own("BC-2")), Brinewood));

    [Fact]
    public void A_cue_of_the_template_begins_a_new_invoice_with_the_same_number() => Assert.Equal(
        "brinewood on 1 2; brinewood on 3",
        Parts(
            Pages("Page 1 of 2\n" + Own("BC-1"), "Page 2 of 2\n" + Own("BC-1"), "Page 1 of 1\n" + Own("BC-1")),
            Brinewood with { Pages = Brinewood.Pages with { NewInvoice = Brinewood.Pages.NewInvoice with { Cues = [new Cue(["Page 1 of"])] } } }));

    [Theory]
    [InlineData(0, "brinewood on 1 2; skerrow on 3")]
    [InlineData(1, "brinewood on 1; skerrow on 2 3")]
    public void A_cover_goes_with_the_invoice_behind_it_where_the_template_skips_first_pages(int skipped, string parts)
    {
        var skerrow = TemplateOf("skerrow", "Skerrow Sail Loft");
        Assert.Equal(parts, Parts(
            Pages(Own("BC-1"), "To whom it may concern", "Skerrow Sail Loft   Invoice no  SL-1\nTotal   1.00"),
            Brinewood, skerrow with { Pages = skerrow.Pages with { SkipFirst = skipped } }));
    }

    [Fact]
    public void Another_layout_of_the_same_vendor_is_no_new_invoice()
    {
        var other = Brinewood with { Name = "long", Recognise = Brinewood.Recognise with { Must = [new Cue(["Brinewood Chandlery"]), new Cue(["Statement"])] } };
        Assert.Equal("long on 1 2", Parts(Pages("Statement\n" + Own("BC-1"), Own("BC-1")), Brinewood, other));
        // The page's best template is another, but the one that the invoice began with knows it too.
        Assert.Equal("long on 1 2", Parts(Pages(Own("BC-1"), "Statement\n" + Own("BC-1")), Brinewood, other));
    }
}
