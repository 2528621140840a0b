using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

/// <summary>Vendors round their tax on each line, for each rate or once; an invoice that does it one way holds, and says which ways it may be.</summary>
public class TaxRoundingTests
{
    private static readonly Template Plain = TemplateReader.Read("""
        {
          "name": "made-up", "vendor": "Made Up Goods",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ",", "grouping": "." },
          "recognise": { "must": ["Made Up Goods"] },
          "fields": {
            "invoiceNumber": { "where": [{ "beside": "Invoice no" }] }, "invoiceDate": { "where": [{ "beside": "Date" }] },
            "subtotal": { "where": [{ "beside": "Subtotal" }] }, "tax": { "where": [{ "beside": "VAT" }] }, "total": { "where": [{ "beside": "Total due" }] }
          },
          "blocks": [
            { "name": "goods", "columns": { "amount": { "heading": "Amount" }, "taxRate": { "heading": "VAT %" } }, "row": { "begins": { "filled": "amount" } } },
            { "name": "taxes", "columns": { "rate": {}, "base": {}, "amount": {} }, "row": { "matching": "^VAT (?<rate>\\d+ %) on (?<base>[\\d.,]+) (?<amount>[\\d.,]+)$" } }
          ]
        }
        """);

    private static readonly Gen<(int Cents, int Rate)[]> Lines = Gen.Select(Gen.Int[1, 9999], Gen.Int[0, 2].Select(at => new[] { 19, 7, 0 }[at])).Array[1, 12];

    private static decimal Rounded(decimal amount) => Math.Round(amount, 2, MidpointRounding.AwayFromZero);

    private static decimal TaxBy(TaxRoundings way, IEnumerable<(int Cents, int Rate)> lines) => way switch
    {
        TaxRoundings.ByLine => lines.Sum(line => Rounded(line.Cents / 100m * line.Rate / 100)),
        TaxRoundings.ByRate => lines.GroupBy(line => line.Rate).Sum(group => Rounded(group.Sum(line => line.Cents) / 100m * group.Key / 100)),
        _ => Rounded(lines.Sum(line => line.Cents / 100m * line.Rate / 100)),
    };

    /// <param name="freight">In cents, beside the lines; 0 for none.</param>
    private static CheckedInvoice Check((int Cents, int Rate)[] lines, decimal tax, TaxRoundings allowed, bool hasTaxRows, int freight = 0)
    {
        var subtotal = lines.Sum(line => line.Cents) / 100m;
        var fields = new Dictionary<string, decimal> { ["subtotal"] = subtotal, ["total"] = subtotal + freight / 100m + tax };
        if (freight > 0)
            fields["freight"] = freight / 100m;
        if (!hasTaxRows)
            fields["tax"] = tax;
        var rates = lines.Select(line => line.Rate).Distinct().ToList();
        return InvoiceChecks.Check(new CapturedInvoice(
            Plain with { Checks = Plain.Checks with { TaxRounding = allowed } }, IsCreditNote: false,
            [
                Value("invoiceNumber", ValueKind.Text, "MU-1"), Value("invoiceDate", ValueKind.Date, "2026-03-14"),
                .. fields.Select(field => Money(field.Key, field.Value)),
            ],
            [.. lines.Select((line, at) => new CapturedLine("goods", at + 1, [Money("amount", line.Cents / 100m), Percent("taxRate", line.Rate)]))],
            hasTaxRows
                ? [.. rates.Select((rate, at) => new CapturedLine("taxes", at + 1, [Percent("rate", rate), Money("base", lines.Where(line => line.Rate == rate).Sum(line => line.Cents) / 100m), Money("amount", TaxBy(allowed, lines.Where(line => line.Rate == rate)))]))]
                : [],
            [], [], [], []));
    }

    private static CapturedValue Money(string name, decimal amount) => Value(name, ValueKind.Money, amount.ToString(CultureInfo.InvariantCulture), amount);

    private static CapturedValue Percent(string name, decimal rate) => Value(name, ValueKind.Percent, rate.ToString(CultureInfo.InvariantCulture), rate);

    private static CapturedValue Value(string name, ValueKind kind, string text, decimal? number = null) => new(name, kind, text, number, new Trace([], "made up", text, 1));

    private static readonly Gen<TaxRoundings> Way = Gen.Int[0, 2].Select(at => (TaxRoundings)(1 << at));

    [Fact]
    public void Whichever_way_a_vendor_rounds_its_invoices_hold_and_that_way_is_among_those_they_show() => Gen.Select(Lines, Way).Sample((lines, way) =>
    {
        var tax = TaxBy(way, lines);
        var weighed = Check(lines, tax, TaxRoundings.Any, hasTaxRows: false);
        Assert.True(weighed.IsClear, string.Join(' ', weighed.Findings.Select(finding => finding.Message)));
        var shown = RoundedTax.Of(weighed);
        // Just those ways that come to the same cent.
        Assert.Equal(
            new[] { TaxRoundings.ByLine, TaxRoundings.ByRate, TaxRoundings.Once }.Where(one => TaxBy(one, lines) == tax).Aggregate(TaxRoundings.None, (all, one) => all | one), shown);
        Assert.True(shown.HasFlag(way));
    });

    [Fact]
    public void Freight_that_is_taxed_at_one_rate_is_rounded_as_a_line() => Gen.Select(Lines, Way, Gen.Int[1, 9999], Gen.Int[0, 11]).Sample((lines, way, freight, at) =>
    {
        var rate = lines[at % lines.Length].Rate;
        var weighed = Check(lines, TaxBy(way, lines.Append((freight, rate))), TaxRoundings.Any, hasTaxRows: false, freight);
        Assert.True(weighed.IsClear, string.Join(' ', weighed.Findings.Select(finding => finding.Message)));
        // Another way of taxing the freight may come to the same cent, so nothing is said of how the vendor rounds.
        Assert.Equal(TaxRoundings.Any, RoundedTax.Of(weighed));
    });

    [Fact]
    public void What_the_template_says_is_the_one_way_that_holds() => Gen.Select(Lines, Way, Way).Sample((lines, way, said) =>
    {
        var (tax, right) = (TaxBy(way, lines), TaxBy(said, lines));
        var weighed = Check(lines, tax, said, hasTaxRows: false);
        Assert.Equal(tax == right, weighed.IsClear);
        if (tax != right)
            Assert.Contains(weighed.Findings, finding => finding.Message.Contains($"comes to {right.ToString("N2", CultureInfo.InvariantCulture)} EUR", StringComparison.Ordinal));
    });

    [Fact]
    public void Taxes_by_rate_with_their_bases_may_be_sums_of_what_is_rounded_on_each_line() => Lines.Sample(lines =>
        Assert.True(Check(lines, lines.Select(line => line.Rate).Distinct().Sum(rate => TaxBy(TaxRoundings.ByLine, lines.Where(line => line.Rate == rate))), TaxRoundings.ByLine, hasTaxRows: true).IsClear));
}
