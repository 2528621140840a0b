using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using static Daxlin.Core.Posting.Ubl.UblFigures;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>Writes an invoice as UBL 2.1 (ISO/IEC 19845), Invoice or CreditNote, bound to EN 16931 as CEN/TS 16931-3-2 does.</summary>
/// <remarks>The elements stand in the order of the schema's sequences, which parsers that validate ask for.</remarks>
public static class UblDocument
{
    private const string Customization = "urn:cen.eu:en16931:2017";
    private const string InvoiceCode = "380";
    private const string CreditNoteCode = "381";

    /// <summary>UNCL 4461: by a transfer to an account, and a means that is not said.</summary>
    private const string Transfer = "30";
    private const string NotSaid = "1";

    private static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2";
    private static readonly XNamespace Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";

    public static XDocument Of(UblInvoice invoice)
    {
        var kind = invoice.IsCreditNote ? "CreditNote" : "Invoice";
        XNamespace space = $"urn:oasis:names:specification:ubl:schema:xsd:{kind}-2";
        return new XDocument(
            new XDeclaration("1.0", "utf-8", null),
            new XElement(
                space + kind, new XAttribute(XNamespace.Xmlns + "cac", Cac.NamespaceName), new XAttribute(XNamespace.Xmlns + "cbc", Cbc.NamespaceName),
                Basic("CustomizationID", Customization),
                Basic("ID", invoice.Number),
                Basic("IssueDate", Day(invoice.Issued)),
                invoice.IsCreditNote ? null : Basic("DueDate", Day(invoice.Due)),
                Basic(kind + "TypeCode", invoice.IsCreditNote ? CreditNoteCode : InvoiceCode),
                Basic("Note", invoice.Note),
                Basic("DocumentCurrencyCode", invoice.Currency.Code),
                Group("OrderReference", Basic("ID", invoice.Order)),
                Group("BillingReference", Group("InvoiceDocumentReference", Basic("ID", invoice.Credited))),
                new XElement(Cac + "AccountingSupplierParty", Party(invoice.Seller)),
                new XElement(Cac + "AccountingCustomerParty", Party(invoice.Buyer)),
                PaymentMeans(invoice),
                Group("PaymentTerms", Basic("Note", invoice.Terms)),
                invoice.OnWhole.Select(one => Allowance(invoice, one.IsCharge, one.Amount, Category(invoice, "TaxCategory", one.Rate, false))),
                new XElement(
                    Cac + "TaxTotal", Amount(invoice, "TaxAmount", invoice.Tax),
                    invoice.Taxes.Select(row => new XElement(
                        Cac + "TaxSubtotal", Amount(invoice, "TaxableAmount", row.Base), Amount(invoice, "TaxAmount", row.Amount), Category(invoice, "TaxCategory", row.Rate, true)))),
                new XElement(
                    Cac + "LegalMonetaryTotal",
                    Amount(invoice, "LineExtensionAmount", invoice.LineTotal), Amount(invoice, "TaxExclusiveAmount", invoice.BeforeTax), Amount(invoice, "TaxInclusiveAmount", invoice.Total),
                    AmountUnlessNone(invoice, "AllowanceTotalAmount", invoice.AllowanceTotal), AmountUnlessNone(invoice, "ChargeTotalAmount", invoice.ChargeTotal),
                    AmountUnlessNone(invoice, "PrepaidAmount", invoice.Paid), Amount(invoice, "PayableAmount", invoice.Total - invoice.Paid)),
                invoice.Lines.Select(line => Line(invoice, kind, line))));
    }

    private static XElement? PaymentMeans(UblInvoice invoice)
    {
        // A credit note has no due date of its own.
        var due = invoice.IsCreditNote ? Basic("PaymentDueDate", Day(invoice.Due)) : null;
        return invoice.Iban.Length == 0 && due is null ? null : new XElement(
            Cac + "PaymentMeans", Basic("PaymentMeansCode", invoice.Iban.Length > 0 ? Transfer : NotSaid), due, Group("PayeeFinancialAccount", Basic("ID", invoice.Iban)));
    }

    private static XElement Party(UblParty party) => new(
        Cac + "Party",
        new XElement(Cac + "PostalAddress", Group("Country", Basic("IdentificationCode", party.Country))),
        party.TaxId.Length == 0 ? null : new XElement(Cac + "PartyTaxScheme", Basic("CompanyID", party.TaxId), Scheme()),
        Group("PartyLegalEntity", Basic("RegistrationName", party.Name)));

    private static XElement Line(UblInvoice invoice, string kind, UblLine line) => new(
        Cac + (kind + "Line"),
        Basic("ID", line.Number.ToString(CultureInfo.InvariantCulture)),
        new XElement(Cbc + (invoice.IsCreditNote ? "CreditedQuantity" : "InvoicedQuantity"), new XAttribute("unitCode", line.Unit), Plain(line.Quantity)),
        Amount(invoice, "LineExtensionAmount", line.Amount),
        line.Discount == 0 ? null : Allowance(invoice, line.Discount < 0, Math.Abs(line.Discount), null),
        new XElement(
            Cac + "Item", Basic("Name", line.Description), Group("SellersItemIdentification", Basic("ID", line.ItemCode)), Category(invoice, "ClassifiedTaxCategory", line.Rate, false)),
        new XElement(
            Cac + "Price",
            new XElement(Cbc + "PriceAmount", new XAttribute("currencyID", invoice.Currency.Code), Plain(line.UnitPrice)),
            line.PriceBasis == 1 ? null : new XElement(Cbc + "BaseQuantity", new XAttribute("unitCode", line.Unit), Plain(line.PriceBasis))));

    private static XElement Allowance(UblInvoice invoice, bool isCharge, decimal amount, XElement? category) => new(
        Cac + "AllowanceCharge", Basic("ChargeIndicator", isCharge ? "true" : "false"), Basic("AllowanceChargeReason", isCharge ? "Charge" : "Discount"), Amount(invoice, "Amount", amount), category);

    private static XElement Category(UblInvoice invoice, string name, decimal rate, bool saysWhy)
    {
        var code = invoice.CategoryOf(rate);
        return new XElement(
            Cac + name, Basic("ID", code), code == "O" ? null : Basic("Percent", Plain(rate)), saysWhy && rate == 0 ? Basic("TaxExemptionReason", invoice.Exemption) : null, Scheme());
    }

    private static XElement Scheme() => new(Cac + "TaxScheme", new XElement(Cbc + "ID", "VAT"));

    /// <summary>Null for an empty text: UBL has no empty elements.</summary>
    private static XElement? Basic(string name, string text) => text.Length == 0 ? null : new XElement(Cbc + name, Printable(text));

    private static XElement? Group(string name, XElement? inner) => inner is null ? null : new XElement(Cac + name, inner);

    private static XElement Amount(UblInvoice invoice, string name, decimal amount) =>
        new(Cbc + name, new XAttribute("currencyID", invoice.Currency.Code), amount.ToString("F" + invoice.Currency.MinorDigits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture));

    private static XElement? AmountUnlessNone(UblInvoice invoice, string name, decimal amount) => amount == 0 ? null : Amount(invoice, name, amount);

    private static string Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "";

    /// <summary>XML has no place for most control characters.</summary>
    private static string Printable(string text) => string.Concat(text.EnumerateRunes().Where(rune => !rune.IsBmp || XmlConvert.IsXmlChar((char)rune.Value)));
}
