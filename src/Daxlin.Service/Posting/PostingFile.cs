using System.Globalization;
using CsvHelper;
using Daxlin.Core.Posting;

namespace Daxlin.Service.Posting;

/// <summary>Writes a posting run as CSV: RFC 4180, UTF-8, a heading row, lines ended by CR LF.</summary>
internal static class PostingFile
{
    public static string Write(IReadOnlyCollection<ApprovedInvoice> invoices)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            var columns = PostingColumns.Of(invoices);
            csv.WriteHeader(columns.AsSpan());
            foreach (var row in invoices.SelectMany(PostingColumns.RowsOf))
                csv.WriteRecord([.. columns.Select(column => HarmlessCell.Of(row[column]))]);
        }
        return text.ToString();
    }
}
