using System.Globalization;
using System.Text;
using System.Xml.Linq;

namespace Daxlin.Samples;

/// <summary>Writes a made-up invoice as an electronic one, in UBL 2.1.</summary>
internal static class ElectronicWriter
{
    private static readonly XNamespace Root = "urn:oasis:names:specification:ubl:schema:xsd:Invoice-2";
    private static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2";
    private static readonly XNamespace Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";

    public static byte[] Write(Vendor vendor, MadeInvoice invoice)
    {
        XElement Money(string name, decimal amount) => new(Cbc + name, new XAttribute("currencyID", vendor.Currency), amount.ToString("0.00", CultureInfo.InvariantCulture));
        XElement Rate(string name, decimal rate) => new(
            Cac + name, new XElement(Cbc + "ID", rate == 0 ? "Z" : "S"), new XElement(Cbc + "Percent", Text(rate)), new XElement(Cac + "TaxScheme", new XElement(Cbc + "ID", "VAT")));
        var document = new XElement(
            Root + "Invoice", new XAttribute(XNamespace.Xmlns + "cac", Cac), new XAttribute(XNamespace.Xmlns + "cbc", Cbc),
            new XElement(Cbc + "CustomizationID", "urn:cen.eu:en16931:2017"),
            new XElement(Cbc + "ID", invoice.Number), new XElement(Cbc + "IssueDate", Text(invoice.Date)), new XElement(Cbc + "DueDate", Text(invoice.Due)),
            new XElement(Cbc + "InvoiceTypeCode", "380"), new XElement(Cbc + "DocumentCurrencyCode", vendor.Currency),
            invoice.PurchaseOrder is { } order ? new XElement(Cac + "OrderReference", new XElement(Cbc + "ID", order)) : null,
            new XElement(Cac + "AccountingSupplierParty", new XElement(
                Cac + "Party", new XElement(Cac + "PartyName", new XElement(Cbc + "Name", vendor.Name)),
                new XElement(Cac + "PostalAddress", new XElement(Cac + "Country", new XElement(Cbc + "IdentificationCode", "IE"))),
                new XElement(Cac + "PartyTaxScheme", new XElement(Cbc + "CompanyID", vendor.TaxId.Replace(" ", "", StringComparison.Ordinal)), new XElement(Cac + "TaxScheme", new XElement(Cbc + "ID", "VAT"))),
                new XElement(Cac + "PartyLegalEntity", new XElement(Cbc + "RegistrationName", vendor.Name)))),
            new XElement(Cac + "AccountingCustomerParty", new XElement(
                Cac + "Party", new XElement(Cac + "PostalAddress", new XElement(Cac + "Country", new XElement(Cbc + "IdentificationCode", "IE"))),
                new XElement(Cac + "PartyLegalEntity", new XElement(Cbc + "RegistrationName", "Kestrel Sound Ferries")))),
            new XElement(
                Cac + "PaymentMeans", new XElement(Cbc + "PaymentMeansCode", "58"),
                new XElement(Cac + "PayeeFinancialAccount", new XElement(Cbc + "ID", vendor.Iban.Replace(" ", "", StringComparison.Ordinal)))),
            new XElement(
                Cac + "TaxTotal", Money("TaxAmount", invoice.Tax),
                invoice.Taxes.Select(tax => new XElement(Cac + "TaxSubtotal", Money("TaxableAmount", tax.Base), Money("TaxAmount", tax.Amount), Rate("TaxCategory", tax.Rate)))),
            new XElement(
                Cac + "LegalMonetaryTotal", Money("LineExtensionAmount", invoice.Subtotal), Money("TaxExclusiveAmount", invoice.Subtotal - invoice.Discount + invoice.Freight),
                Money("TaxInclusiveAmount", invoice.Total), Money("AllowanceTotalAmount", invoice.Discount), Money("ChargeTotalAmount", invoice.Freight), Money("PayableAmount", invoice.Total)),
            invoice.Lines.Select((line, index) => new XElement(
                Cac + "InvoiceLine", new XElement(Cbc + "ID", index + 1), new XElement(Cbc + "InvoicedQuantity", new XAttribute("unitCode", "C62"), Text(line.Quantity)),
                Money("LineExtensionAmount", line.Amount),
                new XElement(
                    Cac + "Item", new XElement(Cbc + "Name", line.Description), new XElement(Cac + "SellersItemIdentification", new XElement(Cbc + "ID", line.Code)),
                    Rate("ClassifiedTaxCategory", line.TaxRate)),
                new XElement(Cac + "Price", Money("PriceAmount", line.UnitPrice)))));
        return Encoding.UTF8.GetBytes($"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{document}\n");
    }

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Text(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
