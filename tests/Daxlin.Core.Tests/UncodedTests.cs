using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Lines without a code that rules or a layout need are told once, with their rows and amounts, and only where something would be empty.</summary>
public sealed class UncodedTests
{
    private static readonly TranslationLists Lists = new([new TranslationList("berths", [new TranslationEntry("Dock", "440", DateOnly.MinValue)])]);

    private static readonly CodingRules NeedsNothing = CodingReader.Read("""{ "rules": [] }""", Lists);

    /// <param name="lines">Each line's amount, and the codes of its parts: null for a part without an account.</param>
    private static ApprovedInvoice Invoice(string currency, params (decimal Amount, string?[] Accounts)[] lines) => new(
        4, "Brinewood Chandlery", false, currency, "4.pdf", new string('0', 64),
        ImmutableDictionary<string, string>.Empty.Add(TradeNames.Total, Text(lines.Sum(line => line.Amount))), [],
        [.. lines.Select((line, at) => new ApprovedLine("goods", at + 1, 1, ImmutableDictionary<string, string>.Empty.Add(TradeNames.Amount, Text(line.Amount)).Add(TradeNames.Section, "Dock"), []))])
    {
        Coding =
        [
            .. lines.Select((line, at) => new CodedLine(at + 1, [.. line.Accounts.Select(account => new CodedPart(
                line.Amount / line.Accounts.Length, 1,
                account is null ? ImmutableSortedDictionary<string, Code>.Empty : ImmutableSortedDictionary<string, Code>.Empty.Add(CodeNames.Account, new Code(account, "rule 1"))))])),
        ],
    };

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private static PostingLayout Layout(string columns, string records = "lines", string more = "") => LayoutReader.Read(
        $$"""{ "name": "ledger", {{more}} "tables": [{ "records": "{{records}}", "columns": [{ "heading": "Sum", "value": "{{(records == "invoices" ? "total" : "amount")}}", "proves": "{{(records switch { "invoices" => "total", "journal" => "journal", _ => "lines" })}}" }, {{columns}}] }] }""", Lists);

    private const string Account = """{ "heading": "Account", "value": "account" }""";

    private static string[] Told(ApprovedInvoice invoice, CodingRules rules, params PostingLayout[] layouts) =>
        [.. Uncoded.Of(invoice, rules, layouts, Lists).Select(finding => $"{finding.Severity} {finding.Code}: {finding.Message} {string.Join(' ', finding.About)}".TrimEnd())];

    [Fact]
    public void Rows_are_named_with_what_they_come_to_and_who_needs_the_code()
    {
        Assert.Equal(
            ["Hold uncoded: Row 2 (10.00 EUR) has no account: the layout “ledger” writes it as “Account”. Code it here, or by a rule. lines[2].account"],
            Told(Invoice("EUR", (5m, ["6300"]), (10m, [null])), NeedsNothing, Layout(Account)));
        Assert.Equal(
            ["Hold uncoded: Rows 1 and 3 (6.5 XYZ) have no account: the layout “ledger” writes it as “Account”. Code them here, or by a rule. lines[1].account lines[3].account".Replace(" XYZ", "", StringComparison.Ordinal)],
            Told(Invoice("XYZ", (5m, [null]), (10m, ["6300"]), (1.5m, [null])), NeedsNothing, Layout(Account)));
        Assert.StartsWith(
            "Hold uncoded: Rows 1, 2, 3, 4, 5, 6, 7 and 8 (8.00 EUR) have no account: ", Told(Invoice("EUR", [.. Enumerable.Repeat((1m, new string?[] { null }), 8)]), NeedsNothing, Layout(Account))[0], StringComparison.Ordinal);
        Assert.StartsWith(
            "Hold uncoded: Rows 1, 2, 3, 4, 5, 6, 7, 8 and 1 more (9.00 EUR) have no account: ", Told(Invoice("EUR", [.. Enumerable.Repeat((1m, new string?[] { null }), 9)]), NeedsNothing, Layout(Account))[0], StringComparison.Ordinal);
        // A part without a code is one, however the others are coded; the whole line's amount is told.
        Assert.StartsWith("Hold uncoded: Row 1 (10.00 EUR) has no account: ", Told(Invoice("EUR", (10m, ["6300", null])), NeedsNothing, Layout(Account))[0], StringComparison.Ordinal);
    }

    [Fact]
    public void An_invoice_without_rows_is_coded_as_a_whole()
    {
        var invoice = Invoice("EUR") with
        {
            Fields = ImmutableDictionary<string, string>.Empty.Add(TradeNames.Total, "12.00"),
            Coding = [new CodedLine(0, [new CodedPart(12m, 1, ImmutableSortedDictionary<string, Code>.Empty)])],
        };
        Assert.Equal(
            ["Hold uncoded: The invoice has no rows, and as a whole (12.00 EUR) has no account: the coding rules say that every line needs one. Code it here, or by a rule."],
            Told(invoice, CodingReader.Read("""{ "needs": ["account"], "rules": [] }""", Lists)));
    }

    [Theory]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "lines", "", true)]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "journal", "", true)]
    [InlineData("""{ "heading": "Ledger", "value": "account & '-' & section" }""", "lines", "", false)]
    [InlineData("""{ "heading": "Account", "value": "account otherwise ''" }""", "lines", "", false)]
    [InlineData("""{ "heading": "Account", "value": "account otherwise list 'berths' at section" }""", "lines", "", false)]
    [InlineData("""{ "heading": "Account", "value": "list 'berths' at account" }""", "lines", "", true)]
    [InlineData("""{ "heading": "Text", "value": "section" }""", "lines", "", false)]
    [InlineData("""{ "heading": "Number", "value": "total" }""", "invoices", "", false)]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "lines", "\"invoices\": \"total > 5\",", true)]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "lines", "\"invoices\": \"total > 50\",", false)]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "lines", "\"invoices\": \"1 / (total - total) > 1\",", false)]
    [InlineData("""{ "heading": "Account", "value": "account" }""", "lines", "\"invoices\": \"approvedBy is there\",", false)]
    public void A_layout_needs_a_code_where_it_would_write_nothing(string columns, string records, string more, bool isNeeded) =>
        Assert.Equal(isNeeded ? 1 : 0, Told(Invoice("EUR", (10m, [null])), NeedsNothing, Layout(columns, records, more)).Length);

    /// <summary>What the rules say goes first; of several layouts the first one that lacks something is told, and each code once.</summary>
    [Fact]
    public void A_code_is_told_once()
    {
        var invoice = Invoice("EUR", (10m, [null]));
        var layouts = new[] { Layout("""{ "heading": "Account", "value": "account otherwise ''" }"""), Layout(Account + """, { "heading": "Again", "value": "account" }, "project" """) with { Name = "other" } };
        Assert.Equal(
            ["the layout “other” writes it as “Account”", "the layout “other” writes it as “project”"],
            Told(invoice, NeedsNothing, layouts).Select(one => one.Split(": ")[2].Split(". Code")[0]));
        Assert.Equal(
            ["the coding rules say that every line needs one", "the layout “other” writes it as “project”"],
            Told(invoice, CodingReader.Read("""{ "needs": ["account"], "rules": [] }""", Lists), layouts).Select(one => one.Split(": ")[2].Split(". Code")[0]));
        Assert.Empty(Told(invoice, NeedsNothing));
    }

    /// <summary>Whatever is coded, a finding is told for just those rows of which a run would write an empty account.</summary>
    [Fact]
    public void What_is_told_is_what_a_run_would_leave_empty() => Gen.Select(Gen.Int[1, 500], Gen.Bool, Gen.Bool).Array[1, 12].Sample(
        drawn =>
        {
            var invoice = Invoice("EUR", [.. drawn.Select(one => ((decimal)one.Item1, one.Item3 ? new[] { one.Item2 ? "6300" : null, "6400" } : [one.Item2 ? "6300" : null]))]);
            var told = Uncoded.Of(invoice, NeedsNothing, [Layout(Account)], Lists).SelectMany(finding => finding.About);
            var written = LaidOut.Of(Layout("\"line\", " + Account), invoice, Lists, new RunFacts(1, new DateOnly(2026, 11, 28)));
            Assert.Equal(written.Records.Where(record => record.Values[2] is null).Select(record => $"lines[{record.Values[1]}].account").Distinct(), told);
        },
        iter: Effort.Times(300));
}
