using System.Xml.Linq;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using static Daxlin.Core.Electronic.ElectronicElements;

namespace Daxlin.Core.Electronic;

/// <summary>What the elements of UBL 2.1 (Invoice, CreditNote) are in the names of the trade, as EN 16931-3-2 binds them.</summary>
internal static class UblForm
{
    public static ElectronicInvoice Read(ElectronicElements file)
    {
        var root = file.Root;
        var currency = TextAt(root, "DocumentCurrencyCode");
        var vendor = At(root, "AccountingSupplierParty/Party");
        var totals = At(root, "LegalMonetaryTotal");
        var isCreditNote = root.Name.LocalName == "CreditNote" || CreditNoteTypes.IsCredit(TextAt(root, "InvoiceTypeCode"), NumberAt(totals, "TaxInclusiveAmount"));
        // A second tax total may state the tax in the currency of the books.
        var taxTotal = AllAt(root, "TaxTotal").FirstOrDefault(one => IsIn(currency, At(one, "TaxAmount")));
        return new ElectronicInvoice(
            ElectronicSyntax.Ubl, isCreditNote,
            [
                .. file.Value(TradeNames.InvoiceNumber, At(root, "ID")),
                .. file.Value(TradeNames.InvoiceDate, At(root, "IssueDate")),
                .. file.Value(TradeNames.DueDate, At(root, "DueDate") ?? At(root, "PaymentMeans/PaymentDueDate")),
                .. file.Value(TradeNames.PurchaseOrder, At(root, "OrderReference/ID")),
                .. isCreditNote ? file.Value(TradeNames.CreditedInvoice, At(root, "BillingReference/InvoiceDocumentReference/ID")) : [],
                .. file.Value(TradeNames.VendorName, At(vendor, "PartyLegalEntity/RegistrationName") ?? At(vendor, "PartyName/Name")),
                .. file.Value(TradeNames.VendorTaxId, TaxIdOf(vendor)),
                .. AllAt(root, "PaymentMeans/PayeeFinancialAccount/ID").Where(IsIban).SelectMany(one => file.Value(TradeNames.Iban, one)),
                .. file.Value(TradeNames.Currency, At(root, "DocumentCurrencyCode")),
                .. file.Value(TradeNames.Subtotal, At(totals, "LineExtensionAmount")),
                .. file.Value(ElectronicInvoice.TaxedSum, At(totals, "TaxExclusiveAmount")),
                .. file.Value(TradeNames.Discount, At(totals, "AllowanceTotalAmount")),
                .. file.Value(TradeNames.Freight, At(totals, "ChargeTotalAmount")),
                .. file.Value(TradeNames.Tax, At(taxTotal, "TaxAmount")),
                .. file.Value(TradeNames.Total, At(totals, "TaxInclusiveAmount")),
                .. file.Value(TradeNames.AlreadyPaid, At(totals, "PrepaidAmount")),
                .. file.Value(TradeNames.AmountDue, At(totals, "PayableAmount")),
            ],
            [.. root.Elements().Where(one => one.Name.LocalName is "InvoiceLine" or "CreditNoteLine").Select(line => Line(file, line))],
            [.. AllAt(taxTotal, "TaxSubtotal").Select(row => Tax(file, row))],
            file.All);
    }

    private static StatedRow Line(ElectronicElements file, XElement line)
    {
        var quantity = At(line, "InvoicedQuantity") ?? At(line, "CreditedQuantity");
        var off = AllAt(line, "AllowanceCharge").Sum(one => (TextAt(one, "ChargeIndicator") is "true" or "1" ? -1 : 1) * (NumberAt(one, "Amount") ?? 0));
        return new StatedRow(
        [
            .. file.Value(TradeNames.ItemCode, At(line, "Item/SellersItemIdentification/ID")),
            .. file.Value(TradeNames.Description, At(line, "Item/Name") ?? At(line, "Item/Description")),
            .. file.Value(TradeNames.Quantity, quantity),
            .. quantity?.Attribute("unitCode") is { } unit ? [new StatedValue(TradeNames.Unit, ValueKind.Text, unit.Value, null, "unitCode", -1)] : Array.Empty<StatedValue>(),
            .. file.Value(TradeNames.UnitPrice, At(line, "Price/PriceAmount")),
            .. AllAt(line, "Price/AllowanceCharge/BaseAmount").SelectMany(gross => file.Value(TradeNames.UnitPrice, gross)),
            .. file.Value(TradeNames.PriceBasis, At(line, "Price/BaseQuantity")),
            .. off == 0 ? Array.Empty<StatedValue>() : [file.Figure(TradeNames.DiscountAmount, ValueKind.Money, off, null)],
            .. file.Value(TradeNames.TaxRate, At(line, "Item/ClassifiedTaxCategory/Percent")),
            .. file.Value(TradeNames.Amount, At(line, "LineExtensionAmount")),
        ]);
    }

    private static StatedRow Tax(ElectronicElements file, XElement row) => new(
    [
        .. file.Value(TradeNames.Rate, At(row, "TaxCategory/Percent")),
        .. file.Value(TradeNames.Base, At(row, "TaxableAmount")),
        .. file.Value(TradeNames.Amount, At(row, "TaxAmount")),
    ]);

    private static XElement? TaxIdOf(XElement? party) => At(
        AllAt(party, "PartyTaxScheme").FirstOrDefault(one => TextAt(one, "TaxScheme/ID").Equals("VAT", StringComparison.OrdinalIgnoreCase)), "CompanyID");

    private static bool IsIn(string currency, XElement? amount) => amount is not null && (amount.Attribute("currencyID")?.Value ?? currency) == currency;
}
