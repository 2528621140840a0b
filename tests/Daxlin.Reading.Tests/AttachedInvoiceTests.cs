using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Electronic invoices within PDFs: found wherever they are told, given to the invoice of their number, and held where they cannot be read.</summary>
public class AttachedInvoiceTests
{
    private const string Template = """
        {
          "name": "carried", "vendor": "Carry & Sons", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Carry & Sons"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "Invoice no" } }, "invoiceDate": { "where": { "beside": "Date" } },
            "total": { "where": { "beside": "Total" }, "untied": "allowed" }
          }
        }
        """;

    private static string Page(string number) => TinyPdf.Text(
        (50, 780, "Carry & Sons"), (50, 760, "Invoice no"), (120, 760, number), (50, 745, "Date"), (120, 745, "14.03.2026"), (50, 620, "Total"), (460, 620, "22.00"));

    private static byte[] Ubl(string number = "C-4", string total = "22.00", string more = "") => Encoding.UTF8.GetBytes(
        $"""
        <Invoice xmlns="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2" xmlns:b="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2" xmlns:a="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2">
          <b:ID>{number}</b:ID><b:IssueDate>2026-03-14</b:IssueDate><b:DocumentCurrencyCode>EUR</b:DocumentCurrencyCode>{more}
          <a:LegalMonetaryTotal><b:TaxInclusiveAmount currencyID="EUR">{total}</b:TaxInclusiveAmount></a:LegalMonetaryTotal>
        </Invoice>
        """);

    private static ImmutableArray<TakenInvoice> Take(byte[] pdf)
    {
        var read = DocumentReader.Read(pdf);
        return InvoicePath.Take(read.Pages, [TemplateReader.Read(Template)], read.FactsWith(DocumentFacts.Unknown));
    }

    private static string Findings(CheckedInvoice invoice) => string.Join(' ', invoice.Findings.Select(finding => $"{finding.Code}: {finding.Message}"));

    [Theory]
    [InlineData(true, false)]
    [InlineData(false, false)]
    [InlineData(false, true)]
    public void An_electronic_invoice_is_found_wherever_the_document_tells_of_it(bool areAssociated, bool isPacked)
    {
        var bytes = Ubl(total: "220.00");
        if (isPacked)
        {
            var packed = new MemoryStream();
            using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
                zlib.Write(bytes);
            bytes = packed.ToArray();
        }
        var pdf = TinyPdf.Carrying(Page("C-4"), [("terms.txt", "no invoice"u8.ToArray()), ("invoice.xml", bytes)], areAssociated, isPacked ? "/Filter /FlateDecode" : "");
        var invoice = Assert.Single(Take(pdf)).Checked!;
        Assert.Equal("electronic-differs: Total: the electronic invoice invoice.xml states 220.00 EUR; the page states 22.00 EUR (198.00 EUR less).", Findings(invoice));
        Assert.Equal("The electronic invoice invoice.xml (UBL) states 1 of these figures, 1 of them otherwise.", ElectronicWitness.Sentence(invoice, Assert.Single(invoice.Captured.Electronic)));
        Assert.Equal(Passing.ForReason, invoice.PassingOf(Assert.Single(invoice.Findings)));
    }

    /// <summary>What a document carries, and what is found of it; nothing for what is no electronic invoice.</summary>
    public static TheoryData<string, string, byte[], string> Carried => new()
    {
        { "the same", "a.xml", Ubl(), "" },
        { "a file of another kind", "a.pdf", Ubl(total: "9.00"), "" },
        { "other XML", "a.xml", "<prices><one>9.00</one></prices>"u8.ToArray(), "" },
        { "an order", "a.xml", "<Order xmlns=\"urn:oasis:names:specification:ubl:schema:xsd:Order-2\"/>"u8.ToArray(), "" },
        { "another number", "a.xml", Ubl("C-5", "9.00"), "electronic-other: The electronic invoice a.xml is number C-5 over 9.00 EUR; the page says C-4. One of the two is not meant for this invoice." },
        { "another date", "a.xml", Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(Ubl()).Replace("2026-03-14", "2026-03-15", StringComparison.Ordinal)), "electronic-differs: Invoice date: the electronic invoice a.xml states 2026-03-15; the page states 2026-03-14." },
        { "another currency", "a.xml", Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(Ubl()).Replace("EUR", "GBP", StringComparison.Ordinal)), "electronic-differs: Currency: the electronic invoice a.xml states GBP; the page states EUR." },
        { "less than nothing", "a.xml", Ubl(total: "-22.00"), "electronic-differs: Total: the electronic invoice a.xml states -22.00 EUR; the page states 22.00 EUR (44.00 EUR more). electronic-differs: The electronic invoice a.xml is a credit note; the page was taken for an invoice." },
        { "no number of its own", "a.xml", Ubl(""), "electronic-other: The electronic invoice a.xml has no number, and is over 22.00 EUR; the page says C-4. One of the two is not meant for this invoice." },
        { "bytes of something else", "a.xml", [0x50, 0x4B, 3, 4], "electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read: It does not begin as XML." },
        { "cut short", "a.xml", Ubl()[..200], "electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read: It is not well-formed XML, names entities of its own, or is more than an invoice may be (line 1)." },
        { "no number", "a.xml", Ubl(total: "22,00"), "electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read: LegalMonetaryTotal/TaxInclusiveAmount says “22,00”, which is no number of an invoice." },
        { "an entity without end", "a.xml", [.. "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]>"u8, .. Ubl(more: "<b:Note>&b;</b:Note>")], "electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read: It is not well-formed XML, names entities of its own, or is more than an invoice may be." },
        { "deep", "a.xml", Ubl(more: string.Concat(Enumerable.Repeat("<b:Note>", 90)) + string.Concat(Enumerable.Repeat("</b:Note>", 90))), "electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read: Its elements stand more than 64 deep, which no invoice needs." },
    };

    [Theory]
    [MemberData(nameof(Carried))]
    public void What_a_document_carries_is_held_against_its_pages_or_told(string what, string name, byte[] bytes, string found)
    {
        var invoice = Assert.Single(Take(TinyPdf.Carrying(Page("C-4"), [(name, bytes)]))).Checked!;
        Assert.Equal(found, Findings(invoice));
        Assert.True(found.Length == 0 == invoice.IsClear, what);
    }

    [Fact]
    public void A_damaged_attachment_holds_the_invoice_and_loses_no_page()
    {
        var invoice = Assert.Single(Take(TinyPdf.Carrying(Page("C-4"), [("a.xml", [1, 2, 3, 4])], entries: "/Filter /ASCII85Decode /DecodeParms 7"))).Checked!;
        Assert.Equal("22.00", invoice.Captured.Find("total")!.Value);
        Assert.StartsWith("electronic-unread: The document carries a.xml, which looks like an electronic invoice and cannot be read:", Findings(invoice), StringComparison.Ordinal);
        var hundred = TinyPdf.Carrying(Page("C-4"), [.. Enumerable.Range(0, 100).Select(at => ($"{at}.xml", Ubl(total: $"{at}.00")))]);
        Assert.Equal(20, Assert.Single(Take(hundred)).Checked!.Captured.Electronic.Length);
    }

    /// <summary>What prices and quantities a page may print of what the file states, and whether the two are one.</summary>
    [Theory]
    [InlineData("4.00", "3.3333", "", "3.33", "", true)]
    [InlineData("4.00", "3.3363", "", "3.33", "", false)]
    [InlineData("4.4", "3.00", "", "3.00", "", false)]
    [InlineData("4", "2.70", "", "3.00", "10", true)]
    [InlineData("4", "2.71", "", "3.00", "10", false)]
    [InlineData("4", "2.66", "", "3.00", "11.5", true)]
    [InlineData("4", "3.00", "", "3.00", "10", true)]
    [InlineData("4", "2.70", "", "3.00", "", false)]
    [InlineData("4", "0.30", "10", "3.00", "", false)]
    [InlineData("4", "30.00", "10", "3.00", "", true)]
    public void A_row_agrees_as_far_as_the_page_prints_it(string quantity, string price, string basis, string printed, string discount, bool isSame)
    {
        var template = TemplateReader.Read(Template.Replace(
            "\n}", """
            , "blocks": [{ "name": "goods", "closes": ["Total"], "columns": { "quantity": { "heading": "Qty" }, "unitPrice": { "heading": "Price" },
                "discountPercent": { "heading": "Off", "required": false }, "amount": { "heading": "Sum" } }, "row": { "begins": { "filled": "amount" } } }] }
            """, StringComparison.Ordinal));
        var page = Page("C-4").Replace("ET\n", "", StringComparison.Ordinal) + TinyPdf.Text(
            (50, 700, "Qty"), (150, 700, "Price"), (250, 700, "Off"), (350, 700, "Sum"), (50, 680, "4"), (150, 680, printed), (250, 680, discount), (350, 680, "12.00")).Replace("BT ", "", StringComparison.Ordinal);
        var line = $"""
            <a:InvoiceLine><b:InvoicedQuantity>{quantity}</b:InvoicedQuantity><b:LineExtensionAmount>12.00</b:LineExtensionAmount>
              <a:Price><b:PriceAmount>{price}</b:PriceAmount>{(basis.Length > 0 ? $"<b:BaseQuantity>{basis}</b:BaseQuantity>" : "")}</a:Price></a:InvoiceLine>
            """;
        var read = DocumentReader.Read(TinyPdf.Carrying(page, [("a.xml", Ubl(more: line))]));
        var invoice = Assert.Single(InvoicePath.Take(read.Pages, [template], read.FactsWith(DocumentFacts.Unknown))).Checked!;
        Assert.Equal(isSame, invoice.Ties.OfType<AgreesWithElectronic>().All(tie => tie.Holds));
        Assert.Equal(4, invoice.Ties.OfType<AgreesWithElectronic>().Count());
    }

    [Fact]
    public void A_name_that_is_no_name_is_made_harmless_and_what_refers_nowhere_is_nothing()
    {
        var name = "..\\\\x/" + new string('a', 300) + "\u0007\u001b[2J.xml";
        var invoice = Assert.Single(Take(TinyPdf.Carrying(Page("C-4"), [(name, Ubl(total: "9.00"))]))).Checked!;
        var shown = Assert.Single(invoice.Captured.Electronic).Name;
        Assert.Matches("^a+…a+\\[2J\\.xml$", shown);
        Assert.True(shown.Length <= 200);
        // The tree of names refers to objects that are not there: the pages are read as ever.
        var broken = Encoding.Latin1.GetBytes(Encoding.Latin1.GetString(TinyPdf.Carrying(Page("C-4"), [("a.xml", Ubl())])).Replace("/Kids [6 0 R] >>", "/Kids [9 0 R] >>", StringComparison.Ordinal)
            .Replace("(000) 7 0 R", "(000) 8 0 R", StringComparison.Ordinal));
        Assert.Empty(Assert.Single(Take(broken)).Checked!.Captured.Electronic);
    }

    [Fact]
    public void Each_of_several_invoices_in_a_file_has_the_witness_of_its_number()
    {
        var pdf = TinyPdf.Carrying(Page("C-4"), [("five.xml", Ubl("C-5", "9.00")), ("four.xml", Ubl("C-4"))]);
        var pages = DocumentReader.Read(pdf).Pages;
        var facts = DocumentReader.Read(pdf).FactsWith(DocumentFacts.Unknown);
        var second = DocumentReader.Read(TinyPdf.OnePage(Page("C-5"))).Pages[0];
        var taken = InvoicePath.Take([pages[0], new(2, second.Width, second.Height, second.Words, second.Strokes)], [TemplateReader.Read(Template)], facts);
        Assert.Equal(
            ["", "electronic-differs: Total: the electronic invoice five.xml states 9.00 EUR; the page states 22.00 EUR (13.00 EUR more)."],
            taken.Select(one => string.Join(' ', one.Checked!.Findings.Where(finding => finding.Code.StartsWith("electronic", StringComparison.Ordinal)).Select(finding => $"{finding.Code}: {finding.Message}"))));
    }

    [Theory]
    [InlineData("<prices/>", "not-an-invoice")]
    [InlineData("<Invoice xmlns=\"urn:oasis:names:specification:ubl:schema:xsd:Invoice-2\">", "damaged")]
    public void A_plain_file_that_is_no_electronic_invoice_is_refused(string text, string code)
    {
        var refusal = Assert.Throws<UnreadableException>(() => DocumentReader.Read(Encoding.UTF8.GetBytes(text)));
        Assert.Equal(code, refusal.Code);
        Assert.EndsWith(".", refusal.Message, StringComparison.Ordinal);
        // The same in another encoding, with its mark before it.
        Assert.Equal(code, Assert.Throws<UnreadableException>(() => DocumentReader.Read((byte[])[.. Encoding.Unicode.GetPreamble(), .. Encoding.Unicode.GetBytes(text)])).Code);
    }

    [Fact]
    public void An_electronic_invoice_that_states_little_is_held_for_what_is_missing()
    {
        var read = DocumentReader.Read(Ubl());
        var invoice = Assert.Single(InvoicePath.Take(read.Pages, [], read.FactsWith(DocumentFacts.Unknown))).Checked!;
        Assert.Equal(["amount-untied", "no-rows", "value-missing"], invoice.Findings.Select(finding => finding.Code).Order());
        Assert.Equal("electronic invoice", invoice.Captured.Template.Name);
    }
}
