using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>A layout writes what it says, and none that loses or doubles an amount goes unseen.</summary>
public class LayoutTests
{
    private static readonly RunFacts Run = new(7, new DateOnly(2026, 11, 26));

    private static readonly TranslationLists Lists = new([new TranslationList("accounts", [new TranslationEntry("Dock", "4100", DateOnly.MinValue)])]);

    /// <summary>Written with the marks ' for ", so that it reads like the document.</summary>
    private static PostingLayout Read(string json) => LayoutReader.Read(json.Replace('\'', '"'), Lists);

    private static PostingLayout OfColumns(string columns, string file = "{ 'format': 'csv' }", string more = "", string records = "lines") =>
        Read($$"""{ 'name': 'tried', {{more}} 'tables': [{ 'records': '{{records}}', 'columns': [{{columns}}] }], 'file': {{file}} }""");

    private static ApprovedInvoice Invoice(int id, bool isCreditNote, params decimal[] amounts)
    {
        static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
        var net = amounts.Sum();
        var tax = Math.Round(net * 0.2m, 2, MidpointRounding.AwayFromZero);
        return new ApprovedInvoice(
            id, "Brinewood Chandlery", isCreditNote, "EUR", $"{id}.pdf", new string('0', 64),
            ImmutableDictionary<string, string>.Empty
                .Add(TradeNames.InvoiceNumber, $"BC-{id}").Add(TradeNames.InvoiceDate, "2026-01-31").Add(TradeNames.Total, Text(net + tax)),
            [new ApprovedTax("20", Text(net), tax)],
            [.. amounts.Select((amount, at) => new ApprovedLine("goods", at + 1, 1, ImmutableDictionary<string, string>.Empty
                .Add(TradeNames.Description, $"Rope {at + 1}").Add(TradeNames.Section, at % 2 == 0 ? "Dock" : "Bridge")
                .Add(TradeNames.Quantity, "2").Add(TradeNames.UnitPrice, Text(amount / 2)).Add(TradeNames.Amount, Text(amount)), []))]);
    }

    private static string[] Lines(PostingLayout layout, params ApprovedInvoice[] invoices) =>
    [
        .. invoices.SelectMany(invoice => LaidOut.Of(layout, invoice, Lists, Run).Records)
            .Select(record => string.Join('|', record.Values.Select((value, at) => CellText.Of(record.Table.Columns[at], layout.File, value)))),
    ];

    [Fact]
    public void The_example_of_the_docs_writes_what_it_says()
    {
        var docs = File.ReadAllText(Path.Combine(Repository.Root, "docs", "POSTING.md"));
        var layout = LayoutReader.Read(docs.Split("```json")[1].Split("```")[0], Lists);
        Assert.Equal(
            ["BC-4|31.01.2026|4000|Rope 1|100,00|EUR", "BC-4|31.01.2026|4000|Rope 2|20,50|EUR"], Lines(layout, Invoice(4, false, 100m, 20.5m)));
        Assert.Equal("ledger-lines-{run}", layout.File.Name);
    }

    [Fact]
    public void Each_kind_of_records_says_what_is_its_own()
    {
        var invoice = Invoice(4, false, 100m, 20.5m) with { Origin = new ApprovedOrigin("November", "Mira", new DateOnly(2026, 11, 25), new DateOnly(2026, 11, 24), "1600", "V20") };
        var layout = Read(
            """
            { 'name': 'all-kinds', 'tables': [
              { 'records': 'invoices', 'columns': ['run', 'postedOn', 'invoiceId', 'kind', 'total', 'tax', 'lineCount', 'batch', 'approvedBy', 'approvedOn', 'takenInOn', 'vendorAccount', 'vendorTaxCode', 'reversal',
                { 'heading': 'sum', 'value': 'total', 'proves': 'total' }] },
              { 'records': 'lines', 'where': 'section = \"dock\"', 'columns': ['line', 'block', 'page', 'quantity', 'amount'] },
              { 'records': 'taxes', 'columns': ['rate', 'base', 'amount', 'invoiceNumber'] }] }
            """);
        Assert.Equal(
        [
            "7|2026-11-26|4|invoice|144.60|24.10|2|November|Mira|2026-11-25|2026-11-24|1600|V20|no|144.60",
            "1|goods|1|2|100",
            "20|120.5|24.10|BC-4",
        ], Lines(layout, invoice));
        // Where only the sum of the taxes is stated, it is the one row of them.
        Assert.Equal("||24.10|BC-4", Lines(layout, invoice with { Taxes = [], Fields = new Dictionary<string, string>(invoice.Fields) { ["tax"] = "24.10" } }).Last());
        Assert.Equal(2, Lines(layout, invoice with { Taxes = [] }).Length);
    }

    [Theory]
    [InlineData("negative", true, "100.5", "-2|-100.5")]
    [InlineData("negative", true, "-100.5", "2|-100.5")]
    [InlineData("negative", false, "100.5", "2|100.5")]
    [InlineData("positive", true, "-100.5", "-2|100.5")]
    [InlineData("positive", true, "100.5", "2|100.5")]
    [InlineData("as-printed", true, "-100.5", "2|-100.5")]
    [InlineData("as-printed", true, "100.5", "2|100.5")]
    public void Credit_notes_get_the_sign_that_is_said_and_quantity_times_price_stays_the_amount(string signs, bool isCreditNote, string amount, string line)
    {
        var layout = OfColumns("'quantity', { 'heading': 'a', 'value': 'amount', 'proves': 'lines' }", more: $"'creditNotes': '{signs}',");
        var invoice = Invoice(1, isCreditNote, decimal.Parse(amount, CultureInfo.InvariantCulture));
        Assert.Equal([line], Lines(layout, invoice));
        Assert.Empty(new LayoutProof(layout).Add(LaidOut.Of(layout, invoice, Lists, Run)));
        // What takes a run back has the other sign on everything, and is proved as well.
        var back = LaidOut.Of(layout, invoice, Lists, Run with { IsReversal = true });
        Assert.Equal(LaidOut.Of(layout, invoice, Lists, Run).Records.Select(record => -(decimal)record.Values[1]!), back.Records.Select(record => (decimal)record.Values[1]!));
        Assert.Empty(new LayoutProof(layout).Add(back));
    }

    [Fact]
    public void A_lost_or_doubled_amount_is_told_in_figures_even_if_another_makes_up_for_it()
    {
        var layout = OfColumns("{ 'heading': 'Amount', 'value': 'amount * 2 if invoiceId = 1 else amount * 0.5', 'proves': 'lines' }");
        var proof = new LayoutProof(layout);
        var faults = new[] { Invoice(1, false, 10m), Invoice(2, false, 20m) }.SelectMany(invoice => proof.Add(LaidOut.Of(layout, invoice, Lists, Run))).ToList();
        Assert.Equal(
        [
            "Invoice 1, table “lines”, column “Amount”: It comes to 20.00 EUR; the invoices have lines of 10.00 EUR (10.00 EUR too much).",
            "Invoice 2, table “lines”, column “Amount”: It comes to 10.00 EUR; the invoices have lines of 20.00 EUR (10.00 EUR too little).",
        ], faults.Select(fault => fault.ToString()));
        Assert.True(Assert.Single(proof.Sums).Holds);
    }

    [Fact]
    public void Whatever_a_layout_says_the_written_figures_come_to_the_control_totals_or_the_difference_is_told()
    {
        var value = OneOf(
            "amount", "amount rounded to 1", "amount if line = 1 else 0", "quantity * unitPrice", "-amount", "amount otherwise 0", "amount + 0.01 - 0.01", "amount if section contains \\\"Dock\\\" else amount * 1");
        var where = OneOf("", "'where': 'amount <> 0',", "'where': 'section = \\\"Dock\\\"',", "'where': 'line < 3',");
        var amounts = Gen.Int[-5000, 5000].Select(minor => minor / 100m).Array[0, 4];
        var invoices = Gen.Select(amounts, Gen.Bool).Array[1, 4];
        var signs = OneOf("negative", "positive", "as-printed");
        var (held, told) = (0, 0);
        Gen.Select(value, where, signs, invoices).Sample(
            (expression, filter, sign, drawn) =>
            {
                var layout = Read($$"""{ 'name': 'tried', 'creditNotes': '{{sign}}', 'tables': [{ 'records': 'lines', {{filter}} 'columns': [{ 'heading': 'a', 'value': '{{expression}}', 'proves': 'lines' }] }] }""");
                foreach (var invoice in drawn.Select((one, at) => Invoice(at + 1, one.Item2, one.Item1)))
                {
                    // Counted again from the text that goes into the file.
                    var written = Lines(layout, invoice).Sum(text => decimal.Parse(text, CultureInfo.InvariantCulture));
                    var lines = invoice.Lines.Sum(line => decimal.Parse(line.Cells[TradeNames.Amount], CultureInfo.InvariantCulture));
                    var isOther = invoice.IsCreditNote && (sign == "negative" ? invoice.Total > 0 : sign == "positive" && invoice.Total < 0);
                    var isToldOff = !new LayoutProof(layout).Add(LaidOut.Of(layout, invoice, Lists, Run)).IsEmpty;
                    if (isToldOff != (written != (isOther ? -lines : lines)))
                        return false;
                    _ = isToldOff ? Interlocked.Increment(ref told) : Interlocked.Increment(ref held);
                }
                return true;
            },
            iter: Effort.Times(2000));
        Assert.True(held > Effort.Times(2000) / 5 && told > Effort.Times(2000) / 5, $"{held} held, {told} told");
    }

    [Theory]
    [InlineData("'decimals': 2", "csv", "amount / 3", "16.666666666666666666666666667 has more than 2 digits behind the decimal mark. “rounded to 2” rounds it")]
    [InlineData("'width': 4", "csv", "description & vendor", "“Rope 1Brinewood Chandlery” has 25 letters; the column takes 4. “cut”: true takes the end of it off.")]
    [InlineData("'width': 3, 'cut': true", "csv", "amount", "“50.00” has 5 letters; the column takes 3.")]
    [InlineData("'width': 5", "fixed-width", "amount / 0", "It divides by 0.")]
    public void A_value_that_the_file_cannot_take_is_told_with_its_invoice_and_column(string keys, string format, string value, string message)
    {
        var layout = OfColumns($"{{ 'heading': 'x', 'value': '{value}', {keys} }}, {{ 'heading': 'a', 'value': 'amount', 'width': 9, 'proves': 'lines' }}", $"{{ 'format': '{format}' }}");
        var laidOut = LaidOut.Of(layout, Invoice(3, false, 50.00m), Lists, Run);
        var fault = Assert.Single(laidOut.Faults);
        Assert.Equal((3, "lines", "x"), (fault.Invoice, fault.Table, fault.Column));
        Assert.StartsWith(message, fault.Message, StringComparison.Ordinal);
        Assert.Empty(laidOut.Records);
    }

    [Fact]
    public void A_column_of_fixed_width_has_its_figures_on_the_right_and_its_text_on_the_left()
    {
        var layout = OfColumns(
            "{ 'heading': 'd', 'value': 'description', 'width': 4, 'cut': true }, { 'heading': 'n', 'value': 'line', 'width': 3 }, { 'heading': 'a', 'value': 'amount', 'width': 9, 'fill': '0', 'decimals': 2, 'proves': 'lines' }, { 'heading': 'e', 'value': 'freight', 'width': 2 }, { 'heading': 'on', 'value': 'invoiceDate', 'width': 6 }",
            "{ 'format': 'fixed-width', 'dates': 'DDMMYY' }");
        var record = LaidOut.Of(layout, Invoice(1, true, 1204.5m), Lists, Run).Records.Single();
        Assert.Equal("Rope  1-01204.50  310126", string.Concat(record.Values.Select((value, at) => CellText.Placed(record.Table.Columns[at], layout.File, value))));
    }

    [Theory]
    [InlineData("{ }", "the document: The key “name” is missing.", "The key “tables” is missing")]
    [InlineData("{ 'name': 'Ledger Lines', 'tables': [] }", "name: A name is lower-case words", "tables: One to 6 tables in brackets are wanted here.")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': ['amount'] }] }", "tables: No column says which control total its figures come to", "")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'line', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }] }", "tables[0].records: “line” is unknown here; known are invoices, lines, taxes, journal.", "")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'columns': [{ 'heading': 'a', 'valeu': 'amount', 'proves': 'lines' }] }] }", "tables[0]: The key “records” is missing", "“value” is meant, perhaps")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'invoices', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }] }", "tables[0].columns[0].value: At its character 1: There is no “amount” here", "")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'vendor', 'proves': 'lines', 'decimals': 2 }] }] }", "proves: Only numbers come to a control total; this column is a text.", "decimals: Only numbers have decimals")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': ['amount', { 'heading': 'amount', 'value': 'amount', 'proves': 'lines', 'cut': true, 'fill': 'ab' }] }] }", "Two columns have the heading “amount”.", "What is cut needs a “width”.")]
    [InlineData("{ 'name': 'a', 'invoices': 'total', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }, { 'records': 'lines', 'columns': ['amount'] }] }", "invoices: A condition is wanted here, as total > 0; this is a number.", "Two tables are called “lines”")]
    [InlineData("{ 'name': 'a', 'names': { 'amount': 'text', 'berth': 'words' }, 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }] }", "names.amount: “amount” is known already", "“words” is unknown here; known are text, number, date, yes-no.")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }], 'file': { 'format': 'fixed-width', 'delimiter': ';', 'dates': 'DD.MM' } }", "“delimiter” is of csv files; this one is fixed-width.", "needs the “width” of each column")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }], 'file': { 'decimal': ',', 'name': '{vendor}/{day}' } }", "The decimal mark is the delimiter, too", "“{day}” is unknown in a file's name")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }], 'file': { 'format': 'json', 'decimal': ',', 'per': 'invoice', 'name': '{number}', 'ending': '.x' } }", "“decimal” is of csv and fixed-width files", "the name needs {invoice}")]
    [InlineData("{ 'name': 'a', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }] }], 'file': { 'per': 'vendor', 'name': 'x-{run}', 'dates': 'MM-DD' } }", "the name needs {vendor}", "A form of dates is wanted here")]
    public void A_faulty_layout_says_what_is_wrong_by_key(string json, string message, string another)
    {
        var faults = Assert.Throws<JsonFaultException>(() => Read(json)).Faults.Select(fault => fault.ToString()).ToList();
        Assert.Contains(faults, fault => fault.Contains(message, StringComparison.Ordinal));
        Assert.True(another.Length == 0 || faults.Exists(fault => fault.Contains(another, StringComparison.Ordinal)), string.Join('\n', faults));
        Assert.All(faults, fault => Assert.EndsWith(".", fault, StringComparison.Ordinal));
    }

    [Fact]
    public void A_layout_takes_the_invoices_that_it_asks_for_and_what_takes_them_back_takes_all()
    {
        const string Net = "{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }";
        var layout = OfColumns(Net, more: "'invoices': 'total > 100 and kind = \\\"invoice\\\"',");
        ApprovedInvoice[] invoices = [Invoice(1, false, 100m), Invoice(2, false, 10m), Invoice(3, true, 100m)];
        Assert.Equal([true, false, false], invoices.Select(invoice => LaidOut.Of(layout, invoice, Lists, Run).IsTaken));
        Assert.All(invoices, invoice => Assert.Single(LaidOut.Of(layout, invoice, Lists, Run with { IsReversal = true }).Records));
        // What cannot be told of one is its fault, and no reason to leave it out in silence.
        var unclear = LaidOut.Of(OfColumns(Net, more: "'invoices': 'total / lineCount - 60 > 1 / (lineCount - 1)',"), invoices[0], Lists, Run);
        Assert.Equal((true, "Invoice 1: What is asked by “invoices” cannot be told. It divides by 0."), (unclear.IsTaken, Assert.Single(unclear.Faults).ToString()));
    }

    [Theory]
    [InlineData("lines", "'columns': [{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }]", false)]
    [InlineData("taxes", "'where': 'rate > 50', 'columns': [{ 'heading': 'a', 'value': '0 * amount', 'proves': 'lines' }]", false)]
    [InlineData("invoices", "'columns': [{ 'heading': 'a', 'value': 'total', 'proves': 'total' }]", true)]
    public void An_invoice_of_which_nothing_would_be_written_is_told(string records, string columns, bool isWritten)
    {
        var layout = Read($$"""{ 'name': 'tried', 'tables': [{ 'records': '{{records}}', {{columns}} }] }""");
        var bare = Invoice(7, false) with { Fields = new Dictionary<string, string> { ["total"] = "240.00" } };
        var laidOut = LaidOut.Of(layout, bare, Lists, Run);
        Assert.Equal(
            isWritten ? [] : ["Invoice 7: The layout writes no record of it, so that the ledger would never see its 240.00 EUR."], laidOut.Faults.Select(fault => fault.ToString()));
    }

    [Fact]
    public void Files_are_named_by_what_they_hold_and_no_two_vendors_share_one()
    {
        static LayoutFileNames Named(string name, string per) => new(OfColumns("{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }", $"{{ 'per': '{per}', 'name': '{name}', 'ending': 'txt' }}").File, Run);
        var table = OfColumns("{ 'heading': 'a', 'value': 'amount', 'proves': 'lines' }").Tables[0];
        var (one, other) = (Invoice(1, false, 1m) with { Vendor = "Bréal / Sons" }, Invoice(2, false, 1m) with { Vendor = "BRÉAL-SONS" });
        var byVendor = Named("{run} {date} {vendor}", "vendor");
        Assert.Equal(["7 2026-11-26 Bréal-Sons.txt", "7 2026-11-26 BRÉAL-SONS-2.txt", "7 2026-11-26 Bréal-Sons.txt"], new[] { one, other, one }.Select(invoice => byVendor.Of(invoice, table)));
        Assert.Equal("BC-1 1 lines.txt", Named("{number} {invoice} {table}", "invoice").Of(one, table));
        Assert.Equal("unnamed.txt", Named("{vendor}", "vendor").Of(one with { Vendor = "../" }, table));
        Assert.Equal(64, Named("{vendor}", "vendor").Of(one with { Vendor = new string('x', 500) }, table).Length);
    }

    [Fact]
    public void A_layout_says_which_lists_it_looks_words_up_in() => Assert.Equal(
        ["accounts"], OfColumns("'invoiceNumber', { 'heading': 'a', 'value': 'amount if list \\\"accounts\\\" at section is there else 0', 'proves': 'lines' }").Lists);

    [Fact]
    public void A_list_counts_from_its_day_on_and_knows_a_word_whatever_its_capitals_and_blanks()
    {
        var list = new TranslationList("accounts",
        [
            new TranslationEntry("Fuel oil", "4100", DateOnly.MinValue), new TranslationEntry("FUEL  OIL", "4150", new DateOnly(2026, 7, 1)), new TranslationEntry("Rope", "4000", new DateOnly(2026, 1, 1)),
        ]);
        Assert.Equal(
            new[] { "4100", "4150", "4000", null, null },
            new[] { list.Of("fuel oil", new(2026, 6, 30)), list.Of(" Fuel  Oil ", new(2026, 7, 1)), list.Of("ROPE", new(2026, 1, 1)), list.Of("rope", new(2025, 12, 31)), list.Of("Paint", new(2026, 1, 1)) });
    }

    private static Gen<string> OneOf(params string[] some) => Gen.Int[0, some.Length - 1].Select(at => some[at]);
}
