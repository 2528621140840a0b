using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.People;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

/// <summary>Whose approval counts, and whether it is enough.</summary>
public class ApprovalRulesTests
{
    private static readonly Currency Euro = Currency.Find("EUR")!;

    private static readonly ApprovalRules Strict = new(
        true, true, true, ImmutableSortedDictionary<string, decimal>.Empty.Add("EUR", 10_000m), ImmutableSortedDictionary<string, decimal>.Empty);

    private static ApprovalFacts Facts(decimal total = 100, string corrected = "", string template = "", string account = "", bool isChanged = false, string first = "", Currency? currency = null) =>
        new("Invoice 7", currency ?? Euro, total, corrected.Length == 0 ? [] : [corrected], template, account.Length == 0 ? [] : [account], isChanged, first.Length == 0 ? null : new Approver(first));

    [Fact]
    public void Who_had_a_hand_in_it_is_refused_by_the_rule_that_says_so_and_by_no_other()
    {
        foreach (var (facts, sentence) in new[]
        {
            (Facts(corrected: "berta"), "Invoice 7 was corrected by Berta, who therefore does not approve it as well."),
            (Facts(template: "Berta"), "Invoice 7 was captured by a template that Berta made, who therefore does not approve it as well."),
            (Facts(account: "BERTA"), "Invoice 7 is paid to an account that Berta added or confirmed, who therefore does not approve it as well."),
        })
        {
            Assert.Equal(ApprovalVerdict.Refused(sentence), facts.Of(new Approver("Berta"), Strict));
            Assert.Equal(ApprovalVerdict.Enough, facts.Of(new Approver("Cato"), Strict));
            Assert.Equal(ApprovalVerdict.Enough, facts.Of(new Approver("Berta"), ApprovalRules.None));
        }
    }

    [Theory]
    [InlineData(10_000.00, "EUR", null)]
    [InlineData(10_000.01, "EUR", "10,000.01 EUR is more than 10,000.00 EUR")]
    [InlineData(-12_500.00, "EUR", "12,500.00 EUR is more than 10,000.00 EUR")]
    [InlineData(99_999.00, "GBP", null)]
    public void A_sum_above_the_limit_of_its_currency_takes_two(double total, string currency, string? why) =>
        Assert.Equal(why ?? "", Facts((decimal)total, currency: Currency.Find(currency)).Of(new Approver("Cato"), Strict).WhySecond);

    [Fact]
    public void What_no_limit_can_be_held_against_takes_two_where_there_are_limits()
    {
        foreach (var facts in new[] { Facts() with { Currency = null }, Facts() with { Total = null } })
        {
            Assert.Equal(ApprovalVerdict.First("what it comes to is not known"), facts.Of(new Approver("Cato"), Strict));
            Assert.Equal(ApprovalVerdict.Enough, facts.Of(new Approver("Cato"), ApprovalRules.None));
        }
    }

    [Fact]
    public void Rules_say_what_they_ask_and_what_is_always_asked()
    {
        Assert.Equal(["The first invoice to be paid to a changed account takes two approvers, always."], ApprovalRules.None.Says);
        var rules = Strict with { TypedAbove = Strict.TwoAbove.Add("GBP", 500) };
        Assert.Equal(6, rules.Says.Length);
        Assert.Equal("Who approves many at once types their sum above 10,000.00 EUR and 500.00 GBP.", rules.Says[4]);
        Assert.Equal((true, false, true, false), (rules.IsTyped("EUR", 10_000.01m), rules.IsTyped("EUR", 10_000m), rules.IsTyped("GBP", -501), rules.IsTyped("JPY", 1_000_000)));
    }

    [Fact]
    public void A_changed_account_takes_two_whatever_the_rules_say_and_two_are_two_persons()
    {
        Assert.Equal(ApprovalVerdict.First("it is the first to be paid to a changed account"), Facts(isChanged: true).Of(new Approver("Cato"), ApprovalRules.None));
        Assert.Equal(
            ApprovalVerdict.Refused("Invoice 7 was approved by Cato already, and takes a second approver: it is the first to be paid to a changed account."),
            Facts(isChanged: true, first: "Cato").Of(new Approver("CATO"), ApprovalRules.None));
        Assert.Equal(ApprovalVerdict.Enough, Facts(isChanged: true, first: "Cato").Of(new Approver("Dora"), ApprovalRules.None));
    }

    [Fact]
    public void Who_stands_in_is_refused_for_what_either_of_both_had_a_hand_in()
    {
        var standIn = new Approver("Berta", "Cato");
        Assert.Equal("Berta for Cato", standIn.ToString());
        Assert.StartsWith("Invoice 7 was corrected by Cato, who", Facts(corrected: "Cato").Of(standIn, Strict).Refusal, StringComparison.Ordinal);
        Assert.StartsWith("Invoice 7 was corrected by Berta, who", Facts(corrected: "Berta").Of(standIn, Strict).Refusal, StringComparison.Ordinal);
        // One person for another is not two: neither of both is the second after the other.
        foreach (var (first, second) in new[] { (standIn, new Approver("Cato")), (new Approver("Cato"), standIn), (standIn, standIn), (new Approver("Berta"), standIn) })
            Assert.Contains($"was approved by {first} already", (Facts(20_000) with { First = first }).Of(second, Strict).Refusal, StringComparison.Ordinal);
        Assert.Equal(ApprovalVerdict.Enough, (Facts(20_000) with { First = standIn }).Of(new Approver("Dora"), Strict));
    }

    /// <summary>Whoever approves in whatever order: what is approved was approved by persons whom no rule keeps, and by two where two are needed.</summary>
    [Fact]
    public void Nobody_approves_what_the_rules_keep_from_him_and_never_one_for_two()
    {
        string[] names = ["Ada", "Berta", "Cato"];
        var facts =
            from total in Gen.Decimal[-20_000m, 20_000m]
            from corrected in Gen.Int[0, 2].Select(at => new[] { "", "Ada", "Berta" }[at])
            from template in Gen.Int[0, 2].Select(at => new[] { "", "Berta", "Cato" }[at])
            from account in Gen.Int[0, 2].Select(at => new[] { "", "Ada", "Cato" }[at])
            from isChanged in Gen.Bool
            select Facts(total, corrected, template, account, isChanged);
        var rules = from corrector in Gen.Bool from maker in Gen.Bool from keeper in Gen.Bool select Strict with { KeepsCorrectors = corrector, KeepsTemplateMakers = maker, KeepsAccountKeepers = keeper };
        Gen.Select(facts, rules, Gen.Int[0, 2].Select(at => names[at]).Array[1, 6]).Sample(one =>
        {
            var (invoice, asked, order) = one;
            var counted = new List<string>();
            var isApproved = false;
            foreach (var person in order)
            {
                var verdict = (invoice with { First = counted.Count == 0 ? null : new Approver(counted[0]) }).Of(new Approver(person), asked);
                if (verdict.Refusal.Length > 0)
                    continue;
                counted.Add(person);
                if (isApproved = verdict.WhySecond.Length == 0)
                    break;
            }
            var keptOut = names.Where(name => (asked.KeepsCorrectors && invoice.CorrectedBy.Contains(name)) || (asked.KeepsTemplateMakers && invoice.TemplateBy == name) || (asked.KeepsAccountKeepers && invoice.AccountBy.Contains(name)));
            Assert.Empty(counted.Intersect(keptOut));
            var needed = invoice.IsAccountChanged || Math.Abs(invoice.Total!.Value) > 10_000m ? 2 : 1;
            Assert.Equal(isApproved, counted.Distinct().Count() == needed);
            Assert.Equal(isApproved, order.Except(keptOut).Distinct().Count() >= needed);
        });
    }
}
