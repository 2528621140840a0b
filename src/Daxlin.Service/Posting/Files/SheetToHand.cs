using Daxlin.Core.Posting;
using Daxlin.Core.Values;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes a table to hand as a spreadsheet (ECMA-376): figures are numbers, days are dates, and text is never a formula.</summary>
internal static class SheetToHand
{
    public static byte[] Write(TableToHand table, string name)
    {
        using var bytes = MemoryOfFiles.New();
        using var book = new SheetBook(bytes);
        var sheet = book.Add(name, [.. table.Headings.Select((heading, at) => (heading, Math.Max(heading.Length + 2, WidthOf(table, at))))]);
        foreach (var row in table.Typed)
            sheet.Write([.. row.Select(cell => (cell, cell is DateOnly ? SheetStyles.Date : SheetStyles.Plain))]);
        book.End();
        return bytes.ToArray();
    }

    private static double WidthOf(TableToHand table, int column) => table.Kinds[column] switch
    {
        ValueKind.Date => SheetStyles.DateWidth,
        ValueKind.Text or ValueKind.Iban => Math.Min(SheetStyles.WidestUnlessSaid, table.Rows.Select(row => row[column].Length + 2).DefaultIfEmpty().Max()),
        _ => SheetStyles.NumberWidth,
    };
}
