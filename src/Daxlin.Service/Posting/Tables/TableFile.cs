using System.Globalization;
using System.Text;
using CsvHelper;
using Daxlin.Core.Posting;
using Daxlin.Service.Posting.Files;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Posting.Tables;

/// <summary>A table as a file that spreadsheets take.</summary>
internal sealed record TableFile(string Name, string MediaType, byte[] Content)
{
    public const string Csv = "csv";
    public const string Xlsx = "xlsx";
    private const string Tsv = "tsv";

    /// <param name="form">csv, tsv or xlsx.</param>
    /// <param name="name">Without the ending.</param>
    /// <returns>Null for another form.</returns>
    public static TableFile? Of(TableToHand table, string form, string name) => form switch
    {
        Csv => new($"{name}.csv", "text/csv; charset=utf-8", Encoding.UTF8.GetBytes(CsvOf(table))),
        Tsv => new($"{name}.tsv", "text/tab-separated-values; charset=utf-8", Encoding.UTF8.GetBytes(table.Tabbed)),
        Xlsx => new($"{name}.xlsx", SheetBook.MediaType, SheetToHand.Write(table, name)),
        _ => null,
    };

    public FileContentHttpResult ToResult() => TypedResults.File(Content, MediaType, Name);

    private static string CsvOf(TableToHand table)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            foreach (var row in table.Cells)
                csv.WriteRecord([.. row]);
        }
        return text.ToString();
    }
}
