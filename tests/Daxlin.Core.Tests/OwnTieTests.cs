using System.Globalization;
using System.Text.Json;
using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

/// <summary>A template's own equations hold exactly where their figures do, whatever the equation is.</summary>
public class OwnTieTests
{
    private static readonly string[] Names = ["total", "deposit", "balance", "fee"];

    private static string Document(params string[] ties) => $$"""
        {
          "name": "slipway", "vendor": "Slipway Paints",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Slipway"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "No" } }, "invoiceDate": { "where": { "beside": "Date" } }, "total": { "where": { "beside": "Total" } },
            "deposit": { "type": "money", "where": { "beside": "Paid" } }, "balance": { "type": "money", "where": { "beside": "Open" } }, "fee": { "type": "money", "where": { "beside": "Fee" } }
          },
          "blocks": [{ "name": "goods", "columns": { "description": { "heading": "Text" }, "weight": { "heading": "kg", "type": "number" }, "amount": { "heading": "Sum" } }, "row": { "begins": { "filled": "amount" } } }],
          "checks": { "ties": {{JsonSerializer.Serialize(ties)}} }
        }
        """;

    private static CapturedInvoice Invoice(Template template, IReadOnlyDictionary<string, decimal> amounts) => new(
        template, false,
        [.. amounts.Select(one => new CapturedValue(one.Key, ValueKind.Money, one.Value.ToString(CultureInfo.InvariantCulture), one.Value, new Trace([], "", "", 1)))],
        [], [], [], [], [], []);

    [Fact]
    public void An_equation_holds_exactly_where_its_figures_do()
    {
        // A side of one to three terms, each a value with a sign; the right side is a value of its own that may be off by some cents.
        var terms = Gen.Select(Gen.Bool, Gen.Int[1, 3], Gen.Int[0, 1]).Array[1, 3];
        Gen.Select(terms, Gen.Int[0, 100_000].Array[3], Gen.Int[-2, 2]).Sample((left, cents, off) =>
        {
            var says = string.Join(" ", left.Select((term, at) => $"{(term.Item1 ? "-" : at == 0 ? "" : "+")} {(term.Item3 == 1 ? $"{term.Item2} × " : "")}{Names[term.Item2]}"));
            var template = TemplateReader.Read(Document($"{says} = total"));
            var amounts = Enumerable.Range(1, 3).ToDictionary(at => Names[at], at => cents[at - 1] / 100m);
            var sum = left.Sum(term => (term.Item1 ? -1 : 1) * (term.Item3 == 1 ? term.Item2 : 1) * amounts[Names[term.Item2]]);
            var tie = OwnTie.Of(Invoice(template, new Dictionary<string, decimal>(amounts) { ["total"] = sum + (off / 100m) })).Single();
            return tie.Holds == (off == 0) && tie.Left == sum && tie.Members.Contains("total") && (tie.Holds || tie.ToFinding().Code == "own-tie");
        });
    }

    [Fact]
    public void A_side_that_is_not_printed_makes_no_equation_and_a_value_that_is_not_counts_as_nothing()
    {
        var template = TemplateReader.Read(Document("deposit + balance = total"));
        Assert.Empty(OwnTie.Of(Invoice(template, new Dictionary<string, decimal> { ["total"] = 96 })));
        Assert.True(OwnTie.Of(Invoice(template, new Dictionary<string, decimal> { ["total"] = 96, ["balance"] = 96 })).Single().Holds);
        var alone = OwnTie.Of(Invoice(template, new Dictionary<string, decimal> { ["total"] = 96, ["deposit"] = 46 })).Single();
        Assert.Equal("“deposit + balance = total”: the left side comes to 46.00 EUR; the invoice states 96.00 EUR (50.00 EUR more).", alone.ToFinding().Message);
    }

    [Fact]
    public void An_amount_that_only_the_templates_own_equation_ties_is_proved_by_it()
    {
        var amounts = new Dictionary<string, decimal> { ["total"] = 96, ["deposit"] = 46, ["balance"] = 50 };
        Assert.Contains(InvoiceChecks.Check(Invoice(TemplateReader.Read(Document()), amounts)).Findings, finding => finding.Code == "amount-untied" && finding.About.Contains("deposit"));
        var tied = InvoiceChecks.Check(Invoice(TemplateReader.Read(Document("deposit + balance = total")), amounts));
        Assert.DoesNotContain(tied.Findings, finding => finding.Code == "amount-untied");
        Assert.Superset(new HashSet<string> { "total", "deposit", "balance" }, tied.Tied.ToHashSet());
    }

    [Theory]
    [InlineData("deposit + balance", "one “=”")]
    [InlineData("a = b = c", "one “=”")]
    [InlineData("1 + 1 = 2", "no value that is captured")]
    [InlineData("deposit + = total", "what stands behind a sign, is missing")]
    [InlineData("deposit ! = total", "a sign is wanted")]
    [InlineData("= total", "missing")]
    [InlineData("deposit balance = total", "a sign is wanted")]
    [InlineData("weight = total", "There is no field “weight”; a column is written as lines.weight, or as sum of lines.weight")]
    [InlineData("sum of lines.mass = total", "The rows of “lines” have no column “mass”")]
    [InlineData("sum of goods.weight = total", "There are no rows “goods”; there are lines")]
    [InlineData("deposit ; total = total", "a sign is wanted")]
    public void What_is_wrong_with_an_equation_is_said_at_its_place(string tie, string says)
    {
        var fault = Assert.Single(TemplateReader.Check(Document("deposit + balance = total", tie)).Faults, one => !one.IsWarning);
        Assert.Equal("checks.ties[1]", fault.Place);
        Assert.Contains(says, fault.Message, StringComparison.Ordinal);
    }
}
