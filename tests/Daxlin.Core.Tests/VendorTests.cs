using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Vendors;

namespace Daxlin.Core.Tests;

/// <summary>What a vendor's record and its invoices before say against an invoice.</summary>
public class VendorTests
{
    private const string Own = "DE10000000000041822600";
    private const string Other = "GB83HVMD00000061208410";

    private static readonly VendorRecord Record = new("Brinewood Chandlery", ["Brinewood Ship Stores"], ["DE 136 695 976"], "EUR", new PaymentTerms(30, false), "6300", "V19");

    private static readonly VendorFacts Brinewood = new(Record, [Own], [], true, [.. Enumerable.Range(29700, 12).Select(number => $"BC-{number}")]);

    private static readonly StatedFacts Right = new(
        "BC-29750", new DateOnly(2026, 1, 12), new DateOnly(2026, 2, 11), "Brinewood Chandlery Ltd", "DE136695976", Own, "EUR", 1204.50m, false, "");

    private static string[] Codes(StatedFacts invoice, VendorFacts? vendor = null) => [.. VendorChecks.Of(invoice, vendor ?? Brinewood).Select(finding => finding.Code)];

    [Fact]
    public void An_invoice_as_the_record_says_has_no_finding() => Assert.Empty(VendorChecks.Of(Right, Brinewood));

    [Fact]
    public void What_an_invoice_does_not_say_is_not_held_against_it() =>
        Assert.Empty(VendorChecks.Of(new StatedFacts("BC-1", null, null, "", "", "", "", null, false, ""), Brinewood with { NumbersBefore = [] }));

    [Fact]
    public void A_vendor_that_rounds_its_taxes_one_way_is_never_told_and_another_way_is() =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 7].Array[0, 20], Gen.Int[0, 7]).Sample((way, before, next) =>
        {
            var own = (TaxRoundings)(1 << way);
            // Each of its invoices shows the way it uses, and whichever others come to the same cent.
            var facts = Brinewood with { TaxRounding = before.Select(shown => (TaxRoundings)shown | own).Aggregate(TaxRoundings.Any, (all, one) => all & one) };
            Assert.Empty(Codes(Right with { TaxRounding = (TaxRoundings)next | own }, facts));
            // None: one tax of it comes out one way only, and another another way.
            var other = (TaxRoundings)next & ~facts.TaxRounding;
            Assert.Equal(facts.TaxRounding == TaxRoundings.Any ? [] : [VendorChecks.RoundingUnusual], Codes(Right with { TaxRounding = other }, facts));
            Assert.Empty(Codes(Right with { TaxRounding = other }, facts with { TaxRounding = TaxRoundings.None }));
        });

    [Fact]
    public void Each_disagreement_is_told_with_both_sides()
    {
        var other = new StatedFacts("BX29750", new DateOnly(2026, 1, 12), new DateOnly(2026, 2, 1), "Brynwood Stores", "DE136695979", Other, "SEK", 1m, false, "");
        var findings = VendorChecks.Of(other, Brinewood).ToList();
        Assert.Equal(
            [VendorChecks.AccountChanged, VendorChecks.NameDiffers, VendorChecks.TaxIdDiffers, VendorChecks.CurrencyUnusual, VendorChecks.DueAgainstTerms, VendorChecks.NumberUnusual],
            findings.Select(finding => finding.Code));
        Assert.All(findings, finding => Assert.Equal(Severity.Hold, finding.Severity));
        Assert.Contains("GB83 HVMD 0000 0061 2084 10 is not that of Brinewood Chandlery: its record says DE10 0000 0000 0041 8226 00", findings[0].Message, StringComparison.Ordinal);
        Assert.Contains("agreed with Brinewood Chandlery are 30 days net, so 2026-02-11 (10 days less)", findings[4].Message, StringComparison.Ordinal);
        Assert.Equal(Passing.Never, VendorChecks.PassingOf(VendorChecks.AccountChanged));
    }

    [Fact]
    public void Accounts_of_invoices_before_count_only_while_none_is_confirmed()
    {
        Assert.Equal([VendorChecks.AccountChanged], Codes(Right with { Iban = Other }, Brinewood with { Accounts = [], AccountsBefore = [Own], HadAccounts = false }));
        Assert.Empty(Codes(Right with { Iban = Other }, Brinewood with { Accounts = [Other], AccountsBefore = [] }));
        Assert.Empty(Codes(Right, Brinewood with { Accounts = [], AccountsBefore = [], HadAccounts = false }));
        // One person may end an account: what invoices bear is not trusted by that.
        Assert.Equal([VendorChecks.AccountChanged], Codes(Right, Brinewood with { Accounts = [], AccountsBefore = [] }));
    }

    [Fact]
    public void A_record_is_settled_once_and_what_changed_is_told_part_by_part()
    {
        var typed = new VendorRecord(" Brinewood Chandlery ", ["", "Brinewood Ship Stores", "brinewood ship-stores", "BRINEWOOD CHANDLERY"], ["DE 136 695 976", "DE136695976 "], "eur", new PaymentTerms(30, false), " 6300", "V19 ");
        var settled = typed.Settled().Record!;
        Assert.Null(settled.ChangesFrom(Record));
        Assert.Null(settled.Settled().Record!.ChangesFrom(settled));
        Assert.Equal(
            ("changed currency, terms", "currency: EUR; terms: 30 days net", "currency: nothing; terms: 14 days from the month's end"),
            (settled with { Currency = "", Terms = new PaymentTerms(14, true) }).ChangesFrom(Record));
        Assert.True(new VendorRecord("Brinewood", ["Brine"], [], "", null, "", "").IsBare);
        Assert.False(settled.IsBare);
    }

    [Fact]
    public void What_is_wrong_with_a_record_is_said_with_what_was_given()
    {
        foreach (var (faulty, says) in new (VendorRecord, string)[]
        {
            (Record with { Name = " - " }, "letters or figures"), (Record with { OtherNames = [new string('x', 201)] }, "200 characters"), (Record with { TaxIds = ["DE 136 695 975"] }, "DE 136 695 975"),
            (Record with { TaxIds = ["--"] }, "tax number"), (Record with { Currency = "EURO" }, "“EURO”"), (Record with { Terms = new PaymentTerms(367, false) }, "366 days"),
            (Record with { LedgerAccount = new string('6', 51) }, "50 characters"),
        })
        {
            var (record, fault) = faulty.Settled();
            Assert.Null(record);
            Assert.Contains(says, fault, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void A_due_date_on_a_weekend_may_be_the_Monday_after_and_no_other_day() =>
        Gen.Select(Gen.Date[new(2026, 1, 1), new(2027, 12, 31)], Gen.Int[0, 120], Gen.Bool, Gen.Int[-9, 9]).Sample((date, days, fromMonthEnd, off) =>
        {
            var (terms, day) = (new PaymentTerms(days, fromMonthEnd), DateOnly.FromDateTime(date));
            var agreed = terms.DueOf(day);
            var due = agreed.AddDays(off);
            var moved = agreed;
            while (moved.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
                moved = moved.AddDays(1);
            return terms.Fits(day, due) == (due == agreed || due == moved) && agreed >= day;
        });

    [Fact]
    public void A_month_end_is_the_last_day_of_the_invoices_month() =>
        Assert.Equal(new DateOnly(2026, 3, 2), new PaymentTerms(30, true).DueOf(new DateOnly(2026, 1, 12)));

    /// <summary>Numbers whose check digits are public, or are printed in the authorities' own examples.</summary>
    [Theory]
    [InlineData("ATU13585627")]
    [InlineData("BE0428759497")]
    [InlineData("CHE116281710MWST")]
    [InlineData("DE136695976")]
    [InlineData("DK13585628")]
    [InlineData("FI20774740")]
    [InlineData("FR40303265045")]
    [InlineData("GB980780684")]
    [InlineData("IT00743110157")]
    [InlineData("LU15027442")]
    [InlineData("NO995525828MVA")]
    [InlineData("PL8567346215")]
    [InlineData("PT501964843")]
    [InlineData("SE123456789701")]
    public void One_wrong_figure_of_a_tax_number_is_seen(string number)
    {
        Assert.False(TaxIdentifier.IsFaulty(number));
        var (seen, tried) = (0, 0);
        for (var at = 2; at < number.Length; at++)
        {
            // The two last of a Swedish number count its owner's parts, and are checked by nothing.
            if (!char.IsAsciiDigit(number[at]) || (number.StartsWith("SE", StringComparison.Ordinal) && at >= 12))
                continue;
            for (var figure = '0'; figure <= '9'; figure++)
            {
                if (figure == number[at])
                    continue;
                tried++;
                if (TaxIdentifier.IsFaulty(number[..at] + figure + number[(at + 1)..]))
                    seen++;
            }
        }
        // A remainder of 10 or more folds into another in some of the rules, so they miss a few.
        Assert.True(seen >= tried * 0.95, $"{seen} of {tried}");
    }

    [Theory]
    [InlineData("IE 0005521 T")]
    [InlineData("T0000417722018")]
    [InlineData("")]
    public void Of_a_number_whose_rule_is_not_known_nothing_is_said(string number) => Assert.False(TaxIdentifier.IsFaulty(number));

    [Fact]
    public void A_number_that_goes_on_from_those_before_is_usual() =>
        Gen.Select(Gen.String[Gen.Char["AB-/ "], 0, 4], Gen.Int[1, 99_990], Gen.String[Gen.Char["/Z"], 0, 2]).Sample((head, first, tail) =>
        {
            ImmutableArray<string> before = [.. Enumerable.Range(first, NumberForm.FewestBefore).Select(number => $"{head}{number}{tail}").Reverse()];
            return !NumberForm.IsUnusual($"{head}{first + NumberForm.FewestBefore}{tail}", before);
        });

    [Fact]
    public void A_figure_lost_or_a_letter_for_a_figure_is_another_form() =>
        Gen.Select(Gen.Int[20_000, 80_000], Gen.Int[0, 4]).Sample((first, at) =>
        {
            ImmutableArray<string> before = [.. Enumerable.Range(first, NumberForm.FewestBefore).Select(number => $"BC-{number}")];
            var next = $"{first + NumberForm.FewestBefore}";
            return NumberForm.IsUnusual($"BC-{next.Remove(at, 1)}", before) && NumberForm.IsUnusual($"BC-{next[..at]}O{next[(at + 1)..]}", before)
                && !NumberForm.IsUnusual($"BC-{next.Remove(at, 1)}", before[1..]);
        });

    [Fact]
    public void One_slip_in_the_number_of_the_same_invoice_is_seen_whatever_it_is() =>
        Gen.Select(Gen.String[Gen.Char["0123456789AB"], 3, 8], Gen.Int[0, 100], Gen.Int[0, 3], Gen.Char["0123456789AB"]).Sample((number, where, slip, other) =>
        {
            var at = where % (number.Length - 1);
            var slipped = slip switch
            {
                0 => number.Remove(at, 1),
                1 => number.Insert(at, $"{other}"),
                2 => number[..at] + other + number[(at + 1)..],
                _ => number[..at] + number[at + 1] + number[at] + number[(at + 2)..],
            };
            var day = new DateOnly(2026, 5, 4);
            return slipped == number || (LikeBefore.AreAlike(number, day, slipped, day) && LikeBefore.AreAlike(slipped, null, number, null));
        });

    [Fact]
    public void A_charge_that_comes_again_with_the_next_number_is_another_invoice()
    {
        var (january, february) = (new DateOnly(2026, 1, 5), new DateOnly(2026, 2, 5));
        Assert.False(LikeBefore.AreAlike("R-1002", february, "R-1001", january));
        Assert.True(LikeBefore.AreAlike("R-1002", january, "R-1001", february));
        Assert.True(LikeBefore.AreAlike("R-1OO2", february, "R-1O02", january));
        Assert.True(LikeBefore.AreAlike("R-1002", january, "R-2001", january));
        Assert.False(LikeBefore.AreAlike("R-1002", february, "R-2001", january));
    }

    [Fact]
    public void Amounts_of_one_value_have_one_key() =>
        Assert.Equal(LikeBefore.Key("Brinewood", "EUR", 120m, false), LikeBefore.Key("brine wood", "EUR", 120.00m, false));
}
