using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Lines get the codes that rules and persons say; shares come to the amount, and a journal balances or is refused.</summary>
public class CodingTests
{
    private static readonly string Docs = File.ReadAllText(Path.Combine(Repository.Root, "docs", "CODING.md"));

    private static readonly TranslationLists Lists = new(
    [
        new TranslationList("berths", [new TranslationEntry("Dock 4", "440", DateOnly.MinValue)]),
        new TranslationList("tax-accounts", [new TranslationEntry("20", "1576", DateOnly.MinValue)]),
    ]);

    private static readonly CodingRules OfDocs = CodingReader.Read(Docs.Split("```json")[1].Split("```")[0], Lists);
    private static readonly PostingLayout Journal = LayoutReader.Read(Docs.Split("```json")[2].Split("```")[0], Lists);
    private static readonly RunFacts Run = new(7, new DateOnly(2026, 11, 26));

    private static readonly ImmutableDictionary<int, SaidCoding> NothingSaid = ImmutableDictionary<int, SaidCoding>.Empty;

    private static CodingRules Read(string json) => CodingReader.Read(json.Replace('\'', '"'), Lists);

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private static ApprovedLine Line(int number, string description, string section, decimal amount) => new(
        "goods", number, 1,
        ImmutableDictionary<string, string>.Empty.Add(TradeNames.Description, description).Add(TradeNames.Section, section).Add(TradeNames.Quantity, "1").Add(TradeNames.Amount, Text(amount)), []);

    private static ApprovedInvoice Invoice(params ApprovedLine[] lines)
    {
        var net = lines.Sum(line => decimal.Parse(line.Cells[TradeNames.Amount], CultureInfo.InvariantCulture));
        var tax = Math.Round(net / 5, 2, MidpointRounding.AwayFromZero);
        return new ApprovedInvoice(
            4, "Brinewood Chandlery", false, "EUR", "4.pdf", new string('0', 64),
            ImmutableDictionary<string, string>.Empty.Add(TradeNames.InvoiceNumber, "BC-4").Add(TradeNames.InvoiceDate, "2026-01-31").Add(TradeNames.Total, Text(net + tax)),
            [new ApprovedTax("20", Text(net), tax)], [.. lines])
        {
            Origin = ApprovedOrigin.Unknown with { VendorAccount = "6300", VendorTaxCode = "V20" },
        };
    }

    private static ApprovedInvoice Coded(ApprovedInvoice invoice, CodingRules rules, IReadOnlyDictionary<int, SaidCoding>? said = null)
    {
        var coding = InvoiceCoding.Of(invoice, rules, Lists, said ?? NothingSaid, out var faults);
        Assert.Empty(faults);
        return invoice with { Coding = coding };
    }

    private static string[] Shown(ApprovedInvoice invoice) =>
        [.. invoice.Coding.SelectMany(line => line.Parts.Select(part => $"{line.Line}|{Text(part.Amount)}|" + string.Join('|', part.Codes.Select(code => $"{code.Key}={code.Value.Value} ({code.Value.From})"))))];

    private static readonly ApprovedInvoice OfDocsLines = Invoice(Line(1, "Mooring rope", "Dock 4", 58.01m), Line(2, "Tea", "Galley", 10.01m), Line(3, "Winch", "Deck", 6000m));

    [Fact]
    public void The_rules_of_the_docs_say_each_code_by_the_first_that_fits()
    {
        const string Rest = "taxCode=V20 (rule 5, whatever else)";
        Assert.Equal(
        [
            $"1|58.01|account=6210 (rule 1, rope and chandlery)|costCentre=440 (rule 3, berths)|{Rest}",
            $"2|6.01|account=6400 (rule 2, galley stores, shared by two ships)|costCentre=410 (rule 2, galley stores, shared by two ships)|{Rest}",
            $"2|4.00|account=6400 (rule 2, galley stores, shared by two ships)|costCentre=420 (rule 2, galley stores, shared by two ships)|{Rest}",
            $"3|6000|account=0410 (rule 4, large purchases)|project=REFIT (rule 4, large purchases)|{Rest}",
        ], Shown(Coded(OfDocsLines, OfDocs)));
        Assert.Equal(["berths", "tax-accounts"], OfDocs.Lists.Order());
    }

    [Fact]
    public void A_person_goes_before_rules_and_rules_before_what_is_printed()
    {
        var printed = Line(1, "Rope", "", 10m);
        printed = printed with { Cells = new Dictionary<string, string>(printed.Cells) { ["project"] = "P-1", ["account"] = "1" } };
        var invoice = Invoice(printed, Line(2, "Tea", "Galley", 10m));
        var said = new Dictionary<int, SaidCoding>
        {
            [2] = new([new SaidShare(1, ImmutableSortedDictionary<string, string>.Empty.Add("project", "TEA"))]),
        };
        var coded = Coded(invoice, Read("{ 'rules': [{ 'account': '6000', 'shares': [{ 'part': 1, 'taxCode': 'A' }, { 'part': 2, 'taxCode': 'B' }] }] }"), said);
        Assert.Equal(
        [
            "1|3.33|account=6000 (rule 1)|project=P-1 (as printed)|taxCode=A (rule 1)", "1|6.67|account=6000 (rule 1)|project=P-1 (as printed)|taxCode=B (rule 1)",
            // Who codes a line by hand takes it as a whole, unless shares are said.
            "2|10|account=6000 (rule 1)|project=TEA (by hand)",
        ], Shown(coded));
        // Each share is a row, and the amounts come to the subtotal; what is printed under a code's name gives way to the code.
        Assert.Equal(["3.33|6000|A|1", "6.67|6000|B|", "10|6000||1"], PostingColumns.RowsOf(coded).Select(row => $"{row["amount"]}|{row["account"]}|{row["taxCode"]}|{row["quantity"]}"));
        Assert.Equal(3, PostingColumns.CountOf(coded));
    }

    /// <summary>What is at a limit is read; one more is refused at its place.</summary>
    [Fact]
    public void Limits_of_rules_are_what_they_say()
    {
        static string Many(string one, int count) => string.Join(", ", Enumerable.Repeat(one, count));
        static string Fault(string json) => Assert.Throws<JsonFaultException>(() => Read(json)).Faults[0] is var fault ? $"{fault.Place}: {fault.Message}" : "";
        static string Rule(string account) => $"{{ 'rules': [{{ 'account': '{account}' }}] }}";
        static string Flag(string says) => $"{{ 'rules': [], 'flags': [{{ 'says': '{says}', 'when': 'amount > 1' }}] }}";
        static string Shares(string shares) => $"{{ 'rules': [{{ 'shares': [{shares}] }}] }}";
        const string Share = "{ 'part': 1, 'account': '1' }";

        Assert.Equal(2000, Read($"{{ 'rules': [{Many("{ 'account': '1' }", 2000)}] }}").Rules.Length);
        Assert.StartsWith("rules: At most 2000 rules in brackets are wanted here.", Fault($"{{ 'rules': [{Many("{ 'account': '1' }", 2001)}] }}"), StringComparison.Ordinal);
        Assert.StartsWith("rules: At most 2000 rules in brackets are wanted here.", Fault("{ 'rules': {} }"), StringComparison.Ordinal);
        Assert.StartsWith("the document: The key “rules” is missing", Fault("{ }"), StringComparison.Ordinal);
        Assert.Equal(200, Read($"{{ 'rules': [], 'flags': [{Many("{ 'says': 'x', 'when': 'amount > 1' }", 200)}] }}").Flags.Length);
        Assert.StartsWith("flags: At most 200 flags", Fault($"{{ 'rules': [], 'flags': [{Many("{ 'says': 'x', 'when': 'amount > 1' }", 201)}] }}"), StringComparison.Ordinal);
        Assert.StartsWith("flags: At most 200 flags", Fault("{ 'rules': [], 'flags': {} }"), StringComparison.Ordinal);
        Assert.Equal(200, Read(Flag(new string('x', 200))).Flags[0].Says.Length);
        Assert.StartsWith("flags[0].says: What a flag says is one line", Fault(Flag(new string('x', 201))), StringComparison.Ordinal);
        Assert.StartsWith("flags[0].says: What a flag says is one line", Fault(Flag("one\\ntwo")), StringComparison.Ordinal);
        Assert.False(Read(Flag("x")).Flags[0].Holds);
        Assert.Equal(60, Coded(OfDocsLines, Read(Rule(new string('1', 60)))).Coding[0].Parts[0][CodeNames.Account].Length);
        Assert.StartsWith("rules[0].account: A code has at most 60 characters.", Fault(Rule(new string('1', 61))), StringComparison.Ordinal);
        Assert.StartsWith("rules[0].account: A code is one line of plain letters.", Fault(Rule("1\\n2")), StringComparison.Ordinal);
        Assert.StartsWith("rules[0].account: This code is empty.", Fault(Rule(" ")), StringComparison.Ordinal);
        Assert.Equal(50, Read(Shares(Many(Share, 50))).Rules[0].Shares.Length);
        Assert.StartsWith("rules[0].shares: Two to 50 shares", Fault(Shares(Many(Share, 51))), StringComparison.Ordinal);
        Assert.StartsWith("rules[0].shares: Two to 50 shares", Fault(Shares(Share)), StringComparison.Ordinal);
        Assert.StartsWith("rules[0].shares[1]: The share says no code", Fault(Shares(Share + ", { 'part': 1 }")), StringComparison.Ordinal);
        foreach (var (part, isRead) in new[] { ("1000000", true), ("1000000.1", false), ("0.000001", true), ("0.0000001", false), ("0", false), ("'60'", true), ("'-1'", false), ("null", false) })
        {
            var json = Shares(Share + $", {{ 'part': {part}, 'account': '2' }}");
            if (isRead)
                Assert.Equal(decimal.Parse(part.Trim('\''), CultureInfo.InvariantCulture), Read(json).Rules[0].Shares[1].Part);
            else
                Assert.StartsWith("rules[0].shares[1].part: A share needs its “part”", Fault(json), StringComparison.Ordinal);
        }
        Assert.Empty(Read("{ 'rules': [] }".PadRight(CodingReader.Longest)).Rules);
        Assert.StartsWith("the document: Coding rules have at most 500000 characters.", Fault("{ 'rules': [] }".PadRight(CodingReader.Longest + 1)), StringComparison.Ordinal);
        Assert.Null(Read("{ 'rules': [] }").Journal);
        Assert.Equal("journal: The key “tax” is missing: the account of taxes.", Fault("{ 'rules': [], 'journal': { 'payable': '1600' } }"));
        Assert.Equal("journal: The key “payable” is missing: the account of what is owed to vendors.", Fault("{ 'rules': [], 'journal': { 'tax': '1576' } }"));
    }

    private static string[] FlagsOf(ApprovedInvoice invoice, CodingRules rules)
    {
        var found = Flagged.Of(invoice, rules, Lists, out var faults);
        return [.. found.Select(one => $"{one.Severity} {one.Message} {string.Join(' ', one.About)}"), .. faults];
    }

    private static ApprovedInvoice Ordered(params (int Quantity, int? Ordered)[] rows) => Invoice([.. rows.Select((row, at) => Line(at + 1, "Rope", "", 10m) is var line && row.Ordered is { } ordered
        ? line with { Cells = new Dictionary<string, string>(line.Cells) { [TradeNames.Quantity] = Text(row.Quantity), ["orderedQuantity"] = Text(ordered) } } : line)]);

    [Fact]
    public void A_flag_tells_the_rows_of_which_it_is_so_with_what_it_looked_at()
    {
        Assert.Equal(
            ["Hold More than was ordered: row 2 (quantity 12, ordered quantity 10); row 4 (quantity 3, ordered quantity 2). lines[2].quantity lines[2].orderedQuantity lines[4].quantity lines[4].orderedQuantity"],
            FlagsOf(Ordered((1, 1), (12, 10), (7, null), (3, 2)), OfDocs));
        Assert.Equal(["Note To be seen by the master: total 10,812.00 EUR. total"], FlagsOf(Invoice(Line(1, "Winch", "Deck", 9010m)), OfDocs));
        Assert.Empty(FlagsOf(OfDocsLines, OfDocs));
        // What looks at nothing is told without values, and rows above five are counted.
        Assert.Equal(
            ["Note Seen: row 1; row 2; row 3; row 4; row 5; and 2 more rows. "],
            FlagsOf(Ordered([.. Enumerable.Repeat((1, (int?)1), 7)]), Read("{ 'rules': [], 'flags': [{ 'says': 'seen', 'when': '1 = 1' }] }")));
        Assert.StartsWith(
            "Coding, the flag “halves”, row 1: ", Assert.Single(FlagsOf(Ordered((1, 1)), Read("{ 'rules': [], 'flags': [{ 'says': 'halves', 'when': 'amount / 0 > 1' }] }"))), StringComparison.Ordinal);
    }

    [Fact]
    public void A_flag_tells_all_rows_of_which_it_is_so_and_no_other() => Gen.Select(Gen.Int[0, 9], Gen.Int[0, 9]).Array[1, 8].Sample(rows =>
    {
        var over = rows.Index().Where(row => row.Item.Item1 > row.Item.Item2).Select(row => row.Index + 1).ToList();
        var found = Flagged.Of(Ordered([.. rows.Select(row => (row.Item1, (int?)row.Item2))]), OfDocs, Lists, out var faults);
        Assert.Empty(faults);
        Assert.Equal(over.Select(row => $"lines[{row}].quantity"), found.SelectMany(one => one.About).Where(name => name.EndsWith(".quantity", StringComparison.Ordinal)));
    }, iter: 500);

    [Fact]
    public void An_invoice_without_lines_is_coded_as_a_whole()
    {
        var whole = Invoice(Line(1, "Rope", "", 100m)) with { Lines = [] };
        var coded = Coded(whole, Read("{ 'rules': [{ 'account': '6000', 'shares': [{ 'part': '0.5', 'costCentre': '1' }, { 'part': '0.5', 'costCentre': '2' }] }] }"));
        Assert.Equal(["0|50.00|account=6000 (rule 1)|costCentre=1 (rule 1)", "0|50.00|account=6000 (rule 1)|costCentre=2 (rule 1)"], Shown(coded));
        Assert.Equal(["6000|1|120", "6000|2|120"], PostingColumns.RowsOf(coded).Select(row => $"{row["account"]}|{row["costCentre"]}|{row["total"]}"));
        Assert.Equal(2, PostingColumns.CountOf(coded));
    }

    [Fact]
    public void What_cannot_be_worked_out_is_told_by_rule_and_row_and_the_next_rule_says_the_code()
    {
        var coding = InvoiceCoding.Of(
            Invoice(Line(1, "Rope", "x", 10m)), Read("{ 'rules': [{ 'of': 'odd', 'account': { 'value': 'number of section' } }, { 'account': '7' }] }"), Lists, NothingSaid, out var faults);
        Assert.StartsWith("Coding, rule 1, odd, row 1: ", Assert.Single(faults), StringComparison.Ordinal);
        Assert.Equal("7", coding[0].Parts[0]["account"]);
    }

    [Theory]
    [InlineData("{}", "the document", "The key “rules” is missing")]
    [InlineData("{ 'rules': [{ 'acount': '1' }] }", "rules[0].acount", "“account” is meant, perhaps")]
    [InlineData("{ 'rules': [{ 'when': 'amount > 1' }] }", "rules[0]", "The rule says no code")]
    [InlineData("{ 'rules': [{ 'when': 'amount', 'account': '1' }] }", "rules[0].when", "A condition is wanted here")]
    [InlineData("{ 'rules': [{ 'when': 'run = 1', 'account': '1' }] }", "rules[0].when", "There is no “run” here")]
    [InlineData("{ 'rules': [{ 'account': 6210 }] }", "rules[0].account", "A code is wanted here, in quotes")]
    [InlineData("{ 'rules': [{ 'account': '' }] }", "rules[0].account", "This code is empty.")]
    [InlineData("{ 'rules': [{ 'account': { 'value': 'invoiceDate' } }] }", "rules[0].account.value", "A code is a text or a number; this is a date.")]
    [InlineData("{ 'rules': [{ 'account': { } }] }", "rules[0].account", "The key “value” is missing.")]
    [InlineData("{ 'rules': [{ 'shares': [{ 'part': 1, 'account': '1' }] }] }", "rules[0].shares", "Two to 50 shares")]
    [InlineData("{ 'rules': [{ 'shares': [{ 'part': 0, 'account': '1' }, { 'part': 1, 'account': '2' }] }] }", "rules[0].shares[0].part", "a number above 0")]
    [InlineData("{ 'rules': [{ 'shares': [{ 'part': 1 }, { 'part': 1, 'account': '2' }] }] }", "rules[0].shares[0]", "The share says no code")]
    [InlineData("{ 'rules': [], 'needs': ['acount'] }", "needs", "“acount” is no code; there are account, costCentre, project, taxCode.")]
    [InlineData("{ 'rules': [], 'journal': { 'payable': '1600' } }", "journal", "The key “tax” is missing: the account of taxes.")]
    [InlineData("{ 'rules': [], 'names': { 'amount': 'number' } }", "names.amount", "is known already")]
    [InlineData("{ 'rules': [], 'flags': {} }", "flags", "At most 200 flags in brackets")]
    [InlineData("{ 'rules': [], 'flags': [{ 'when': 'total > 1' }] }", "flags[0]", "The key “says” is missing.")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': ' ', 'when': 'total > 1' }] }", "flags[0].says", "This text is empty.")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': 'x' }] }", "flags[0]", "The key “when” is missing: when it is so.")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': 'x', 'when': 'total' }] }", "flags[0].when", "A condition is wanted here")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': 'x', 'of': 'invoice', 'when': 'amount > 1' }] }", "flags[0].when", "There is no “amount” here")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': 'x', 'of': 'rows', 'when': 'amount > 1' }] }", "flags[0].of", "known are lines, invoice")]
    [InlineData("{ 'rules': [], 'flags': [{ 'says': 'x', 'holds': 'yes', 'when': 'amount > 1' }] }", "flags[0].holds", "true or false")]
    public void A_fault_is_told_by_its_place(string json, string place, string message)
    {
        var fault = Assert.Throws<JsonFaultException>(() => Read(json)).Faults.First();
        Assert.Equal(place, fault.Place);
        Assert.Contains(message, fault.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Shares_come_to_the_amount_to_its_last_digit_and_none_is_off_by_more_than_a_unit()
    {
        Assert.Equal([33.34m, 33.33m, 33.33m], SharedAmount.Of(100m, [1, 1, 1], 2));
        Assert.Equal([-33.34m, -33.33m, -33.33m], SharedAmount.Of(-100m, [1, 1, 1], 2));
        Assert.Equal([0.003m, 0.002m], SharedAmount.Of(0.005m, [60, 40], 2));
        Gen.Select(Gen.Int[-10_000_000, 10_000_000], Gen.Int[0, 4], Gen.Decimal[0.01m, 100m].Array[1, 20], Gen.Int[0, 3]).Sample((digits, scale, parts, minor) =>
        {
            var amount = new decimal(Math.Abs(digits), 0, 0, digits < 0, (byte)scale);
            var wanted = parts.Select(part => Math.Round(part, 4)).Where(part => part > 0).ToImmutableArray();
            var shares = SharedAmount.Of(amount, wanted, minor);
            var unit = (decimal)Math.Pow(10, -Math.Max(minor, scale));
            Assert.Equal(amount, shares.Sum());
            Assert.All(shares.Zip(wanted), one => Assert.True(Math.Abs(one.First - amount * (one.Second / wanted.Sum())) <= unit * 1.000001m, $"{amount} by {string.Join('/', wanted)}: {string.Join('/', shares)}"));
        });
    }

    private static SaidCoding Said(string codes) => new([.. codes.Split(';').Select(share => share.Split(':') is [var part, var own]
        ? new SaidShare(decimal.Parse(part, CultureInfo.InvariantCulture), CodesOf(own)) : new SaidShare(1, CodesOf(share)))]);

    private static ImmutableSortedDictionary<string, string> CodesOf(string codes) => codes.Split(',').Select(code => code.Split('=')).ToImmutableSortedDictionary(code => code[0].Trim(), code => code[1], StringComparer.Ordinal);

    [Theory]
    // What fills a gap is proposed, however few agree; what rules say otherwise only where most do.
    [InlineData("taxCode=V", "account=1|-|-|-", "account 1 on 1 of 4 lines like it")]
    [InlineData("account=9", "account=1|-|-|-", null)]
    [InlineData("account=9", "account=1|account=1|-|-", "account 1 on 2 of 4 lines like it")]
    [InlineData("account=9", "account=2|account=1|account=1", "account 1 on 2 of 3 lines like it")]
    // As many for each: what was said last.
    [InlineData("account=9", "account=2|account=1", "account 2 on 1 of 2 lines like it")]
    // What is so already is none, and what was never said, neither.
    [InlineData("account=1,taxCode=V", "account=1|account=1", null)]
    [InlineData("account=9", "-|-", null)]
    [InlineData("account=9", "", null)]
    [InlineData("account=1", "60:account=1,costCentre=4;40:account=1,costCentre=5", "60: account 1, cost centre 4; 40: account 1, cost centre 5 on 1 of 1 line like it")]
    [InlineData("60:account=1;40:account=2", "3:account=1;2:account=2", "3: account 1; 2: account 2 on 1 of 1 line like it")]
    [InlineData("60:account=1;40:account=2", "60:account=1;40:account=2", null)]
    public void What_was_said_before_is_proposed_where_that_is_worth_a_look(string now, string before, string? says)
    {
        var parts = Said(now).Shares.Select(share => new CodedPart(1m, share.Part, share.Codes.ToImmutableSortedDictionary(code => code.Key, code => new Code(code.Value, "rule 1")))).ToImmutableArray();
        var cases = before.Split('|', StringSplitOptions.RemoveEmptyEntries).Select(one => one == "-" ? null : Said(one)).ToList();
        Assert.Equal(says, CodeProposal.For(parts, cases)?.Says);
    }

    [Fact]
    public void Lines_are_alike_by_their_item_code_or_by_their_words_without_figures()
    {
        static string Key(string? code, string description) => LikeLines.KeyOf(new Dictionary<string, string> { ["itemCode"] = code ?? "", ["description"] = description });
        Assert.Equal(Key("mr-24", "Rope"), Key("MR-24", "Rope, blue"));
        Assert.NotEqual(Key("MR-24", "Rope"), Key(null, "MR-24"));
        Assert.Equal(Key(null, "Diesel 12.03.2026, berth 4"), Key(null, "diesel 14.03.2026 berth 5"));
        Assert.NotEqual(Key(null, "Diesel"), Key(null, "Petrol"));
        Assert.Equal("", Key(null, "12.03."));
    }

    private static string[] Entries(ApprovedInvoice invoice, RunFacts? run = null, JournalAccounts? accounts = null)
    {
        var laidOut = LaidOut.Of(Journal, invoice, Lists, run ?? Run, accounts ?? OfDocs.Journal);
        return [.. laidOut.Faults.Select(fault => fault.ToString()), .. laidOut.Records.Select(record => string.Join('|', record.Values.Select((value, at) => CellText.Of(record.Table.Columns[at], Journal.File, value))))];
    }

    [Fact]
    public void A_journal_debits_lines_and_taxes_and_credits_what_is_owed()
    {
        var invoice = Coded(OfDocsLines, OfDocs);
        string[] entries =
        [
            "BC-4|6210|440|Mooring rope|58.01||EUR", "BC-4|6400|410|Tea|6.01||EUR", "BC-4|6400|420|Tea|4.00||EUR", "BC-4|0410||Winch|6000.00||EUR",
            "BC-4|1576||Tax at 20 %|1213.60||EUR", "BC-4|1600||Brinewood Chandlery||7281.62|EUR",
        ];
        Assert.Equal(entries, Entries(invoice));
        // A credit note, and what takes the invoice back, have the sides the other way round.
        static string Turned(string entry) => entry.Split('|') is var cells ? string.Join('|', cells[..4].Concat([cells[5], cells[4], cells[6]])) : "";
        Assert.Equal(entries.Select(Turned), Entries(invoice with { IsCreditNote = true }));
        Assert.Equal(entries.Select(Turned), Entries(invoice, Run with { IsReversal = true }));
        Assert.Equal(entries, Entries(invoice with { IsCreditNote = true }, Run with { IsReversal = true }));
    }

    [Fact]
    public void Freight_a_discount_and_what_vendors_round_have_accounts_of_their_own()
    {
        var invoice = Invoice(Line(1, "Rope", "", 100m));
        var fields = new Dictionary<string, string>(invoice.Fields) { ["freight"] = "12.00", ["discount"] = "-10.00", ["total"] = "122.01" };
        invoice = Coded(invoice with { Fields = fields, Lines = [.. invoice.Lines, Line(2, "Tea", "", 0m)] }, OfDocs);
        Assert.Equal(["6740|12.00|", "3730||10.00", "1600||122.01", "6969|0.01|"], Entries(invoice).Skip(2).Select(entry => entry.Split('|') is var cells ? $"{cells[1]}|{cells[4]}|{cells[5]}" : ""));
        fields["total"] = "122.02";
        Assert.Equal(
            "Invoice 4, table “journal”: The journal does not balance: debits come to 132.00 EUR, credits to 132.02 EUR (0.02 EUR less debited).", Entries(invoice)[0]);
        Assert.Equal(
            "Invoice 4, table “journal”: The coding rules name no account for freight, 12.00 EUR here.", Entries(invoice, accounts: OfDocs.Journal! with { Freight = null })[0]);
        Assert.StartsWith("Invoice 4, table “journal”: A journal needs its accounts", LaidOut.Of(Journal, invoice, Lists, Run).Faults[0].ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Amounts_that_include_the_tax_are_posted_without_it_rate_by_rate_to_the_last_unit_or_refused()
    {
        static decimal Rounded(decimal number) => Math.Round(number, 2, MidpointRounding.AwayFromZero);
        static ApprovedLine WithRate(ApprovedLine line, decimal rate) => line with { Cells = new Dictionary<string, string>(line.Cells) { ["taxRate"] = Text(rate), ["account"] = $"4{rate}" } };
        static ApprovedInvoice Gross(IReadOnlyList<(decimal Amount, decimal Rate)> lines)
        {
            var own = lines.Select((line, at) => WithRate(Line(at + 1, "Tea", "", line.Amount), line.Rate)).ToArray();
            var invoice = Invoice(own);
            return invoice with
            {
                Fields = new Dictionary<string, string>(invoice.Fields) { ["total"] = Text(lines.Sum(line => line.Amount)) },
                Taxes = [.. lines.GroupBy(line => line.Rate).Select(rate => new ApprovedTax(Text(rate.Key), "", Rounded(rate.Sum(line => line.Amount) * rate.Key / (100 + rate.Key))))],
            };
        }
        var rules = Read("{ 'rules': [], 'journal': { 'payable': '1600', 'tax': { 'value': 'text of rate' }, 'freight': '6740', 'rounding': '6969' } }");
        Gen.Select(Gen.Int[-50_000, 500_000], Gen.Int[0, 3].Select(at => new[] { 0m, 5m, 13.5m, 20m }[at])).Array[1, 12].Sample(drawn =>
        {
            var lines = drawn.Select(line => (Amount: line.Item1 / 100m, Rate: line.Item2)).ToList();
            // Lines that take each other off to nothing at a rate leave no tax to be parted, and an invoice over nothing is none.
            if (lines.GroupBy(line => line.Rate).Any(rate => rate.Sum(line => line.Amount) == 0) || lines.Sum(line => line.Amount) == 0 || lines.All(line => line.Rate == 0))
                return;
            var invoice = Coded(Gross(lines), rules);
            var laidOut = LaidOut.Of(Journal, invoice, Lists, Run, rules.Journal);
            Assert.Empty(laidOut.Faults);
            decimal Of(string account) => laidOut.Records.Where(record => (string?)record.Values[1] == account).Sum(record => (record.Values[4] as decimal? ?? 0) - (record.Values[5] as decimal? ?? 0));
            foreach (var rate in lines.GroupBy(line => line.Rate))
            {
                var tax = Rounded(rate.Sum(line => line.Amount) * rate.Key / (100 + rate.Key));
                Assert.Equal((rate.Sum(line => line.Amount) - tax, tax), (Of($"4{Text(rate.Key)}"), Of(Text(rate.Key))));
            }
            Assert.Equal((-lines.Sum(line => line.Amount), 0m), (Of("1600"), Of("6969")));
        });

        // At which rate freight is taxed is stated nowhere: the stated taxes tell it, or nothing does. Which lines a tax is of, neither.
        var two = Gross([(105m, 5m), (120m, 20m)]);
        var withFreight = two with { Fields = new Dictionary<string, string>(two.Fields) { ["freight"] = "12.00", ["total"] = "237.00" } };
        const string Untold = "The amounts of the lines include the tax, 25.00 EUR, and which of them includes how much cannot be told from their rates.";
        Assert.EndsWith(Untold, Entries(Coded(withFreight, rules), accounts: rules.Journal)[0], StringComparison.Ordinal);
        var told = withFreight with { Taxes = [two.Taxes[0], two.Taxes[1] with { Amount = 22m }] };
        Assert.Equal(["45|100.00", "420|100.00", "5|5.00", "20|22.00", "6740|10.00"], Entries(Coded(told, rules), accounts: rules.Journal).SkipLast(1).Select(entry => entry.Split('|') is var cells ? $"{cells[1]}|{cells[4]}" : ""));
        // So do they for two lines without a rate of their own, unless these are over the same amount; of three nothing is tried.
        ApprovedInvoice Unrated(ApprovedInvoice invoice) =>
            Coded(invoice with { Lines = [.. invoice.Lines.Select(line => line with { Cells = line.Cells.Where(cell => cell.Key != "taxRate").ToDictionary() })] }, rules);
        Assert.Equal(["45|100.00", "420|100.00", "5|5.00", "20|20.00"], Entries(Unrated(two), accounts: rules.Journal).SkipLast(1).Select(entry => entry.Split('|') is var cells ? $"{cells[1]}|{cells[4]}" : ""));
        Assert.EndsWith("cannot be told from their rates.", Entries(Unrated(Gross([(126m, 5m), (126m, 20m)])), accounts: rules.Journal)[0], StringComparison.Ordinal);
        Assert.EndsWith(Untold, Entries(Unrated(Gross([(105m, 5m), (120m, 20m), (1m, 0m)])), accounts: rules.Journal)[0], StringComparison.Ordinal);
        // One rate is that of all, freight with it.
        var one = Gross([(105m, 5m)]);
        one = one with { Taxes = [new ApprovedTax("5", "", 6m)], Fields = new Dictionary<string, string>(one.Fields) { ["freight"] = "21.00", ["total"] = "126.00" } };
        Assert.Equal(["45|100.00|", "5|6.00|", "6740|20.00|", "1600||126.00"], Entries(Coded(one, rules), accounts: rules.Journal).Select(entry => entry.Split('|') is var cells ? $"{cells[1]}|{cells[4]}|{cells[5]}" : ""));
        // A stated tax that the rate does not come to is no tax that the amounts include.
        Assert.Contains("cannot be told", Entries(Coded(one with { Taxes = [new ApprovedTax("5", "", 7m)] }, rules), accounts: rules.Journal)[0], StringComparison.Ordinal);
    }

    [Fact]
    public void An_entry_has_an_account_and_the_digits_of_its_currency()
    {
        Assert.Equal("Invoice 4, table “journal”: Row 1 (100.00 EUR) has no account.", Entries(Invoice(Line(1, "Rope", "", 100m)))[0]);
        Assert.Equal("Invoice 4, table “journal”: The invoice (100.00 EUR) has no account.", Entries(Invoice(Line(1, "Rope", "", 100m)) with { Lines = [] })[0]);
        var dinars = Coded(Invoice(Line(1, "Rope", "", 100.5m)) with { Currency = "KWD" }, OfDocs);
        Assert.Equal(["100.500", "20.100"], Entries(dinars).Take(2).Select(entry => entry.Split('|')[4]));
        Assert.Contains("100.5 has more than 0 digits behind the decimal mark, which is all that its currency has.", Entries(dinars with { Currency = "JPY" })[0], StringComparison.Ordinal);
    }

    [Fact]
    public void Whatever_is_posted_as_a_journal_balances_for_each_invoice_and_one_that_loses_an_entry_is_refused()
    {
        var lossy = LayoutReader.Read(Docs.Split("```json")[2].Split("```")[0].Replace("\"records\": \"journal\",", "\"records\": \"journal\", \"where\": \"entry < 2\",", StringComparison.Ordinal), Lists);
        Gen.Select(Gen.Decimal[-1000m, 10_000m].Array[1, 12], Gen.Bool, Gen.Bool, Gen.Bool).Sample((amounts, isCreditNote, isPrintedBelowZero, isReversal) =>
        {
            // An invoice over nothing leaves nothing to post, and is refused as such.
            if (amounts.All(amount => Math.Round(amount, 2) == 0))
                return;
            var sign = isCreditNote && isPrintedBelowZero ? -1 : 1;
            var lines = amounts.Select((amount, at) => Line(at + 1, at % 3 == 0 ? "Rope" : "Tea", at % 2 == 0 ? "Galley" : "Dock 4", sign * Math.Round(amount, 2))).ToArray();
            var invoice = Coded(Invoice(lines) with { IsCreditNote = isCreditNote }, OfDocs);
            // Parted or not, the rows come to the lines.
            Assert.Equal(lines.Sum(line => decimal.Parse(line.Cells[TradeNames.Amount], CultureInfo.InvariantCulture)), PostingColumns.RowsOf(invoice).Sum(row => decimal.Parse(row[TradeNames.Amount], CultureInfo.InvariantCulture)));
            var run = Run with { IsReversal = isReversal };
            var laidOut = LaidOut.Of(Journal, invoice, Lists, run, OfDocs.Journal);
            Assert.Empty(laidOut.Faults);
            decimal Sum(int column) => laidOut.Records.Sum(record => record.Values[column] as decimal? ?? 0);
            Assert.Equal(Sum(4), Sum(5));
            Assert.Empty(new LayoutProof(Journal).Add(laidOut));
            Assert.NotEmpty(new LayoutProof(lossy).Add(LaidOut.Of(lossy, invoice, Lists, run, OfDocs.Journal)));
        });
    }
}
