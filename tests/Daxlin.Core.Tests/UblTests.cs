using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Xml.Linq;
using CsCheck;
using Daxlin.Core.Electronic;
using Daxlin.Core.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Posting.Ubl;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Electronic invoices state what was captured, come to their own sums, or are refused by the rule they break.</summary>
public class UblTests
{
    private const string Cbc = "{urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2}";
    private const string Cac = "{urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2}";

    private const string TaxTable = "\"records\": \"taxes\",\n      \"columns\": [\"rate\", \"base\", { \"heading\": \"tax\", \"value\": \"amount\", \"proves\": \"tax\" }]";
    private const string JournalTable = "\"records\": \"journal\", \"columns\": [{ \"heading\": \"debit\", \"value\": \"debit\", \"proves\": \"journal\" }]";

    private static readonly RunFacts Run = new(7, new DateOnly(2026, 11, 26));

    private static readonly TranslationLists Lists = new(
    [
        new TranslationList("countries", [new TranslationEntry("Fjordheim Tau AS", "NO", DateOnly.MinValue)]),
        new TranslationList("units", [new TranslationEntry("kg", "KGM", DateOnly.MinValue), new TranslationEntry("Stk", "stk", DateOnly.MinValue)]),
    ]);

    private static string Document => File.ReadAllText(Path.Combine(Repository.Root, "docs", "POSTING.md")).Split("```json")[2].Split("```")[0];

    private static readonly PostingLayout Layout = LayoutReader.Read(Document, Lists);

    /// <summary>The schema's sequences, as far as an invoice uses them.</summary>
    private static readonly Dictionary<string, string> Sequences = new()
    {
        ["Invoice"] = "CustomizationID ID IssueDate DueDate InvoiceTypeCode Note DocumentCurrencyCode OrderReference BillingReference AccountingSupplierParty AccountingCustomerParty PaymentMeans PaymentTerms AllowanceCharge TaxTotal LegalMonetaryTotal InvoiceLine",
        ["CreditNote"] = "CustomizationID ID IssueDate CreditNoteTypeCode Note DocumentCurrencyCode OrderReference BillingReference AccountingSupplierParty AccountingCustomerParty PaymentMeans PaymentTerms AllowanceCharge TaxTotal LegalMonetaryTotal CreditNoteLine",
        ["Party"] = "PostalAddress PartyTaxScheme PartyLegalEntity",
        ["PartyTaxScheme"] = "CompanyID TaxScheme",
        ["PaymentMeans"] = "PaymentMeansCode PaymentDueDate PayeeFinancialAccount",
        ["AllowanceCharge"] = "ChargeIndicator AllowanceChargeReason Amount TaxCategory",
        ["TaxTotal"] = "TaxAmount TaxSubtotal",
        ["TaxSubtotal"] = "TaxableAmount TaxAmount TaxCategory",
        ["TaxCategory"] = "ID Percent TaxExemptionReason TaxScheme",
        ["ClassifiedTaxCategory"] = "ID Percent TaxScheme",
        ["LegalMonetaryTotal"] = "LineExtensionAmount TaxExclusiveAmount TaxInclusiveAmount AllowanceTotalAmount ChargeTotalAmount PrepaidAmount PayableAmount",
        ["InvoiceLine"] = "ID InvoicedQuantity LineExtensionAmount AllowanceCharge Item Price",
        ["CreditNoteLine"] = "ID CreditedQuantity LineExtensionAmount AllowanceCharge Item Price",
        ["Item"] = "Name SellersItemIdentification ClassifiedTaxCategory",
        ["Price"] = "PriceAmount BaseQuantity",
    };

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private static ApprovedLine Line(int number, decimal amount, params (string Name, string Value)[] cells) => new(
        "goods", number, 1, cells.Append((TradeNames.Amount, Text(amount))).Append((TradeNames.Description, $"Rope {number}"))
            .GroupBy(cell => cell.Item1).ToDictionary(cell => cell.Key, cell => cell.First().Item2), []);

    private static ApprovedInvoice Invoice(IEnumerable<ApprovedLine> lines, IEnumerable<ApprovedTax> taxes, decimal total, params (string Name, string Value)[] fields) => new(
        4, "Fjordheim Tau AS", false, "EUR", "4.pdf", new string('0', 64),
        fields.Concat([(TradeNames.InvoiceNumber, "FT-4"), (TradeNames.InvoiceDate, "2026-11-02"), (TradeNames.VendorTaxId, "NO987654321"), (TradeNames.Total, Text(total))])
            .GroupBy(field => field.Item1).ToDictionary(field => field.Key, field => field.First().Item2),
        [.. taxes], [.. lines]);

    /// <summary>2 × 50.00 and 3 × 10.00 less 10 %, 5 kg at 20 %; freight of 8.00 at 20 %.</summary>
    private static readonly ApprovedInvoice Usual = Invoice(
        [
            Line(1, 100m, (TradeNames.Quantity, "2"), (TradeNames.UnitPrice, "50.00"), (TradeNames.Unit, "kg"), (TradeNames.ItemCode, "R-1"), (TradeNames.TaxRate, "20")),
            Line(2, 27m, (TradeNames.Quantity, "3"), (TradeNames.UnitPrice, "10.00"), (TradeNames.TaxRate, "0")),
        ],
        [new ApprovedTax("20", "108.00", 21.60m), new ApprovedTax("0", "27.00", 0m)], 156.60m,
        (TradeNames.DueDate, "2026-12-02"), (TradeNames.Freight, "8.00"), (TradeNames.AlreadyPaid, "6.60"), (TradeNames.AmountDue, "150.00"), (TradeNames.PurchaseOrder, "KSF 204"));

    private static LaidOutInvoice Laid(ApprovedInvoice invoice, PostingLayout? layout = null, RunFacts? run = null) => LaidOut.Of(layout ?? Layout, invoice, Lists, run ?? Run);

    private static XElement Written(ApprovedInvoice invoice, PostingLayout? layout = null, RunFacts? run = null)
    {
        var laidOut = Laid(invoice, layout, run);
        Assert.True(laidOut.Faults.IsEmpty, string.Join(' ', laidOut.Faults));
        Assert.Empty(new LayoutProof(layout ?? Layout).Add(laidOut));
        return UblDocument.Of(laidOut.Ubl!).Root!;
    }

    private static PostingLayout Other(string was, string now)
    {
        Assert.Contains(was, Document, StringComparison.Ordinal);
        return LayoutReader.Read(Document.Replace(was, now, StringComparison.Ordinal), Lists);
    }

    private static string At(XElement root, string path) => string.Join(' ', path.Split('/').Aggregate(new[] { root }.AsEnumerable(), (some, name) =>
        some.SelectMany(one => one.Elements().Where(child => child.Name.LocalName == name))).Select(one => one.Value));

    private static ElectronicInvoice ReadBack(XElement root) => ElectronicInvoiceReader.Read("invoice.xml", Encoding.UTF8.GetBytes(root.ToString()))!.Invoice!;

    private static void StandsInOrder(XElement element)
    {
        if (Sequences.TryGetValue(element.Name.LocalName, out var names))
        {
            var places = element.Elements().Select(child => Array.IndexOf(names.Split(' '), child.Name.LocalName)).ToList();
            Assert.True(places.TrueForAll(place => place >= 0) && places.SequenceEqual(places.Order()), $"{element.Name.LocalName}: {string.Join(' ', element.Elements().Select(child => child.Name.LocalName))}");
        }
        Assert.All(element.DescendantsAndSelf().Where(one => !one.HasElements), one => Assert.NotEqual("", one.Value));
        Assert.All(element.Elements(), child => Assert.StartsWith(child.HasElements ? Cac : Cbc, child.Name.ToString(), StringComparison.Ordinal));
        foreach (var child in element.Elements())
            StandsInOrder(child);
    }

    [Fact]
    public void The_layout_of_the_docs_writes_an_invoice_with_all_that_is_known_of_it()
    {
        var root = Written(Usual);
        StandsInOrder(root);
        Assert.Equal(
            ("380", "EUR", "KSF 204", "NO", "GB", "2026-12-02", "As agreed"),
            (At(root, "InvoiceTypeCode"), At(root, "DocumentCurrencyCode"), At(root, "OrderReference/ID"), At(root, "AccountingSupplierParty/Party/PostalAddress/Country/IdentificationCode"),
                At(root, "AccountingCustomerParty/Party/PostalAddress/Country/IdentificationCode"), At(root, "DueDate"), At(root, "PaymentTerms/Note")));
        Assert.Equal("127.00 135.00 156.60 8.00 6.60 150.00", string.Join(' ', root.Elements().Single(one => one.Name.LocalName == "LegalMonetaryTotal").Elements().Select(one => one.Value)));
        Assert.Equal("108.00 27.00|21.60 0.00|S Z|20 0", string.Join('|', new[] { "TaxableAmount", "TaxAmount", "TaxCategory/ID", "TaxCategory/Percent" }.Select(name => At(root, "TaxTotal/TaxSubtotal/" + name))));
        Assert.Equal("true|8.00|S", $"{At(root, "AllowanceCharge/ChargeIndicator")}|{At(root, "AllowanceCharge/Amount")}|{At(root, "AllowanceCharge/TaxCategory/ID")}");
        Assert.Equal("false|3.00", $"{At(root, "InvoiceLine/AllowanceCharge/ChargeIndicator")}|{At(root, "InvoiceLine/AllowanceCharge/Amount")}");
        Assert.Equal(["KGM", "C62"], root.Descendants().Attributes("unitCode").Select(one => one.Value));
        Assert.All(root.Descendants().Attributes("currencyID"), one => Assert.Equal("EUR", one.Value));
        var read = ReadBack(root);
        Assert.Equal(("FT-4", 156.60m, false), (read.TextOf(TradeNames.InvoiceNumber), read.Amount(TradeNames.Total), read.IsCreditNote));
        Assert.Equal([100m, 27m], read.Lines.Select(line => line.NumberIn(TradeNames.Amount)!.Value));
    }

    [Theory]
    [InlineData(false, false, false, "Invoice", "")]
    [InlineData(true, false, false, "CreditNote", "FT-1")]
    [InlineData(true, true, false, "CreditNote", "FT-1")]
    [InlineData(false, false, true, "CreditNote", "FT-4")]
    [InlineData(true, false, true, "Invoice", "FT-1")]
    public void Credit_notes_and_what_takes_a_run_back_are_written_without_a_minus(bool isCreditNote, bool isPrintedBelowZero, bool isReversal, string kind, string credited)
    {
        var sign = isPrintedBelowZero ? -1 : 1;
        var invoice = Invoice(
            [Line(1, sign * 100m, (TradeNames.Quantity, Text(sign * 2m)), (TradeNames.UnitPrice, "50.00"))], [new ApprovedTax("20", Text(sign * 100m), sign * 20m)], sign * 120m,
            isCreditNote ? [(TradeNames.CreditedInvoice, "FT-1"), (TradeNames.DueDate, "2026-12-02")] : [(TradeNames.DueDate, "2026-12-02")]) with
        { IsCreditNote = isCreditNote };
        var root = Written(invoice, run: Run with { IsReversal = isReversal });
        StandsInOrder(root);
        Assert.Equal(isReversal ? "FT-4-R" : "FT-4", At(root, "ID"));
        Assert.Equal((kind, credited), (root.Name.LocalName, At(root, "BillingReference/InvoiceDocumentReference/ID")));
        Assert.DoesNotContain("-", string.Concat(root.Descendants().Where(one => one.Attribute("currencyID") is not null || one.Attribute("unitCode") is not null).Select(one => one.Value)), StringComparison.Ordinal);
        Assert.Equal(kind == "Invoice" ? "380" : "381", At(root, kind + "TypeCode"));
        Assert.Equal(kind == "Invoice" ? "2026-12-02|" : "|2026-12-02", $"{At(root, "DueDate")}|{At(root, "PaymentMeans/PaymentDueDate")}");
    }

    [Theory]
    [InlineData("", "", "", "1|100|", false)]
    [InlineData("4", "", "", "4|100|4", false)]
    [InlineData("-4", "", "", "-4|-100|4", true)]
    [InlineData("", "100.00", "", "1|100|", false)]
    [InlineData("200", "50.00", "100", "200|50|100", false)]
    [InlineData("2", "-50.00", "", "-2|50|", true)]
    public void A_row_has_a_quantity_and_a_price_that_come_to_its_amount(string quantity, string price, string basis, string written, bool isBelowZero)
    {
        (string, string)[] cells = [.. new[] { (TradeNames.Quantity, quantity), (TradeNames.UnitPrice, price), (TradeNames.PriceBasis, basis) }.Where(cell => cell.Item2.Length > 0)];
        var own = isBelowZero ? -100m : 100m;
        var root = Written(Invoice([Line(1, own, cells), Line(2, 300m)], [new ApprovedTax("20", "", (own + 300m) / 5)], (own + 300m) * 6 / 5, (TradeNames.DueDate, "2026-12-02")));
        if (written == "-4|-100|4")
            written = "-4|100|4";
        var line = root.Elements().First(one => one.Name.LocalName == "InvoiceLine");
        Assert.Equal(written, $"{At(line, "InvoicedQuantity")}|{At(line, "Price/PriceAmount")}|{At(line, "Price/BaseQuantity")}");
        Assert.Equal("", At(line, "AllowanceCharge/Amount"));
    }

    [Fact]
    public void Whatever_is_written_comes_to_its_own_sums_and_another_figure_is_refused_by_its_rule() => Gen
        .Select(Gen.Select(Gen.Int[-5_000, 50_000], Gen.Int[0, 2]).Array[1, 8], Gen.Int[0, 2_000], Gen.Int[0, 2_000], Gen.Int[0, 2], Gen.Bool)
        .Sample((rows, off, freight, freightRate, isCreditNote) =>
        {
            decimal[] rates = [20m, 5m, 0m];
            var lines = rows.Select((row, at) => Line(at + 1, row.Item1 / 100m, (TradeNames.TaxRate, Text(rates[row.Item2])))).ToList();
            // The discount is on the first rate that there is, the freight on one of its own.
            var sums = rates.Select((rate, at) => (
                Rate: rate,
                Base: (rows.Where(row => row.Item2 == at).Sum(row => row.Item1) - (at == rows[0].Item2 ? off : 0) + (at == freightRate ? freight : 0)) / 100m,
                IsThere: rows.Any(row => row.Item2 == at) || (at == freightRate && freight > 0))).Where(one => one.IsThere).ToList();
            var taxes = sums.ConvertAll(one => new ApprovedTax(Text(one.Rate), Text(one.Base), Math.Round(one.Base * one.Rate / 100, 2, MidpointRounding.AwayFromZero)));
            var total = sums.Sum(one => one.Base) + taxes.Sum(row => row.Amount);
            if (total <= 0)
                return;
            var invoice = Invoice(lines, taxes, total, (TradeNames.Discount, Text(off / 100m)), (TradeNames.Freight, Text(freight / 100m)), (TradeNames.DueDate, "2026-12-02")) with { IsCreditNote = isCreditNote };
            var laidOut = Laid(invoice);
            // Which of several rates a discount and a freight belong to may not be known: then it is said, and nothing else is.
            if (!laidOut.Faults.IsEmpty)
            {
                Assert.Contains("cannot be told", Assert.Single(laidOut.Faults).Message, StringComparison.Ordinal);
                Assert.True(off > 0 && freight > 0 && sums.Count > 1);
                return;
            }
            var root = UblDocument.Of(laidOut.Ubl!).Root!;
            StandsInOrder(root);
            decimal Sum(string path) => At(root, path).Split(' ', StringSplitOptions.RemoveEmptyEntries).Sum(one => decimal.Parse(one, CultureInfo.InvariantCulture));
            var kind = root.Name.LocalName;
            Assert.Equal(Sum(kind + "Line/LineExtensionAmount"), Sum("LegalMonetaryTotal/LineExtensionAmount"));
            Assert.Equal(Sum("LegalMonetaryTotal/TaxExclusiveAmount"), Sum("LegalMonetaryTotal/LineExtensionAmount") - Sum("LegalMonetaryTotal/AllowanceTotalAmount") + Sum("LegalMonetaryTotal/ChargeTotalAmount"));
            Assert.Equal(Sum("TaxTotal/TaxAmount"), Sum("TaxTotal/TaxSubtotal/TaxAmount"));
            Assert.Equal(Sum("LegalMonetaryTotal/TaxInclusiveAmount"), Sum("LegalMonetaryTotal/TaxExclusiveAmount") + Sum("TaxTotal/TaxAmount"));
            Assert.Equal(Sum("TaxTotal/TaxSubtotal/TaxableAmount"), Sum("LegalMonetaryTotal/TaxExclusiveAmount"));
            Assert.Equal((total, isCreditNote), (ReadBack(root).Amount(TradeNames.Total), ReadBack(root).IsCreditNote));

            var one = sums.FindIndex(sum => sum.Rate > 0);
            Assert.NotEmpty(Laid(invoice with { Fields = new Dictionary<string, string>(invoice.Fields) { [TradeNames.Total] = Text(total + 0.01m) } }).Faults);
            if (one >= 0)
            {
                Assert.NotEmpty(Laid(invoice with { Taxes = invoice.Taxes.SetItem(one, taxes[one] with { Base = Text(sums[one].Base + 0.01m) }) }).Faults);
                var dearer = Laid(invoice with
                {
                    Taxes = invoice.Taxes.SetItem(one, taxes[one] with { Amount = taxes[one].Amount + 1.01m }),
                    Fields = new Dictionary<string, string>(invoice.Fields) { [TradeNames.Total] = Text(total + 1.01m) },
                });
                Assert.Contains("(BR-CO-17)", Assert.Single(dearer.Faults).Message, StringComparison.Ordinal);
            }
        });

    [Theory]
    [InlineData("'GB'\" },\n        \"iban\"", "''\" },\n        \"iban\"", "The buyer's country is not said; two letters of ISO 3166 are wanted, as GB (BR-11).")]
    [InlineData("\"'Kestrel Sound Ferries'\"", "\"''\"", "The buyer has no name (BR-07).")]
    [InlineData("\"vendor\" }", "\"''\" }", "The seller has no name (BR-06).")]
    [InlineData("\"vendorTaxId\"", "\"''\"", "The seller has no number for VAT (BR-CO-26, BR-S-02).")]
    [InlineData("\"invoiceNumber & '-R' if reversal else invoiceNumber\"", "\"''\"", "It has no number (BR-02).")]
    [InlineData("\"invoiceDate\"", "\"creditedDate\"", "It has no date (BR-03).")]
    [InlineData("\"'Z'\"", "\"''\"", "27.00 EUR are taxed at 0 %, and “untaxed” does not say why: Z (zero rate), E (exempt), AE (reverse charge), K (within the Union), G (export) or O (outside VAT) (BR-CO-04).")]
    [InlineData("\"'Z'\"", "\"'E'\"", "What is taxed as E needs its reason in “exemption” (BR-E-10).")]
    [InlineData("{ \"heading\": \"untaxed\", \"value\": \"'Z'\" }", "{ \"heading\": \"untaxed\", \"value\": \"'Z'\" }, { \"heading\": \"exemption\", \"value\": \"'Why'\" }", "A zero rate has no reason of exemption; “exemption” must be empty (BR-Z-10).")]
    [InlineData("{ \"heading\": \"untaxed\", \"value\": \"'Z'\" }", "{ \"heading\": \"untaxed\", \"value\": \"'AE'\" }, { \"heading\": \"exemption\", \"value\": \"'Reverse charge'\" }", "The buyer has no number for VAT, which reverse charge and supplies within the Union ask for (BR-AE-02, BR-IC-02).")]
    [InlineData("{ \"heading\": \"untaxed\", \"value\": \"'Z'\" }", "{ \"heading\": \"untaxed\", \"value\": \"'O'\" }, { \"heading\": \"exemption\", \"value\": \"'Abroad'\" }", "What is outside VAT stands on no invoice beside what is taxed (BR-O-11).")]
    [InlineData("otherwise 'C62'", "otherwise 'piece'", "Row 2: “piece” is no unit of UN/ECE Recommendation 20, as KGM for a kilogram; a translation list can say what it is (BR-23).")]
    [InlineData("\"amountDue\"", "{ \"heading\": \"amountDue\", \"value\": \"total\" }", "156.60 EUR less 6.60 EUR paid is 150.00 EUR; the amount due is 156.60 EUR (BR-CO-16).")]
    [InlineData("\"iban\"", "{ \"heading\": \"iban\", \"value\": \"'NO00 1234 5678 901'\" }", "NO0012345678901 is no IBAN: its check digits differ (BR-50).")]
    public void What_the_standard_asks_for_and_is_not_there_is_told_by_its_rule(string was, string now, string told) =>
        Assert.Equal([told], Laid(Usual, LayoutReader.Read(Document.Replace("\"name\": \"electronic\",", "\"name\": \"electronic\", \"names\": { \"creditedDate\": \"date\" },", StringComparison.Ordinal).Replace(was, now, StringComparison.Ordinal), Lists)).Faults.Select(fault => fault.Message));

    [Fact]
    public void What_a_page_leaves_open_is_asked_for()
    {
        string Told(ApprovedInvoice invoice, PostingLayout? layout = null) => string.Join(' ', Laid(invoice, layout).Faults.Select(fault => fault.Message));
        var noTerms = Other("\"'As agreed'\"", "\"''\"");
        Assert.Equal("150.00 EUR are due, and neither “due” nor “terms” says when (BR-CO-25).", Told(Usual with { Fields = Usual.Fields.Where(field => field.Key != TradeNames.DueDate).ToDictionary() }, noTerms));
        Assert.Equal("", Told(Usual, noTerms));
        Assert.Equal("Row 2 has no rate of tax, and the invoice has several.", Told(Usual with { Lines = Usual.Lines.SetItem(1, Line(2, 27m)) }));
        Assert.Equal("The tax of 21.60 EUR has no rate, and the rows have several.", Told(Usual with { Taxes = [new ApprovedTax("", "", 21.60m)] }));
        Assert.Equal("Row 1: a price is for one piece at least, or for a part of it, and not for 0.", Told(Usual with { Lines = Usual.Lines.SetItem(0, Line(1, 100m, (TradeNames.Quantity, "2"), (TradeNames.UnitPrice, "50"), (TradeNames.PriceBasis, "0"), (TradeNames.TaxRate, "20"))) }));
        Assert.Equal("It has no row (BR-16).", Told(Usual with { Lines = [] }));
        var gross = Invoice([Line(1, 120m)], [new ApprovedTax("20", "100.00", 20m)], 120m, (TradeNames.DueDate, "2026-12-02"));
        Assert.Equal("", Told(gross));
        Assert.Equal(
            "The rows hold the tax of 30.00 EUR: they come to the total of 120.00 EUR. An electronic invoice has amounts without it, and which of them holds how much cannot be told from their rates (BR-CO-15).",
            Told(gross with { Taxes = [new ApprovedTax("20", "90.00", 30m)] }));
        Assert.Equal(
            "The rows come to 120.00 EUR, with discounts and charges to 120.00 EUR; with the tax of 20.00 EUR that is 140.00 EUR, and the total is 141.00 EUR (BR-CO-15). "
            + "At 20 % the rows, discounts and charges come to 120.00 EUR; the base is 100.00 EUR (BR-S-08).",
            Told(gross with { Fields = new Dictionary<string, string>(gross.Fields) { [TradeNames.Total] = "141.00" } }));
        Assert.Equal("100.005 has more than two digits behind the decimal mark, which is all that amounts have (BR-DEC).", Told(Invoice([Line(1, 100.005m)], [], 100.005m, (TradeNames.DueDate, "2026-12-02")) with { Currency = "KWD" }).Split(" 100.005 ")[0]);
    }

    [Fact]
    public void A_tax_that_is_stated_in_one_sum_is_parted_by_what_the_rows_come_to_at_each_rate()
    {
        ApprovedLine At(int number, decimal amount, string rate) => Line(number, amount, (TradeNames.TaxRate, rate));
        ApprovedInvoice Over(decimal tax, params (string, string)[] more) =>
            Invoice([At(1, 100m, "20"), At(2, 40m, "5"), At(3, 60m, "20")], [], 200m + tax, [(TradeNames.Tax, Text(tax)), (TradeNames.DueDate, "2026-12-02"), .. more]);
        var root = Written(Over(34m));
        Assert.Equal("160.00 40.00|32.00 2.00", $"{UblTests.At(root, "TaxTotal/TaxSubtotal/TaxableAmount")}|{UblTests.At(root, "TaxTotal/TaxSubtotal/TaxAmount")}");
        Assert.Equal("The tax of 34.01 EUR has no rate, and the rows have several.", Laid(Over(34.01m)).Faults.Single().Message);
        // Nobody knows at which rate the freight is taxed.
        Assert.NotEmpty(Laid(Over(34m, (TradeNames.Freight, "5.00"))).Faults);
    }

    /// <summary>Amounts as a till prints them, with the tax in them, are written without it; they come to the same total, and no rule is broken.</summary>
    [Fact]
    public void Amounts_that_hold_the_tax_are_written_without_it()
    {
        var root = Written(Invoice(
            [Line(1, 120m, (TradeNames.Quantity, "3"), (TradeNames.UnitPrice, "40"), (TradeNames.TaxRate, "20")), Line(2, 9.45m, (TradeNames.Quantity, "1"), (TradeNames.UnitPrice, "10.50"), (TradeNames.TaxRate, "5"))],
            [new ApprovedTax("20", "100.00", 20m), new ApprovedTax("5", "9.00", 0.45m)], 129.45m, (TradeNames.DueDate, "2026-12-02")));
        // What was taken off the printed price is taken off without the tax as well.
        Assert.Equal("100.00 9.00|33.33333333 10|1.00|109.00 129.45", string.Join('|', At(root, "InvoiceLine/LineExtensionAmount"), At(root, "InvoiceLine/Price/PriceAmount"), At(root, "InvoiceLine/AllowanceCharge/Amount"), $"{At(root, "LegalMonetaryTotal/TaxExclusiveAmount")} {At(root, "LegalMonetaryTotal/TaxInclusiveAmount")}"));

        Gen.Select(Gen.Int[1, 9], Gen.Int[1, 99_999], Gen.Int[0, 3].Select(at => new[] { 0m, 5m, 13.5m, 20m }[at])).Array[1, 10].Sample(
            drawn =>
            {
                var lines = drawn.Select((one, at) => Line(at + 1, one.Item1 * one.Item2 / 100m, (TradeNames.Quantity, $"{one.Item1}"), (TradeNames.UnitPrice, Text(one.Item2 / 100m)), (TradeNames.TaxRate, Text(one.Item3)))).ToList();
                var taxes = drawn.GroupBy(one => one.Item3).Where(rate => rate.Key > 0).Select(rate => rate.Sum(one => one.Item1 * one.Item2 / 100m) is var gross
                    && Math.Round(gross * rate.Key / (100 + rate.Key), 2, MidpointRounding.AwayFromZero) is var tax ? new ApprovedTax(Text(rate.Key), Text(gross - tax), tax) : throw new InvalidOperationException()).ToList();
                var total = drawn.Sum(one => one.Item1 * one.Item2 / 100m);
                var invoice = Invoice(lines, taxes, total, (TradeNames.DueDate, "2026-12-02"));
                Assert.Empty(Laid(invoice).Faults);
                var written = Written(invoice);
                Assert.Equal(total, decimal.Parse(At(written, "LegalMonetaryTotal/TaxInclusiveAmount"), CultureInfo.InvariantCulture));
                Assert.Equal(total - taxes.Sum(tax => tax.Amount), At(written, "InvoiceLine/LineExtensionAmount").Split(' ').Sum(amount => decimal.Parse(amount, CultureInfo.InvariantCulture)));
            },
            iter: Effort.Times(300));
    }

    [Theory]
    [InlineData("NO 987.654.321 mva", "NO987654321MVA")]
    [InlineData("987 654 321", "NO987654321")]
    [InlineData("A 987654", "NOA987654")]
    [InlineData("SE 556677", "SE556677")]
    public void A_number_for_vat_begins_with_a_country(string printed, string written) => Assert.Equal(
        written, At(Written(Usual with { Fields = new Dictionary<string, string>(Usual.Fields) { [TradeNames.VendorTaxId] = printed } }), "AccountingSupplierParty/Party/PartyTaxScheme/CompanyID"));

    [Fact]
    public void A_charge_of_less_than_nothing_is_a_discount()
    {
        var root = Written(Invoice([Line(1, 100m)], [new ApprovedTax("20", "95.00", 19m)], 114m, (TradeNames.Freight, "-5.00"), (TradeNames.DueDate, "2026-12-02")));
        Assert.Equal("false 5.00", $"{At(root, "AllowanceCharge/ChargeIndicator")} {At(root, "AllowanceCharge/Amount")}");
    }

    [Theory]
    [InlineData(TaxTable, JournalTable, "An electronic invoice needs one table of taxes.")]
    [InlineData(TaxTable, JournalTable, "An electronic invoice has no place for a journal.")]
    [InlineData("\"heading\": \"issued\"", "\"heading\": \"isued\"", "An electronic invoice has no column “isued” in its invoices; “issued” is meant, perhaps.")]
    [InlineData("\"heading\": \"issued\"", "\"heading\": \"isued\"", "An electronic invoice needs the column “issued” in its invoices.")]
    [InlineData("\"itemCode\"", "\"section\"", "An electronic invoice has no column “section” in its lines; there are itemCode, description, quantity, unit, unitPrice, priceBasis, taxRate, amount.")]
    [InlineData("\"value\": \"invoiceDate\"", "\"value\": \"vendor\"", "The column “issued” is a date in an electronic invoice; this is a text.")]
    [InlineData("\"proves\": \"tax\"", "\"proves\": \"total\"", "The column “tax” must prove what it comes to: “proves”: \"tax\".")]
    [InlineData("\"unitPrice\",", "{ \"heading\": \"unitPrice\", \"value\": \"unitPrice\", \"proves\": \"lines\" },", "The column “unitPrice” of an electronic invoice proves nothing.")]
    [InlineData("\"records\": \"lines\",", "\"records\": \"lines\", \"where\": \"amount > 0\",", "An electronic invoice has all records; “where” leaves some out.")]
    [InlineData("\"format\": \"ubl\"", "\"format\": \"ubl\", \"per\": \"run\"", "An electronic invoice is one invoice: “per” is “invoice”.")]
    [InlineData("\"format\": \"ubl\"", "\"format\": \"ubl\", \"decimal\": \",\"", "“decimal” is of csv and fixed-width files; this one is ubl, which has its own form for it.")]
    [InlineData("\"name\": \"electronic\",", "\"name\": \"electronic\", \"creditNotes\": \"positive\",", "A layout of electronic invoices tells credit notes by their minus: “creditNotes” is “negative”. They are written without it.")]
    public void A_layout_that_cannot_make_one_says_why(string was, string now, string told) =>
        Assert.Contains(told, Assert.Throws<JsonFaultException>(() => Other(was, now)).Faults.Select(fault => fault.Message));

    [Fact]
    public void Letters_that_xml_has_no_place_for_are_left_out_and_all_others_stay()
    {
        var line = Line(1, 100m) with { Cells = new Dictionary<string, string> { [TradeNames.Amount] = "100", [TradeNames.Description] = "Tau\u0001 <10 mm> & \U0001F6A2 «grå»" } };
        Assert.Equal("Tau <10 mm> & \U0001F6A2 «grå»", At(XElement.Parse(Written(Invoice([line], [], 100m, (TradeNames.DueDate, "2026-12-02"))).ToString()), "InvoiceLine/Item/Name"));
    }
}
