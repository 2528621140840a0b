using System.Globalization;
using System.Xml.Linq;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Testing;

/// <summary>Writes a captured invoice as its vendor's own program would have sent it, in either syntax of EN 16931.</summary>
public static class ElectronicText
{
    /// <summary>The elements that state figures, so that a test can change one.</summary>
    public static IEnumerable<XElement> FiguresOf(XDocument document) => document.Descendants().Where(one => !one.HasElements
        && (one.Name.LocalName is "InvoicedQuantity" or "CreditedQuantity" or "BilledQuantity" or "Percent" or "RateApplicablePercent"
            || (one.Name.LocalName.EndsWith("Amount", StringComparison.Ordinal) && one.Name.LocalName is not ("TaxExclusiveAmount" or "TaxBasisTotalAmount" or "ActualAmount"))));

    /// <param name="hasLines">Says that it states its lines; some profiles state only sums.</param>
    public static XDocument Of(CapturedInvoice invoice, bool isUbl, bool hasLines = true) => isUbl ? Ubl(invoice, hasLines) : Cii(invoice, hasLines);

    private static XDocument Ubl(CapturedInvoice invoice, bool hasLines)
    {
        var kind = invoice.IsCreditNote ? "CreditNote" : "Invoice";
        XNamespace root = $"urn:oasis:names:specification:ubl:schema:xsd:{kind}-2", cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
            cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";
        var currency = CurrencyOf(invoice);
        XElement? Money(string name, decimal? amount) => amount is { } number ? new(cbc + name, new XAttribute("currencyID", currency), Text(number)) : null;
        return new XDocument(new XElement(
            root + kind, new XAttribute(XNamespace.Xmlns + "cac", cac), new XAttribute(XNamespace.Xmlns + "cbc", cbc),
            new XElement(cbc + "ID", TextOf(invoice, TradeNames.InvoiceNumber)), new XElement(cbc + "IssueDate", TextOf(invoice, TradeNames.InvoiceDate)),
            invoice.IsCreditNote ? null : Optional(cbc + "DueDate", TextOf(invoice, TradeNames.DueDate)),
            new XElement(cbc + "DocumentCurrencyCode", currency),
            invoice.Find(TradeNames.PurchaseOrder) is { } order ? new XElement(cac + "OrderReference", new XElement(cbc + "ID", order.Value)) : null,
            new XElement(cac + "AccountingSupplierParty", new XElement(
                cac + "Party", new XElement(cac + "PartyName", new XElement(cbc + "Name", invoice.Template.Vendor)),
                invoice.Find(TradeNames.VendorTaxId) is { } tax
                    ? new XElement(cac + "PartyTaxScheme", new XElement(cbc + "CompanyID", tax.Value), new XElement(cac + "TaxScheme", new XElement(cbc + "ID", "VAT"))) : null)),
            new XElement(
                cac + "TaxTotal", Money("TaxAmount", TaxOf(invoice)),
                invoice.Taxes.Where(row => row.NumberIn(TradeNames.Rate) is not null).Select(row => new XElement(
                    cac + "TaxSubtotal", Money("TaxableAmount", Signed(invoice, row.NumberIn(TradeNames.Base))), Money("TaxAmount", Signed(invoice, row.NumberIn(TradeNames.Amount))),
                    new XElement(cac + "TaxCategory", new XElement(cbc + "Percent", Text(row.NumberIn(TradeNames.Rate)!.Value)))))),
            new XElement(
                cac + "LegalMonetaryTotal", Money("LineExtensionAmount", Signed(invoice, invoice.Amount(TradeNames.Subtotal))),
                Money("TaxInclusiveAmount", Signed(invoice, invoice.Amount(TradeNames.Total))),
                Money("AllowanceTotalAmount", Size(invoice.Amount(TradeNames.Discount))), Money("ChargeTotalAmount", Signed(invoice, invoice.Amount(TradeNames.Freight))),
                Money("PrepaidAmount", Size(invoice.Amount(TradeNames.AlreadyPaid))), Money("PayableAmount", Signed(invoice, invoice.Amount(TradeNames.AmountDue) ?? invoice.Amount(TradeNames.Total)))),
            invoice.Lines.Where(_ => hasLines).Select(line => new XElement(
                cac + $"{kind}Line", new XElement(cbc + "ID", line.Number),
                new XElement(cbc + (invoice.IsCreditNote ? "CreditedQuantity" : "InvoicedQuantity"), new XAttribute("unitCode", "C62"), Text(QuantityOf(invoice, line))),
                Money("LineExtensionAmount", Signed(invoice, line.NumberIn(TradeNames.Amount))),
                OffOf(invoice, line) is not 0 and var off
                    ? new XElement(cac + "AllowanceCharge", new XElement(cbc + "ChargeIndicator", off < 0 ? "true" : "false"), Money("Amount", Math.Abs(off))) : null,
                new XElement(
                    cac + "Item", new XElement(cbc + "Name", line.Find(TradeNames.Description)?.Value ?? "Goods"),
                    line.Find(TradeNames.ItemCode) is { } code ? new XElement(cac + "SellersItemIdentification", new XElement(cbc + "ID", code.Value)) : null,
                    line.NumberIn(TradeNames.TaxRate) is { } rate ? new XElement(cac + "ClassifiedTaxCategory", new XElement(cbc + "Percent", Text(rate))) : null),
                new XElement(
                    cac + "Price", Money("PriceAmount", PriceOf(line)),
                    line.NumberIn(TradeNames.PriceBasis) is { } basis ? new XElement(cbc + "BaseQuantity", Text(basis)) : null)))));
    }

    private static XDocument Cii(CapturedInvoice invoice, bool hasLines)
    {
        XNamespace rsm = "urn:un:unece:uncefact:data:standard:CrossIndustryInvoice:100", ram = "urn:un:unece:uncefact:data:standard:ReusableAggregateBusinessInformationEntity:100",
            udt = "urn:un:unece:uncefact:data:standard:UnqualifiedDataType:100";
        XElement? Money(string name, decimal? amount) => amount is { } number ? new(ram + name, Text(number)) : null;
        XElement? Date(string name, string value) => value.Length == 0 ? null
            : new(ram + name, new XElement(udt + "DateTimeString", new XAttribute("format", "102"), value.Replace("-", "", StringComparison.Ordinal)));
        var currency = CurrencyOf(invoice);
        return new XDocument(new XElement(
            rsm + "CrossIndustryInvoice", new XAttribute(XNamespace.Xmlns + "rsm", rsm), new XAttribute(XNamespace.Xmlns + "ram", ram), new XAttribute(XNamespace.Xmlns + "udt", udt),
            new XElement(
                rsm + "ExchangedDocument", new XElement(ram + "ID", TextOf(invoice, TradeNames.InvoiceNumber)), new XElement(ram + "TypeCode", invoice.IsCreditNote ? "381" : "380"),
                Date("IssueDateTime", TextOf(invoice, TradeNames.InvoiceDate))),
            new XElement(
                rsm + "SupplyChainTradeTransaction",
                invoice.Lines.Where(_ => hasLines).Select(line => new XElement(
                    ram + "IncludedSupplyChainTradeLineItem",
                    new XElement(
                        ram + "SpecifiedTradeProduct", line.Find(TradeNames.ItemCode) is { } code ? new XElement(ram + "SellerAssignedID", code.Value) : null,
                        new XElement(ram + "Name", line.Find(TradeNames.Description)?.Value ?? "Goods")),
                    new XElement(
                        ram + "SpecifiedLineTradeAgreement", new XElement(
                            ram + "NetPriceProductTradePrice", Money("ChargeAmount", PriceOf(line)),
                            line.NumberIn(TradeNames.PriceBasis) is { } basis ? new XElement(ram + "BasisQuantity", Text(basis)) : null)),
                    new XElement(ram + "SpecifiedLineTradeDelivery", new XElement(ram + "BilledQuantity", new XAttribute("unitCode", "C62"), Text(QuantityOf(invoice, line)))),
                    new XElement(
                        ram + "SpecifiedLineTradeSettlement",
                        line.NumberIn(TradeNames.TaxRate) is { } rate ? new XElement(ram + "ApplicableTradeTax", new XElement(ram + "RateApplicablePercent", Text(rate))) : null,
                        OffOf(invoice, line) is not 0 and var off
                            ? new XElement(ram + "SpecifiedTradeAllowanceCharge", new XElement(ram + "ChargeIndicator", new XElement(udt + "Indicator", off < 0 ? "true" : "false")), Money("ActualAmount", Math.Abs(off)))
                            : null,
                        new XElement(ram + "SpecifiedTradeSettlementLineMonetarySummation", Money("LineTotalAmount", Signed(invoice, line.NumberIn(TradeNames.Amount))))))),
                new XElement(
                    ram + "ApplicableHeaderTradeAgreement", new XElement(
                        ram + "SellerTradeParty", new XElement(ram + "Name", invoice.Template.Vendor),
                        invoice.Find(TradeNames.VendorTaxId) is { } tax ? new XElement(ram + "SpecifiedTaxRegistration", new XElement(ram + "ID", new XAttribute("schemeID", "VA"), tax.Value)) : null),
                    invoice.Find(TradeNames.PurchaseOrder) is { } order ? new XElement(ram + "BuyerOrderReferencedDocument", new XElement(ram + "IssuerAssignedID", order.Value)) : null),
                new XElement(
                    ram + "ApplicableHeaderTradeSettlement", new XElement(ram + "InvoiceCurrencyCode", currency),
                    invoice.Taxes.Where(row => row.NumberIn(TradeNames.Rate) is not null).Select(row => new XElement(
                        ram + "ApplicableTradeTax", Money("CalculatedAmount", Signed(invoice, row.NumberIn(TradeNames.Amount))), Money("BasisAmount", Signed(invoice, row.NumberIn(TradeNames.Base))),
                        new XElement(ram + "RateApplicablePercent", Text(row.NumberIn(TradeNames.Rate)!.Value)))),
                    new XElement(ram + "SpecifiedTradePaymentTerms", Date("DueDateDateTime", TextOf(invoice, TradeNames.DueDate))),
                    new XElement(
                        ram + "SpecifiedTradeSettlementHeaderMonetarySummation", Money("LineTotalAmount", Signed(invoice, invoice.Amount(TradeNames.Subtotal))),
                        Money("ChargeTotalAmount", Signed(invoice, invoice.Amount(TradeNames.Freight))), Money("AllowanceTotalAmount", Size(invoice.Amount(TradeNames.Discount))),
                        Money("TaxTotalAmount", TaxOf(invoice)), Money("GrandTotalAmount", Signed(invoice, invoice.Amount(TradeNames.Total))),
                        Money("TotalPrepaidAmount", Size(invoice.Amount(TradeNames.AlreadyPaid))),
                        Money("DuePayableAmount", Signed(invoice, invoice.Amount(TradeNames.AmountDue) ?? invoice.Amount(TradeNames.Total))))))));
    }

    private static XElement? Optional(XName name, string text) => text.Length == 0 ? null : new XElement(name, text);

    private static string TextOf(CapturedInvoice invoice, string name) => invoice.Find(name)?.Value ?? "";

    private static string CurrencyOf(CapturedInvoice invoice) => invoice.Find(TradeNames.Currency)?.Value ?? invoice.Template.Reads.Currency.Code;

    /// <summary>Credit notes are stated without the minus that some vendors print.</summary>
    private static decimal? Signed(CapturedInvoice invoice, decimal? amount) => invoice.IsCreditNote && invoice.Amount(TradeNames.Total) < 0 ? -amount : amount;

    private static decimal? Size(decimal? amount) => amount is { } number ? Math.Abs(number) : null;

    private static decimal? TaxOf(CapturedInvoice invoice) => Signed(invoice, invoice.Amount(TradeNames.Tax)
        ?? (invoice.Taxes.IsEmpty ? null : invoice.Taxes.Sum(row => row.NumberIn(TradeNames.Amount) ?? 0)));

    /// <summary>A credit note's amount is stated without its minus, so of its quantity and price the quantity loses it.</summary>
    private static decimal QuantityOf(CapturedInvoice invoice, CapturedLine line)
    {
        var quantity = line.NumberIn(TradeNames.Quantity) ?? 1;
        return invoice.IsCreditNote ? Math.Abs(quantity) : quantity;
    }

    private static decimal? PriceOf(CapturedLine line) => line.NumberIn(TradeNames.UnitPrice) is { } price ? Math.Abs(price) : line.NumberIn(TradeNames.Amount);

    /// <summary>What is taken off the line: the standard knows no discounts in per cent but as amounts.</summary>
    private static decimal OffOf(CapturedInvoice invoice, CapturedLine line) => line.NumberIn(TradeNames.UnitPrice) is { } price && line.NumberIn(TradeNames.Amount) is { } amount
        && line.Cells.Any(cell => cell.Name.StartsWith("discount", StringComparison.Ordinal))
        ? Math.Round(QuantityOf(invoice, line) * Math.Abs(price) / (line.NumberIn(TradeNames.PriceBasis) ?? 1), 2, MidpointRounding.AwayFromZero) - (Signed(invoice, amount) ?? 0) : 0;

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
