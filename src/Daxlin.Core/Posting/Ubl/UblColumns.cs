using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>The headings that columns of a UBL layout have, each for a term of EN 16931.</summary>
public static class UblColumns
{
    internal const string Number = "number";
    internal const string Issued = "issued";
    internal const string Due = "due";
    internal const string Currency = "currency";
    internal const string Order = "order";
    internal const string Credited = "credited";
    internal const string Note = "note";
    internal const string Terms = "terms";
    internal const string Seller = "seller";
    internal const string SellerTaxId = "sellerTaxId";
    internal const string SellerCountry = "sellerCountry";
    internal const string Buyer = "buyer";
    internal const string BuyerTaxId = "buyerTaxId";
    internal const string BuyerCountry = "buyerCountry";
    internal const string Iban = "iban";
    internal const string Discount = "discount";
    internal const string Freight = "freight";
    internal const string Total = "total";
    internal const string Paid = "paid";
    internal const string AmountDue = "amountDue";
    internal const string Untaxed = "untaxed";
    internal const string Exemption = "exemption";
    internal const string ItemCode = "itemCode";
    internal const string Description = "description";
    internal const string Quantity = "quantity";
    internal const string Unit = "unit";
    internal const string UnitPrice = "unitPrice";
    internal const string PriceBasis = "priceBasis";
    internal const string TaxRate = "taxRate";
    internal const string Amount = "amount";
    internal const string Rate = "rate";
    internal const string Base = "base";
    internal const string Tax = "tax";

    private static readonly ImmutableDictionary<LayoutRecords, ImmutableArray<UblColumn>> ByRecords = ImmutableDictionary.CreateRange(
    [
        KeyValuePair.Create<LayoutRecords, ImmutableArray<UblColumn>>(LayoutRecords.Invoices,
        [
            new(Number, ExpressionType.Text, true), new(Issued, ExpressionType.Date, true), new(Due, ExpressionType.Date), new(Currency, ExpressionType.Text, true),
            new(Order, ExpressionType.Text), new(Credited, ExpressionType.Text), new(Note, ExpressionType.Text), new(Terms, ExpressionType.Text),
            new(Seller, ExpressionType.Text, true), new(SellerTaxId, ExpressionType.Text), new(SellerCountry, ExpressionType.Text, true),
            new(Buyer, ExpressionType.Text, true), new(BuyerTaxId, ExpressionType.Text), new(BuyerCountry, ExpressionType.Text, true),
            new(Iban, ExpressionType.Text), new(Discount, ExpressionType.Number), new(Freight, ExpressionType.Number), new(Total, ExpressionType.Number, true, Proved.Total),
            new(Paid, ExpressionType.Number), new(AmountDue, ExpressionType.Number), new(Untaxed, ExpressionType.Text), new(Exemption, ExpressionType.Text),
        ]),
        KeyValuePair.Create<LayoutRecords, ImmutableArray<UblColumn>>(LayoutRecords.Lines,
        [
            new(ItemCode, ExpressionType.Text), new(Description, ExpressionType.Text, true), new(Quantity, ExpressionType.Number), new(Unit, ExpressionType.Text),
            new(UnitPrice, ExpressionType.Number), new(PriceBasis, ExpressionType.Number), new(TaxRate, ExpressionType.Number), new(Amount, ExpressionType.Number, true, Proved.Lines),
        ]),
        KeyValuePair.Create<LayoutRecords, ImmutableArray<UblColumn>>(LayoutRecords.Taxes,
        [
            new(Rate, ExpressionType.Number, true), new(Base, ExpressionType.Number), new(Tax, ExpressionType.Number, true, Proved.Tax),
        ]),
    ]);

    /// <summary>Those of a table; empty for a kind of records that UBL has no place for.</summary>
    public static ImmutableArray<UblColumn> Of(LayoutRecords records) => ByRecords.GetValueOrDefault(records, []);
}
