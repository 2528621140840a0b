using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

public class TieTests
{
    private static readonly CheckRule Strict = new(Rounding.HalfUp, 0, 0, 0);
    private static readonly Currency Euro = Currency.Find("EUR")!;

    [Fact]
    public void A_tie_that_does_not_hold_says_so_in_figures() => Assert.Equal(
        "The 2 lines add up to 1,204.50 EUR; the invoice states 1,240.50 EUR (36.00 EUR more).",
        new LinesAddUp([1000m, 204.50m], 1240.50m, Strict, Euro, []).ToFinding().Message);

    [Theory]
    [InlineData(3, 0.35, 5, 1.00, true)]
    [InlineData(1, 0.30, 5, 0.29, true)]
    [InlineData(1, 0.30, 5, 0.28, true)]
    [InlineData(1, 0.30, 5, 0.27, false)]
    [InlineData(6, 11.29, 0, 76.74, false)]
    public void A_line_is_rounded_once_or_price_and_discount_each(
        decimal quantity, decimal price, decimal discount, decimal amount, bool holds) => Assert.Equal(
            holds, new LineMultipliesOut(1, quantity, price, 1, [discount], 0, amount, Strict, Euro, []).Holds);

    [Theory]
    [InlineData(true, 2549.89, true)]
    [InlineData(true, 2549.88, true)]
    [InlineData(true, 2549.90, false)]
    [InlineData(false, 2549.89, false)]
    public void Tax_taken_out_of_a_price_leaves_a_base_that_it_need_not_follow(bool included, decimal tax, bool holds) => Assert.Equal(
        holds, new TaxFollowsBase(20, 12749.42m, tax, included, BaseHoldsTax: false, null, Strict, Euro, []).Holds);

    [Theory]
    [InlineData(85.50, true)]
    [InlineData(85.00, false)]
    public void Discounts_follow_one_another(decimal amount, bool holds) => Assert.Equal(
        holds, new LineMultipliesOut(1, 100, 100, 100, [10, 5, 0], 0, amount, Strict, Euro, []).Holds);

    [Fact]
    public void A_line_with_discounts_says_all_of_them() => Assert.Equal(
        "Line 1: 300 × 12.50 EUR per 100 less 10 % less 1.00 EUR comes to 32.75 EUR; the invoice states 32.57 EUR (0.18 EUR less).",
        new LineMultipliesOut(1, 300, 12.50m, 100, [10, 0], -1, 32.57m, Strict, Euro, []).ToFinding().Message);

    [Theory]
    [InlineData(Rounding.HalfUp, 0.13, true)]
    [InlineData(Rounding.HalfEven, 0.12, true)]
    [InlineData(Rounding.Down, 0.12, true)]
    [InlineData(Rounding.HalfUp, 0.12, false)]
    public void Tax_is_rounded_as_the_template_says(Rounding rounding, decimal tax, bool holds) => Assert.Equal(
        holds, new TaxFollowsBase(10, 1.25m, tax, TaxIncluded: false, BaseHoldsTax: false, null, Strict with { Rounding = rounding }, Euro, []).Holds);

    [Theory]
    [InlineData("INV 2026/14", "inv-2026-14", true)]
    [InlineData("INV 2026/14", "INV 2026/41", false)]
    [InlineData("HMD-٤٧١", "HMD-471", true)]
    [InlineData("ＨＭＤ 471", "hmd471", true)]
    [InlineData("HMD-471\ud800", "HMD-471", true)]
    public void The_same_number_in_another_spelling_is_seen(string first, string second, bool same) => Assert.Equal(
        same, SeenBefore.Key("Brinewood Chandlery", first) == SeenBefore.Key("BRINEWOOD chandlery", second));

    private static CheckedInvoice DueOf(decimal total, decimal? paid, decimal due)
    {
        CapturedValue Money(string name, decimal amount) => new(name, ValueKind.Money, $"{amount}", amount, new Trace([], "made up", $"{amount}", 1));
        return InvoiceChecks.Check(new CapturedInvoice(
            MadeUpInvoice.Template, IsCreditNote: total < 0,
            [
                new("invoiceNumber", ValueKind.Text, "MU-1", null, new Trace([], "", "", 1)), new("invoiceDate", ValueKind.Date, "2026-03-14", null, new Trace([], "", "", 1)),
                Money("total", total), Money("amountDue", due), .. paid is { } amount ? [Money("alreadyPaid", amount)] : Array.Empty<CapturedValue>(),
            ],
            [new CapturedLine("goods", 1, [Money("amount", total)])], [], [], [], [], []));
    }

    [Theory]
    [InlineData(520, 150, 370, "")]
    [InlineData(520, -150, 370, "")]
    [InlineData(-520, -150, -370, "")]
    [InlineData(520, null, 520, "")]
    [InlineData(520, 150, 520, "amount-due")]
    [InlineData(520, 150, 375, "amount-due")]
    [InlineData(520, null, 370, "amount-untied")]
    public void What_was_paid_before_is_taken_off_the_total_and_nothing_unexplained_is(int total, int? paid, int due, string code) =>
        Assert.Equal(code, string.Join(' ', DueOf(total, paid, due).Findings.Select(finding => finding.Code)));
}
