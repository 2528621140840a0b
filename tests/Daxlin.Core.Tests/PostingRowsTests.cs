using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Tests;

/// <summary>How an approved invoice becomes rows of a flat file.</summary>
public class PostingRowsTests
{
    private static ApprovedInvoice Invoice(FlatForm flat)
    {
        ImmutableArray<ImmutableSortedDictionary<string, string>> rows =
        [
            ImmutableSortedDictionary<string, string>.Empty.Add("vessel", "MV Fulmar").Add("pieces", "25"),
            ImmutableSortedDictionary<string, string>.Empty.Add("vessel", "MV Petrel").Add("pieces", "15"),
        ];
        var cells = ImmutableDictionary<string, string>.Empty.Add("description", "Rope").Add("quantity", "40").Add("amount", "80.00");
        var fields = ImmutableDictionary<string, string>.Empty.Add("total", "80.00");
        return new ApprovedInvoice(
            1, "Brinewood Chandlery", false, "EUR", "a.pdf", new string('0', 64), fields, [new ApprovedTax("20", "", 12.00m), new ApprovedTax("5", "", 3.20m)],
            [new ApprovedLine("goods", 1, 1, cells, [new ApprovedList("deliveries", flat, rows)])]);
    }

    private static ImmutableArray<string> ColumnsOf(ApprovedInvoice invoice)
    {
        var columns = new PostingColumnsSoFar();
        columns.Add(invoice);
        return columns.Columns;
    }

    [Fact]
    public void A_joined_list_is_one_cell_of_its_row()
    {
        var row = Assert.Single(PostingColumns.RowsOf(Invoice(FlatForm.Joined)));
        Assert.Equal(("25 MV Fulmar; 15 MV Petrel", "80.00"), (row["deliveries"], row["amount"]));
        Assert.Equal("15.20", row["tax"]);
        Assert.Contains("deliveries", ColumnsOf(Invoice(FlatForm.Joined)));
    }

    [Fact]
    public void A_repeated_list_repeats_its_row_but_never_the_amount()
    {
        var rows = PostingColumns.RowsOf(Invoice(FlatForm.Repeated)).ToList();
        Assert.Equal(["MV Fulmar", "MV Petrel"], rows.Select(row => row["deliveries.vessel"]));
        Assert.Equal(["Rope", "Rope"], rows.Select(row => row["description"]));
        Assert.Equal(["80.00", ""], rows.Select(row => row["amount"]));
        Assert.Equal(2, PostingColumns.CountOf(Invoice(FlatForm.Repeated)));
    }

    [Theory]
    [InlineData("Rope", "Rope")]
    [InlineData("", "")]
    [InlineData("=HYPERLINK(1)", "'=HYPERLINK(1)")]
    [InlineData("+1", "'+1")]
    [InlineData("@SUM(A1)", "'@SUM(A1)")]
    [InlineData("\t=1", "'\t'=1")]
    [InlineData("\r=1", "'\r=1")]
    [InlineData("\n=1", "'\n=1")]
    [InlineData("-", "'-")]
    [InlineData("-12.00", "-12.00")]
    [InlineData("-1a", "'-1a")]
    [InlineData("-.5", "'-.5")]
    [InlineData("--1", "'--1")]
    [InlineData("a=b", "a=b")]
    [InlineData("rope;=cmd", "rope;'=cmd")]
    [InlineData("rope; @cmd", "rope; '@cmd")]
    [InlineData("rope|-cmd", "rope|'-cmd")]
    [InlineData("rope; -5 mm", "rope; -5 mm")]
    [InlineData("rope, +5", "rope, +5")]
    public void A_cell_that_a_spreadsheet_would_run_is_made_text_whatever_delimiter_it_is_opened_with(string text, string harmless) =>
        Assert.Equal(harmless, HarmlessCell.Of(text));

    [Fact]
    public void The_columns_are_the_settled_ones_then_the_templates_own_by_name_then_the_source()
    {
        var invoice = Invoice(FlatForm.Repeated) with
        {
            Fields = new Dictionary<string, string>(Invoice(FlatForm.Joined).Fields) { ["zone"] = "B", ["berth"] = "2", ["vendorName"] = "Brinewood", ["tax"] = "1.00" },
        };
        var columns = ColumnsOf(invoice);
        Assert.Equal(columns.Length, columns.Distinct().Count());
        Assert.Equal(["berth", "deliveries.pieces", "deliveries.vessel", "zone", "file", "page", "document"], columns[27..]);
        Assert.Equal(("invoiceId", "total", "line", "amount"), (columns[0], columns[14], columns[15], columns[26]));
        // A tax that is stated is taken as it is; the vendor's own name stands in the column of all vendors.
        Assert.All(PostingColumns.RowsOf(invoice), row => Assert.Equal(("1.00", "Brinewood Chandlery"), (row["tax"], row["vendor"])));
    }

    [Fact]
    public void A_row_says_what_it_is_of()
    {
        var row = Assert.Single(PostingColumns.RowsOf(Invoice(FlatForm.Joined)));
        Assert.Equal("1 invoice EUR a.pdf 1 1 goods", string.Join(' ', row["invoiceId"], row["kind"], row["currency"], row["file"], row["page"], row["line"], row["block"]));
        Assert.Equal(64, row["document"].Length);
        var credit = Invoice(FlatForm.Joined) with { IsCreditNote = true, Lines = [Invoice(FlatForm.Joined).Lines[0] with { Page = 0, Number = 7 }] };
        row = Assert.Single(PostingColumns.RowsOf(credit));
        Assert.Equal("credit note||7", $"{row["kind"]}|{row["page"]}|{row["line"]}");
        row = Assert.Single(PostingColumns.RowsOf(credit with { Lines = [], Taxes = [] }));
        Assert.Equal("credit note|80.00||", $"{row["kind"]}|{row["total"]}|{row["tax"]}|{row["line"]}");
    }

    [Theory]
    [InlineData("80.00", false, "EUR 80.00")]
    [InlineData("80.00", true, "EUR -80.00")]
    [InlineData("-80.00", true, "EUR -80.00")]
    [InlineData("-80.00", false, "EUR -80.00")]
    [InlineData(null, false, "EUR 0")]
    public void Credit_notes_count_as_less_however_their_totals_are_printed(string? total, bool isCreditNote, string sum)
    {
        var one = Invoice(FlatForm.Joined) with { IsCreditNote = isCreditNote, Fields = total is null ? ImmutableDictionary<string, string>.Empty : ImmutableDictionary<string, string>.Empty.Add("total", total) };
        var other = one with { Currency = "GBP", IsCreditNote = false, Fields = ImmutableDictionary<string, string>.Empty.Add("total", "1.50") };
        var soFar = new ControlTotalsSoFar(isReversal: false);
        foreach (var invoice in new[] { one, other, other })
            soFar.Add(invoice);
        var totals = soFar.Totals;
        Assert.Equal((3, 3, $"{sum}, GBP 3.00"), (totals.Invoices, totals.Rows, string.Join(", ", totals.Sums.Select(entry => $"{entry.Key} {entry.Value.ToString(System.Globalization.CultureInfo.InvariantCulture)}"))));
    }

    [Fact]
    public void Rows_to_hand_have_the_columns_that_are_filled_money_with_its_currency_and_nothing_that_a_spreadsheet_runs()
    {
        var line = Invoice(FlatForm.Repeated).Lines[0];
        var cells = new Dictionary<string, string>(line.Cells) { ["description"] = "=cmd\trope\nlong", ["taxRate"] = "20", ["unitPrice"] = "2.00", ["berth"] = "-2" };
        var table = TableToHand.OfRows(Invoice(FlatForm.Repeated) with { Lines = [line with { Cells = cells }, line with { Number = 2, Under = [] }] });
        Assert.Equal(
            ["line", "description", "quantity", "unit price EUR", "tax rate %", "amount EUR", "berth", "deliveries.pieces", "deliveries.vessel"], table.Headings);
        var lines = table.Tabbed.Split('\n').Select(row => row.Split('\t')).ToList();
        Assert.All(lines, row => Assert.Equal(table.Headings.Length, row.Length));
        // The amount stands once a line, so that the column comes to the subtotal.
        Assert.Equal(["1|'=cmd rope long|40|2.00|20|80.00|-2|25|MV Fulmar", "1|'=cmd rope long||2.00|20||-2|15|MV Petrel", "2|Rope|40|||80.00|||"], lines.Skip(1).Select(row => string.Join('|', row)));
        Assert.Empty(TableToHand.OfRows(Invoice(FlatForm.Joined) with { Lines = [] }).Rows);
        Assert.Equal("serials", TableToHand.OfRows(Invoice(FlatForm.Joined) with { Lines = [line with { Under = [line.Under[0] with { Name = "serials", Flat = FlatForm.Joined }] }] }).Headings[^1]);
    }
}
