using System.Xml.Linq;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using static Daxlin.Core.Electronic.ElectronicElements;

namespace Daxlin.Core.Electronic;

/// <summary>What the elements of UN/CEFACT's Cross Industry Invoice are in the names of the trade, as EN 16931-3-3 binds them.</summary>
internal static class CiiForm
{
    /// <summary>A line that only groups others, or only informs, is no item (line status reason of the extended profile).</summary>
    private static bool IsItem(XElement line) => TextAt(line, "AssociatedDocumentLineDocument/LineStatusReasonCode") is not ("GROUP" or "INFORMATION");

    public static ElectronicInvoice Read(ElectronicElements file)
    {
        var document = At(file.Root, "ExchangedDocument");
        var trade = At(file.Root, "SupplyChainTradeTransaction");
        var agreement = At(trade, "ApplicableHeaderTradeAgreement");
        var settlement = At(trade, "ApplicableHeaderTradeSettlement");
        var totals = At(settlement, "SpecifiedTradeSettlementHeaderMonetarySummation");
        var currency = TextAt(settlement, "InvoiceCurrencyCode");
        var isCreditNote = CreditNoteTypes.IsCredit(TextAt(document, "TypeCode"), NumberAt(totals, "GrandTotalAmount"));
        return new ElectronicInvoice(
            ElectronicSyntax.Cii, isCreditNote,
            [
                .. file.Value(TradeNames.InvoiceNumber, At(document, "ID")),
                .. file.Value(TradeNames.InvoiceDate, At(document, "IssueDateTime/DateTimeString")),
                .. file.Value(TradeNames.DueDate, At(settlement, "SpecifiedTradePaymentTerms/DueDateDateTime/DateTimeString")),
                .. file.Value(TradeNames.PurchaseOrder, At(agreement, "BuyerOrderReferencedDocument/IssuerAssignedID")),
                .. isCreditNote ? file.Value(TradeNames.CreditedInvoice, At(settlement, "InvoiceReferencedDocument/IssuerAssignedID")) : [],
                .. file.Value(TradeNames.VendorName, At(agreement, "SellerTradeParty/Name")),
                .. file.Value(TradeNames.VendorTaxId, AllAt(agreement, "SellerTradeParty/SpecifiedTaxRegistration/ID").FirstOrDefault(one => one.Attribute("schemeID")?.Value == "VA")),
                .. AllAt(settlement, "SpecifiedTradeSettlementPaymentMeans/PayeePartyCreditorFinancialAccount/IBANID").Where(IsIban)
                    .SelectMany(one => file.Value(TradeNames.Iban, one)),
                .. file.Value(TradeNames.Currency, At(settlement, "InvoiceCurrencyCode")),
                .. file.Value(TradeNames.Subtotal, At(totals, "LineTotalAmount")),
                .. file.Value(ElectronicInvoice.TaxedSum, At(totals, "TaxBasisTotalAmount")),
                .. file.Value(TradeNames.Discount, At(totals, "AllowanceTotalAmount")),
                .. file.Value(TradeNames.Freight, At(totals, "ChargeTotalAmount")),
                // A second one may state the tax in the currency of the books.
                .. file.Value(TradeNames.Tax, AllAt(totals, "TaxTotalAmount").FirstOrDefault(one => (one.Attribute("currencyID")?.Value ?? currency) == currency)),
                .. file.Value(TradeNames.Total, At(totals, "GrandTotalAmount")),
                .. file.Value(TradeNames.AlreadyPaid, At(totals, "TotalPrepaidAmount")),
                .. file.Value(TradeNames.AmountDue, At(totals, "DuePayableAmount")),
            ],
            [.. AllAt(trade, "IncludedSupplyChainTradeLineItem").Where(IsItem).Select(line => Line(file, line))],
            [.. AllAt(settlement, "ApplicableTradeTax").Select(row => Tax(file, row))],
            file.All);
    }

    private static StatedRow Line(ElectronicElements file, XElement line)
    {
        var quantity = At(line, "SpecifiedLineTradeDelivery/BilledQuantity");
        var settlement = At(line, "SpecifiedLineTradeSettlement");
        var off = AllAt(settlement, "SpecifiedTradeAllowanceCharge").Sum(one => (TextAt(one, "ChargeIndicator/Indicator") is "true" or "1" ? -1 : 1) * (NumberAt(one, "ActualAmount") ?? 0));
        var (net, gross) = (At(line, "SpecifiedLineTradeAgreement/NetPriceProductTradePrice"), At(line, "SpecifiedLineTradeAgreement/GrossPriceProductTradePrice"));
        return new StatedRow(
        [
            .. file.Value(TradeNames.ItemCode, At(line, "SpecifiedTradeProduct/SellerAssignedID")),
            .. file.Value(TradeNames.Description, At(line, "SpecifiedTradeProduct/Name") ?? At(line, "SpecifiedTradeProduct/Description")),
            .. file.Value(TradeNames.Quantity, quantity),
            .. quantity?.Attribute("unitCode") is { } unit ? [new StatedValue(TradeNames.Unit, ValueKind.Text, unit.Value, null, "unitCode", -1)] : Array.Empty<StatedValue>(),
            .. file.Value(TradeNames.UnitPrice, At(net, "ChargeAmount")),
            .. file.Value(TradeNames.UnitPrice, At(gross, "ChargeAmount")),
            .. file.Value(TradeNames.PriceBasis, At(net, "BasisQuantity") ?? At(gross, "BasisQuantity")),
            .. off == 0 ? Array.Empty<StatedValue>() : [file.Figure(TradeNames.DiscountAmount, ValueKind.Money, off, null)],
            .. file.Value(TradeNames.TaxRate, At(settlement, "ApplicableTradeTax/RateApplicablePercent")),
            .. file.Value(TradeNames.Amount, At(settlement, "SpecifiedTradeSettlementLineMonetarySummation/LineTotalAmount")),
        ]);
    }

    private static StatedRow Tax(ElectronicElements file, XElement row) => new(
    [
        .. file.Value(TradeNames.Rate, At(row, "RateApplicablePercent")),
        .. file.Value(TradeNames.Base, At(row, "BasisAmount")),
        .. file.Value(TradeNames.Amount, At(row, "CalculatedAmount")),
    ]);
}
