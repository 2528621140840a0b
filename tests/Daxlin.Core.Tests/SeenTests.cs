using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Tests;

/// <summary>What is known from outside an invoice: the same billed before, a credit without its invoice, a day that cannot be.</summary>
public class SeenTests
{
    private static readonly DateOnly Day = new(2026, 3, 14);

    [Theory]
    [InlineData("", 100, false, "")]
    [InlineData("Made Up Goods", null, false, "")]
    [InlineData("Made Up Goods", 0, false, "")]
    [InlineData("Made Up Goods", 100, false, "madeupgoods|EUR|100|invoice")]
    [InlineData("made-up GOODS", 100, true, "madeupgoods|EUR|100|credit")]
    public void Invoices_can_be_alike_by_vendor_currency_total_and_kind(string vendor, int? total, bool isCreditNote, string key) =>
        Assert.Equal(key, LikeBefore.Key(vendor, "EUR", total, isCreditNote), ignoreCase: true);

    [Fact]
    public void Digits_behind_the_decimal_mark_are_no_other_total() => Assert.Equal(LikeBefore.Key("a", "EUR", 100.50m, false), LikeBefore.Key("a", "EUR", 100.5m, false));

    [Theory]
    [InlineData("F-1001", "F-1001", false)]
    [InlineData("F-1001", "f 1001", false)]
    [InlineData("F-1001", "F-10011", true)]
    [InlineData("F-10011", "F-1001", true)]
    [InlineData("F-101", "F-1001", true)]
    [InlineData("F-1001", "F-100", true)]
    [InlineData("F-1001", "F-100111", false)]
    [InlineData("F-1001", "F-1010", true)]
    [InlineData("F-1012", "F-1021", true)]
    [InlineData("F-1123", "F-1132", true)]
    [InlineData("F-1132", "F-2311", false)]
    [InlineData("F-1012", "F-1023", false)]
    [InlineData("F-1012", "F-3014", false)]
    [InlineData("FA-101", "AF-101", true)]
    [InlineData("AF1", "FA2", false)]
    [InlineData("F-1OO1", "F-1O01", true)]
    [InlineData("", "F", true)]
    public void A_number_that_is_one_slip_off_may_be_the_same(string number, string other, bool isAlike)
    {
        Assert.Equal(isAlike, LikeBefore.AreAlike(number, Day, other, null));
        Assert.Equal(isAlike, LikeBefore.AreAlike(other, null, number, Day));
        // On one day, any number may be.
        Assert.True(LikeBefore.AreAlike(number, Day, other, Day));
    }

    [Theory]
    [InlineData("F-1001", "F-1002", 1, false)]
    [InlineData("F-1001", "F-1002", -1, true)]
    [InlineData("F-100A", "F-100B", 1, true)]
    [InlineData("F-1012", "F-1021", 1, true)]
    [InlineData("F-100", "F-1001", 1, true)]
    public void A_later_invoice_with_the_next_number_is_one_of_its_own(string number, string later, int days, bool isAlike) =>
        Assert.Equal(isAlike, LikeBefore.AreAlike(number, Day, later, Day.AddDays(days)));

    [Fact]
    public void What_was_seen_is_told_with_both_numbers_and_the_amount()
    {
        Assert.Equal(
            "Made Up Goods sent 100.00 EUR of 2026-03-14 before as F-1: invoice 12 in the batch March (approved); here the number is F-2. One of the two numbers may be misread, or the same was billed twice.",
            LikeBefore.ToFinding("Made Up Goods", "F-2", "100.00 EUR", "2026-03-14", "F-1", "invoice 12 in the batch March (approved)").Message);
        Assert.Contains("sent 100.00 EUR under nearly the same number before as F-1", LikeBefore.ToFinding("Made Up Goods", "F-2", "100.00 EUR", "", "F-1", "invoice 12").Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_credit_note_whose_invoice_was_never_here_is_held_and_one_that_names_none_is_noted()
    {
        var held = CreditAlone.ToFinding("Made Up Goods", "F-1", "100.00 EUR");
        Assert.Equal(
            (Severity.Hold, "This credit note is for the invoice F-1 of Made Up Goods, which was never taken in: 100.00 EUR would be taken off what was not posted here."), (held.Severity, held.Message));
        var noted = CreditAlone.ToFinding("Made Up Goods", "", "100.00 EUR");
        Assert.Equal((Severity.Note, "This credit note names no invoice, and none of Made Up Goods over 100.00 EUR or more was taken in."), (noted.Severity, noted.Message));
    }

    [Theory]
    [InlineData("2016-03-14", null)]
    [InlineData("2016-03-13", "The invoice is dated 2016-03-13, 3,653 days before it was taken in on 2026-03-14.")]
    [InlineData("2027-03-14", null)]
    [InlineData("2027-03-15", "The invoice is dated 2027-03-15, 366 days after it was taken in on 2026-03-14.")]
    public void A_date_more_than_ten_years_ago_or_one_ahead_cannot_be(string date, string? told) =>
        Assert.Equal(told, DateRange.FindingOf(DateOnly.Parse(date, System.Globalization.CultureInfo.InvariantCulture), Day)?.Message);

    [Fact]
    public void What_may_pass_and_for_what()
    {
        Passing Of(string sheet, string code, string? stated = null)
        {
            var captured = ValueSheet.Captured(sheet);
            if (stated is not null)
                captured = captured with { Electronic = [new ElectronicFile("e.xml", stated.Length == 0 ? null : ValueSheet.Stated(stated), "It is cut.")] };
            var invoice = InvoiceChecks.Check(captured);
            return invoice.PassingOf(Assert.Single(invoice.Findings, finding => finding.Code == code));
        }
        // What an invoice cannot be without is said, not passed over.
        Assert.Equal(Passing.Never, Of("invoiceNumber= total=100.00; row amount=100.00", "value-missing"));
        // Figures that do not add up, and files that say otherwise, pass for a reason.
        Assert.Equal(Passing.ForReason, Of("subtotal=90.00 total=90.00; row amount=100.00", "lines-subtotal"));
        Assert.Equal(Passing.ForReason, Of("total=100.00; row amount=100.00", ElectronicWitness.Differs, "invoiceDate=2026-03-15"));
        Assert.Equal(Passing.ForReason, Of("total=100.00; row amount=100.00", ElectronicWitness.Other, "invoiceNumber=MU-2"));
        Assert.Equal(Passing.ForReason, Of("total=100.00; row amount=100.00", ElectronicWitness.Unread, ""));
        // A doubt passes without one.
        Assert.Equal(Passing.Freely, Of("total=100.00 dueDate=2026-03-13; row amount=100.00", "due-before-date"));
        Assert.Equal(Passing.Freely, Of("total=100.00; row quantity=1 unitPrice=100.00 priceBasis=0 amount=100.00", "basis-zero"));
        var other = InvoiceChecks.Check(ValueSheet.Captured("total=100.00; row amount=100.00"));
        Assert.Equal(Passing.Never, other.PassingOf(Finding.Hold("currency-differs", "GBP is printed.", TradeNames.Currency)));
        Assert.Equal(Passing.Freely, other.PassingOf(Finding.Hold("any", "A doubt.", TradeNames.Total, TradeNames.InvoiceNumber)));
    }
}
