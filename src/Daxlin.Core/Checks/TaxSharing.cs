namespace Daxlin.Core.Checks;

/// <summary>At which rate the order discount and the freight of an invoice may have been taxed.</summary>
/// <param name="Discount">How the discount was shared out.</param>
/// <param name="DiscountRate">The rate that it was all taken off at, if it was.</param>
/// <param name="Freight">How the freight was shared out.</param>
/// <param name="FreightRate">The rate that it was all taxed at, if it was.</param>
internal sealed record TaxSharing(Share Discount, decimal DiscountRate, Share Freight, decimal FreightRate)
{
    /// <summary>What a discount or a freight adds to the base of one rate.</summary>
    /// <param name="part">The part of the goods that is taxed at the rate: 0.25 for 50.00 of 200.00.</param>
    public static decimal At(Share share, decimal ofRate, decimal amount, decimal rate, decimal part) => share switch
    {
        Share.ByAmounts => amount * part,
        Share.AtOneRate => rate == ofRate ? amount : 0,
        _ => 0,
    };
}
