using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>An invoice or credit note in the terms of EN 16931, as UBL states it: credit notes have amounts without a minus.</summary>
/// <param name="Credited">The number of the invoice that a credit note is for; empty if it is not known.</param>
/// <param name="Untaxed">The category (UNCL 5305) of what is taxed at 0 %: Z, E, AE, K, G or O; empty where it is not said.</param>
/// <param name="Exemption">Why no tax is due.</param>
/// <param name="OnWhole">Discounts and charges on the whole invoice, parted by rate.</param>
/// <param name="Taxes">One row for each rate.</param>
/// <param name="Total">With the tax.</param>
/// <param name="AmountDue">As it is stated; null where it is not.</param>
public sealed record UblInvoice(
    bool IsCreditNote, string Number, DateOnly? Issued, DateOnly? Due, Currency Currency, string Order, string Credited, string Note, string Terms,
    UblParty Seller, UblParty Buyer, string Iban, string Untaxed, string Exemption,
    ImmutableArray<UblLine> Lines, ImmutableArray<UblAllowance> OnWhole, ImmutableArray<UblTax> Taxes, decimal Total, decimal Paid, decimal? AmountDue)
{
    /// <summary>What the lines come to (BT-106).</summary>
    public decimal LineTotal => Lines.Sum(line => line.Amount);

    /// <summary>Discounts on the whole invoice (BT-107).</summary>
    public decimal AllowanceTotal => OnWhole.Where(one => !one.IsCharge).Sum(one => one.Amount);

    /// <summary>Charges on the whole invoice (BT-108).</summary>
    public decimal ChargeTotal => OnWhole.Where(one => one.IsCharge).Sum(one => one.Amount);

    /// <summary>Without the tax (BT-109).</summary>
    public decimal BeforeTax => LineTotal - AllowanceTotal + ChargeTotal;

    /// <summary>The tax (BT-110).</summary>
    public decimal Tax => Taxes.Sum(row => row.Amount);

    /// <summary>The category of a rate (UNCL 5305).</summary>
    public string CategoryOf(decimal rate) => rate > 0 ? "S" : Untaxed;
}
