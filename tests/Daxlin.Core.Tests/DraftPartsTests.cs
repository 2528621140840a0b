using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Core.Drafting;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>What a page shows, and what a draft makes of it: one part of the template at a time.</summary>
public class DraftPartsTests
{
    public DraftPartsTests() => Assert.SkipWhen(Effort.IsSmall, "A whole template is drafted in each of these.");

    private const string Head = """
        Brinewood Ropes Ltd
        Invoice no: BR-471      Date: 14.03.2026      Your order: KSF 204

        """;

    private const string Foot = """
        Subtotal                                    104.00
        VAT 20 % on 104.00                           20.80
        Total due                                   124.80
        """;

    public static TheoryData<string, string, string, string> Pages => new()
    {
        {
            "a unit glued to its number is parted from it",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred           40m      2.00       80.00
            Shackle               3 pc      8.00       24.00

            """ + Foot,
            "blocks[0].columns.quantity.tidy[0].splitUnit", "unit"
        },
        {
            "a discount in per cent takes part in the row's equation, whatever it is called",
            Head + """
            Description            Qty     Price     Less      Amount
            Rope, tarred            50      2.00       20       80.00
            Shackle                  3      8.00                24.00

            """ + Foot,
            "blocks[0].columns.discountPercent.heading", "Less"
        },
        {
            "discounts one after another are two columns",
            Head + """
            Description            Qty     Price     Disc %      Amount
            Rope, tarred           100      1.00     10+5         85.50
            Shackle                  3      6.25                  18.75
            Subtotal                                             104.25
            Total due                                            104.25
            """,
            "blocks[0].columns.discountPercent2.tidy[0].part", "2"
        },
        {
            "a price for a hundred has its basis",
            Head + """
            Description            Qty     Price      per      Amount
            Rope, tarred          4000      2.00      100       80.00
            Shackle                300      8.00      100       24.00

            """ + Foot,
            "blocks[0].columns.priceBasis.heading", "per"
        },
        {
            "running numbers are no part of the rows",
            Head + """
            Pos   Description            Qty     Price      Amount
            1     Rope, tarred            40      2.00       80.00
            2     Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[0].columns.position.kept", "false"
        },
        {
            "a code before its text is parted from it",
            Head + """
            Article                     Qty     Price      Amount
            R-1204 Rope, tarred          40      2.00       80.00
            S-77 Shackle, large           3      8.00       24.00

            """ + Foot,
            "blocks[0].columns.itemCode.partOf", "article"
        },
        {
            "letters in a tax column are looked up where the summary says them",
            Head + """
            Description            Qty     Price     VAT      Amount
            Rope, tarred            40      2.00      A        80.00
            Shackle                  3      8.00      B        24.00

            Subtotal                                          104.00
            Code     Rate         Net        VAT
            A        20 %       80.00      16.00
            B         0 %       24.00       0.00
            Total due                                         120.00
            """,
            "blocks[0].columns.taxRate.lookUp.with", "taxCode"
        },
        {
            "text below its figures folds down",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred, on a      40      2.00       80.00
            drum of oak
            Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[0].columns.description.fold", "down"
        },
        {
            "text above its figures folds around them, which fits text below them as well",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred, on a
            drum of oak             40      2.00       80.00

            Shackle, galvanised,
            with its pin             3      8.00       24.00

            """ + Foot,
            "blocks[0].columns.description.fold", "around"
        },
        {
            "headings that stand apart are carried onto the rows",
            Head + """
            Item     Description            Qty     Price      Amount

            Deck stores

            R-12     Rope, tarred            40      2.00       80.00

            Engine room

            S-4      Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[0].carry.section.beginsIn", "itemCode"
        },
        {
            "parts of a row that come to its quantity are a list under it",
            Head + """
            Item     Description            Qty     Price      Amount
            R-12     Rope, tarred          40 m      2.00       80.00
                     to MV Fulmar 25 m
                     to MV Petrel 15 m
            S-4      Chain                  3 m      8.00       24.00
                     to MV Fulmar 1 m
                     to MV Petrel 2 m

            """ + Foot,
            "blocks[0].rowsUnder[0].addUp[0]", "quantity"
        },
        {
            "labels with values below a row are a list under it",
            Head + """
            Item     Description            Qty     Price      Amount
            R-12     Hand-held radio          2     40.00       80.00
                     Serial no: K1041
                     Serial no: K1042
            S-4      Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[0].rowsUnder[0].matching", "^Serial no: (?<value>\\S*\\d\\S*)$"
        },
        {
            "the line below the rows closes them",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred            40      2.00       80.00
            Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[0].closes[0]", "Subtotal"
        },
        {
            "a tax with its rate and base is a row of the summary",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred            40      2.00       80.00
            Shackle                  3      8.00       24.00

            """ + Foot,
            "blocks[1].columns.base", "{}"
        },
        {
            "prices that hold the tax already are told by the total",
            Head + """
            Description            Qty     Price      Amount
            Rope, tarred            40      2.00       80.00
            Shackle                  3      8.00       24.00
            Total due                                 104.00
            of which VAT 4 % (net 100.00)               4.00
            """,
            "reads.tax", "included"
        },
        {
            "the currency is the one whose mark stands beside money, not a unit",
            Head + """
            Description            Qty     Price      Amount
            Wire 18 AWG             40      2.00       80.00
            Paint, 5 CUP             3      8.00       24.00
            Total due                             GBP 104.00
            """,
            "reads.currency", "GBP"
        },
        {
            "an account number is told by its check digits",
            "Brinewood Ropes Ltd\nInvoice no: BR-471     Date: 14.03.2026\nTotal due    1.00\nPay to GB82 WEST 1234 5698 7654 32 or DE00 1234 5678 1234 5678 00 please\n",
            "fields.iban.where.matching", @"\b(GB\d\d(?: ?[A-Z0-9]){18})(?:[^A-Z0-9]|$)"
        },
        {
            "the buyer is not the vendor",
            "Invoice BR-471     14.03.2026\nKestrel Sound Ferries Ltd\nAccounts Payable\nQuay 2\n\n\n\n\n\n\nBrinewood Ropes GmbH, Hafenstrasse 4\n\nTotal due    1.00\n",
            "vendor", "Brinewood Ropes GmbH"
        },
        {
            "a name in capitals is posted in small letters",
            "BRINEWOOD ROPE WORKS\nInvoice no: BR-471     Date: 14.03.2026\nthank you for your custom, we hope to see you again\nTotal due    1.00\n",
            "vendor", "Brinewood Rope Works"
        },
        {
            "a due date that the sample does not show is looked for by its usual captions",
            Head + "Total due    1.00\n",
            "fields.dueDate.where[0].beside[1]", "Due date"
        },
        {
            "the vendor's name may stand beside the buyer's address",
            "Kestrel Sound Ferries              Cutter & Sons Boatbuilders\nAccounts Payable                   The Slip, Cutter Creek\nQuay 2, Port Ellery\nBill no.    CS74640\nDated       14.03.2026\nNow due    1.00\n",
            "vendor", "Cutter & Sons Boatbuilders"
        },
        {
            "a tax number is told by the form its country gives it",
            "Efeitos Mar Lda\nCais Norte 3 - Cont. PT000417720 - IBAN PT25 0000 0000 0000 4177 2018 4\nFatura n.º 400     Data 2026-03-01\nTotal a pagar    1,00\n",
            "fields.vendorTaxId.where.matching", @"\b(PT\d{9})(?!\w)"
        },
        {
            "a tax number ends in letters where its country's does",
            "De Vaart B.V.\nKade 12 | BTW-nr NL000417720B01 | IBAN NL62 QXVB 0000 4177 20\nFactuurnummer: 2026     Factuurdatum: 19-01-2026\nTe betalen    1,00\n",
            "fields.vendorTaxId.where.matching", @"BTW-nr\W*(NL\d{9}B\d{2})(?!\w)"
        },
        {
            "a tax number in the buyer's address is the buyer's",
            "Brinewood Ropes Ltd\nVAT no GB 123 4567 89\n\nAccounts Payable\nKestrel Sound Ferries GB 987 6543 21\n\n\n\n\n\nInvoice no: BR-471      Date: 14.03.2026\nTotal due    1.00\n",
            "fields.vendorTaxId.where.matching", @"VAT no\W*(GB \d{3} \d{4} \d{2})(?!\w)"
        },
        {
            "a date behind the number has the word before it for a caption",
            "Comptoir du Quai SARL\nFacture            FA26-9988       du 13/06/2026\nÀ régler avant le 13/07/2026\nMontant TTC    1,00\n",
            "fields.invoiceDate.where.matching", @"\d\W* du ?(\d{1,2}/\d{1,2}/\d{4})(?!\w)"
        },
        {
            "the only date that is left is the invoice's",
            "Brinewood Ropes Ltd\nPort Ellery, 14 March 2026\nInvoice no: BR-471\nTotal due    1.00\n",
            "fields.invoiceDate.where.matching", @"(?<![\w.])(\d{1,2} \p{L}+ \d{4})(?!\w)"
        },
        {
            "what is called the buyer's is the order",
            "Brinewood Ropes Ltd\nInvoice no: BR-471      Date: 14.03.2026\nAgainst your    KSF 9894\nTotal due    1.00\n",
            "fields.purchaseOrder.where.beside", "Against your"
        },
        {
            "a credit note is told by what its language calls it",
            "Seilerei Brinewood GmbH\nRechnung Nr. BR-471     Datum 14.03.2026\nGesamtbetrag    1,00\n",
            "recognise.creditNote[0][0]", "Gutschrift"
        },
    };

    [Theory]
    [MemberData(nameof(Pages))]
    public void A_page_gives_its_part_of_the_template(string what, string page, string path, string expected)
    {
        var draft = Drafter.Draft([new Sample("page.pdf", Typewriter.Set(page))]);
        var found = At(JsonNode.Parse(draft.Document)!, path);
        Assert.True(found is not null, $"{what}: nothing at {path} in {draft.Document}");
        Assert.Equal(expected, found.ToString());
    }

    [Fact]
    public void Two_samples_know_more_than_one()
    {
        const string Page = """
            Brinewood Ropes Ltd
            Customer no: 4711      Invoice no: BR-471      Date: 03.04.2026
            Total due    1.00
            """;
        var one = Drafter.Draft([new Sample("1.pdf", Typewriter.Set(Page))]);
        var two = Drafter.Draft([new Sample("1.pdf", Typewriter.Set(Page)), new Sample("2.pdf", Typewriter.Set(Page.Replace("BR-471", "BR-488", StringComparison.Ordinal).Replace("03.04", "28.04", StringComparison.Ordinal)))]);
        Assert.Equal(Certainty.Guess, one.Notes.Single(note => note.Key == "reads.dates").Certainty);
        Assert.Equal(Certainty.Certain, two.Notes.Single(note => note.Key == "reads.dates").Certainty);
        Assert.Equal(["BR-471", "BR-488"], two.Invoices.Select(invoice => invoice.Captured.Find("invoiceNumber")!.Value));
    }

    [Fact]
    public void A_cover_letter_is_skipped_and_its_amount_is_not_the_invoices()
    {
        var draft = Drafter.Draft([new Sample("page.pdf", Typewriter.Set("""
            Brinewood Ropes Ltd
            Dear Accounts Payable,
            our invoice comes to a little over 120.00 and is due in March.
            ═══ page 2 ═══

            """ + Head + """
            Description            Qty     Price      Amount
            Rope, tarred            40      2.00       80.00
            Shackle                  3      8.00       24.00

            """ + Foot))]);
        Assert.True(draft.Invoices[0].IsClear, string.Join(' ', draft.Invoices[0].Findings.Select(finding => finding.Message)));
        Assert.Equal(2, draft.Invoices[0].Captured.Lines.Length);
    }

    /// <summary>What stands at a path such as <c>blocks[0].closes[1]</c>; null for nothing.</summary>
    private static JsonNode? At(JsonNode node, string path)
    {
        JsonNode? at = node;
        foreach (var step in path.Split('.', '[').Select(step => step.TrimEnd(']')))
        {
            at = at switch
            {
                JsonArray array => int.Parse(step, CultureInfo.InvariantCulture) is var index && index < array.Count ? array[index] : null,
                JsonObject one => one[step],
                _ => null,
            };
        }
        return at;
    }
}
