using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting;

/// <summary>A table that a person takes to a spreadsheet, cell by cell, as it is on screen.</summary>
/// <param name="Rows">As many cells a row as there are headings; figures in the settled form, so that they are numbers there.</param>
public sealed record TableToHand(ImmutableArray<string> Headings, ImmutableArray<ImmutableArray<string>> Rows)
{
    /// <summary>The item rows of an invoice: the columns that it has values of, the settled ones first.</summary>
    public static TableToHand OfRows(ApprovedInvoice invoice)
    {
        var rows = invoice.Lines.IsEmpty ? [] : PostingColumns.RowsOf(invoice).ToImmutableArray();
        var columns = PostingColumns.ItemsOf(invoice).Where(column => rows.Any(row => row.Cells.ContainsKey(column))).ToImmutableArray();
        return new TableToHand(
            [.. columns.Select(column => TradeNames.Spoken(column) + UnitOf(column, invoice.Currency))], [.. rows.Select(row => columns.Select(column => row[column]).ToImmutableArray())]);
    }

    /// <summary>Money is never without its currency, and a column says it once.</summary>
    private static string UnitOf(string column, string currency) => TradeNames.KindOf(column) switch
    {
        ValueKind.Money or ValueKind.Price => " " + currency,
        ValueKind.Percent => " %",
        _ => "",
    };

    /// <summary>Its cells, headings first, made harmless: what a spreadsheet would run is marked as text.</summary>
    public IEnumerable<ImmutableArray<string>> Cells => Rows.Prepend(Headings).Select(row => row.Select(HarmlessCell.Of).ToImmutableArray());

    /// <summary>Cells parted by tabs, a row a line (IANA, text/tab-separated-values): nothing is quoted, so that a cell is one line without tabs.</summary>
    public string Tabbed => string.Join('\n', Cells.Select(row => string.Join('\t', row.Select(OneLine))));

    private static string OneLine(string cell) => string.Join(' ', cell.Split(['\t', '\r', '\n'], StringSplitOptions.RemoveEmptyEntries));
}
