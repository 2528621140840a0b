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
            1, "Brinewood Chandlery", false, "EUR", "a.pdf", new string('0', 64), fields, [12.00m, 3.20m],
            [new ApprovedLine("goods", 1, 1, cells, [new ApprovedList("deliveries", flat, rows)])]);
    }

    [Fact]
    public void A_joined_list_is_one_cell_of_its_row()
    {
        var row = Assert.Single(PostingColumns.RowsOf(Invoice(FlatForm.Joined)));
        Assert.Equal(("25 MV Fulmar; 15 MV Petrel", "80.00"), (row["deliveries"], row["amount"]));
        Assert.Equal("15.20", row["tax"]);
        Assert.Contains("deliveries", PostingColumns.Of([Invoice(FlatForm.Joined)]));
    }

    [Fact]
    public void A_repeated_list_repeats_its_row_but_never_the_amount()
    {
        var rows = PostingColumns.RowsOf(Invoice(FlatForm.Repeated)).ToList();
        Assert.Equal(["MV Fulmar", "MV Petrel"], rows.Select(row => row["deliveries.vessel"]));
        Assert.Equal(["Rope", "Rope"], rows.Select(row => row["description"]));
        Assert.Equal(["80.00", ""], rows.Select(row => row["amount"]));
        Assert.Equal(2, ControlTotals.Of([Invoice(FlatForm.Repeated)]).Rows);
    }
}
