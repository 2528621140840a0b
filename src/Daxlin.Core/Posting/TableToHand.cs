using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting;

/// <summary>A table that a person takes to a spreadsheet, cell by cell, as it is on screen.</summary>
/// <param name="Rows">As many cells a row as there are headings; figures in the settled form, so that they are numbers there.</param>
/// <param name="Kinds">What each column holds.</param>
public sealed record TableToHand(ImmutableArray<string> Headings, ImmutableArray<ImmutableArray<string>> Rows, ImmutableArray<ValueKind> Kinds)
{
    /// <summary>The item rows of an invoice: the columns that it has values of, the settled ones first.</summary>
    public static TableToHand OfRows(ApprovedInvoice invoice)
    {
        var rows = invoice.Lines.IsEmpty ? [] : PostingColumns.RowsOf(invoice).ToImmutableArray();
        var columns = PostingColumns.ItemsOf(invoice).Where(column => rows.Any(row => row.Cells.ContainsKey(column))).ToImmutableArray();
        return new TableToHand(
            [.. columns.Select(column => TradeNames.Spoken(column) + UnitOf(column, invoice.Currency))], [.. rows.Select(row => columns.Select(column => row[column]).ToImmutableArray())],
            [.. columns.Select(TradeNames.KindOf)]);
    }

    /// <summary>Money is never without its currency, and a column says it once.</summary>
    private static string UnitOf(string column, string currency) => TradeNames.KindOf(column) switch
    {
        ValueKind.Money or ValueKind.Price => " " + currency,
        ValueKind.Percent => " %",
        _ => "",
    };

    /// <summary>Its cells by their kinds: a decimal, a date, or a text where it is none of the column's kind.</summary>
    public IEnumerable<ImmutableArray<object?>> Typed => Rows.Select(row => row.Select((cell, at) => CellOf(cell, Kinds[at])).ToImmutableArray());

    private static object? CellOf(string cell, ValueKind kind) => cell.Length == 0 ? null : kind switch
    {
        ValueKind.Money or ValueKind.Price or ValueKind.Percent or ValueKind.Number or ValueKind.Whole
            when decimal.TryParse(cell, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) => number,
        ValueKind.Date when DateOnly.TryParseExact(cell, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) => day,
        _ => cell,
    };

    /// <summary>Its cells, headings first, made harmless: what a spreadsheet would run is marked as text.</summary>
    public IEnumerable<ImmutableArray<string>> Cells => Rows.Prepend(Headings).Select(row => row.Select(HarmlessCell.Of).ToImmutableArray());

    /// <summary>Cells parted by tabs, a row a line (IANA, text/tab-separated-values): nothing is quoted, so that a cell is one line without tabs.</summary>
    public string Tabbed => string.Join('\n', Cells.Select(row => string.Join('\t', row.Select(OneLine))));

    private static string OneLine(string cell) => string.Join(' ', cell.Split(['\t', '\r', '\n'], StringSplitOptions.RemoveEmptyEntries));
}
