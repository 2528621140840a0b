using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Checks;

/// <summary>What of an invoice is taxed at which rate, as its lines say, with every way that discount and freight may have been taxed.</summary>
/// <remarks>
/// Where the lines have rates, goods of 100.00 at 20 % and 50.00 at 5 % with a freight of 6.00 make bases of 104.00 and
/// 52.00, or 106.00 and 50.00, or 100.00 and 56.00, or 100.00 and 50.00. A line without a rate among lines that have one is
/// not taxed. Where none has one and the invoice has one rate, all is taxed at it. Otherwise nothing tells.
/// </remarks>
internal sealed class TaxedAmounts
{
    private readonly ImmutableSortedDictionary<decimal, decimal> goods;
    private readonly decimal subtotal;
    private readonly decimal discount;
    private readonly decimal freight;

    private TaxedAmounts(ImmutableSortedDictionary<decimal, decimal> goods, decimal subtotal, decimal discount, decimal freight, bool areOfLines) =>
        (this.goods, this.subtotal, this.discount, this.freight, AreOfLines) = (goods, subtotal, discount, freight, areOfLines);

    /// <summary>Says that the lines' own rates tell, not the one rate of the invoice.</summary>
    public bool AreOfLines { get; }

    public IEnumerable<decimal> Rates => goods.Keys;

    /// <summary>Null where nothing tells what is taxed at which rate.</summary>
    /// <param name="subtotal">Stated, or the sum of the lines.</param>
    /// <param name="discount">What is taken off, with the sign of the subtotal.</param>
    public static TaxedAmounts? Of(CapturedInvoice invoice, decimal subtotal, decimal discount)
    {
        var freight = invoice.Amount(TradeNames.Freight) ?? 0;
        var lines = invoice.Lines.Where(line => line.NumberIn(TradeNames.Amount) is not null).ToList();
        if (lines.Exists(line => line.NumberIn(TradeNames.TaxRate) is not null))
        {
            return new TaxedAmounts(
                lines.GroupBy(line => line.NumberIn(TradeNames.TaxRate) ?? 0)
                    .ToImmutableSortedDictionary(group => group.Key, group => group.Sum(line => line.NumberIn(TradeNames.Amount)!.Value)),
                lines.Sum(line => line.NumberIn(TradeNames.Amount)!.Value), discount, freight, areOfLines: true);
        }
        // A rate of 0 % beside it tells nothing of how much is taxed at the other.
        var rates = invoice.Taxes.Select(row => row.NumberIn(TradeNames.Rate)).ToList();
        return rates is [{ } rate] && rate != 0
            ? new TaxedAmounts(ImmutableSortedDictionary<decimal, decimal>.Empty.Add(rate, subtotal), subtotal, discount, freight, areOfLines: false)
            : null;
    }

    /// <summary>The ways in which discount and freight may have been taxed, the usual one first.</summary>
    public IEnumerable<TaxSharing> Sharings =>
        from ofDiscount in Ways(discount)
        from ofFreight in Ways(freight)
        select new TaxSharing(ofDiscount.Share, ofDiscount.Rate, ofFreight.Share, ofFreight.Rate);

    private IEnumerable<(Share Share, decimal Rate)> Ways(decimal amount)
    {
        yield return (Share.ByAmounts, 0);
        if (amount == 0)
            yield break;
        foreach (var rate in goods.Keys.Where(_ => goods.Count > 1))
            yield return (Share.AtOneRate, rate);
        yield return (Share.NotAtAll, 0);
    }

    /// <summary>What is taxed at a rate, unrounded; 0 for a rate that no line has and freight is not taxed at.</summary>
    public decimal BaseAt(decimal rate, TaxSharing sharing)
    {
        var own = goods.GetValueOrDefault(rate);
        var part = subtotal == 0 ? 0 : own / subtotal;
        return own - TaxSharing.At(sharing.Discount, sharing.DiscountRate, discount, rate, part)
            + TaxSharing.At(sharing.Freight, sharing.FreightRate, freight, rate, part);
    }
}
