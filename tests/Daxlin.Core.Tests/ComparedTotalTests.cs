using CsCheck;
using Daxlin.Core.Posting;

namespace Daxlin.Core.Tests;

/// <summary>What a batch was to come to, held against what it comes to.</summary>
public class ComparedTotalTests
{
    [Fact]
    public void Every_currency_stands_once_and_only_what_differs_is_told_with_the_difference() =>
        Gen.Select(Gen.Select(Gen.OneOf(Gen.Const("EUR"), Gen.Const("GBP"), Gen.Const("KWD")), Gen.Int[0, 9], Gen.Int[-500, 500]).List[0, 6], Gen.Int[-2, 2], Gen.Int[-2, 2]).Sample((captured, more, cents) =>
        {
            var own = captured.Where(one => one.Item1 == "EUR").ToList();
            var (count, sum) = (own.Sum(one => one.Item2), own.Sum(one => one.Item3 / 100m));
            var stated = new StatedTotal("EUR", count - more, sum - (cents / 100m));
            var compared = ComparedTotal.Of([stated], [.. captured.Select(one => (one.Item1, one.Item2, one.Item3 / 100m))]);
            var euro = compared.Single(total => total.Currency == "EUR");
            return compared.Select(total => total.Currency).SequenceEqual(captured.Select(one => one.Item1).Append("EUR").Distinct().Order(StringComparer.Ordinal))
                && compared.Where(total => total.Currency != "EUR").All(total => total.Says.Length == 0)
                && (euro.Invoices, euro.Sum) == (count, sum)
                && euro.Says.Contains(" captured (", StringComparison.Ordinal) == (more != 0) && euro.Says.Contains($"({Math.Abs(cents) / 100m:0.00} EUR {(cents > 0 ? "more" : "less")})", StringComparison.Ordinal) == (cents != 0)
                && (more != 0 || cents != 0 || euro.Says.Length == 0);
        });

    [Fact]
    public void Totals_are_told_as_they_were_stated() =>
        Assert.Equal("12 invoices over 1,240.50 EUR; 1 invoice in SEK; any number of invoices over 90.000 KWD", ComparedTotal.Told([new("EUR", 12, 1240.5m), new("SEK", 1, null), new("KWD", null, 90)]));

    [Fact]
    public void What_was_made_harmless_comes_back_as_it_was() =>
        Gen.String[Gen.Char["'=+-@a1 |;"], 0, 6].Where(text => !text.StartsWith('\'') && !text.Contains('|', StringComparison.Ordinal) && !text.Contains(';', StringComparison.Ordinal))
            .Sample(text => HarmlessCell.Back(HarmlessCell.Of(text)) == text && HarmlessCell.Back("'t " + text) == "'t " + text);
}
