using CsvHelper;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes RFC 4180, or the same with another delimiter. Cells that a spreadsheet would run are made harmless.</summary>
internal sealed class CsvFileWriter : TextFileWriter
{
    private readonly CsvWriter csv;

    /// <param name="tables">Those whose records it holds. Headings of several tables stand above their first records each.</param>
    public CsvFileWriter(FileRule file, IReadOnlyCollection<LayoutTable> tables) : base(file)
    {
        csv = CsvWriter.Create(
            Text,
            new CsvWriterOptions { NewLine = file.LineEnd, Separator = file.Delimiter[0], Quoting = file.QuotesAll ? CsvQuoting.Always : CsvQuoting.WhenNeeded, ValidateFieldCount = false },
            leaveOpen: true);
        foreach (var table in file.HasHeadings ? tables : [])
        {
            foreach (var column in table.Columns)
                RefuseStrangers(table, column, column.Heading);
            csv.WriteRecord([.. table.Columns.Select(column => HeadingOf(column))]);
        }
    }

    public override string MediaType => $"{(File.Delimiter == "\t" ? "text/tab-separated-values" : "text/csv")}; charset={Encoding.WebName}";

    public override void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records)
    {
        foreach (var record in records)
        {
            var cells = new string[record.Values.Length];
            for (var at = 0; at < cells.Length; at++)
            {
                cells[at] = CellText.Of(record.Table.Columns[at], File, record.Values[at]);
                RefuseStrangers(record.Table, record.Table.Columns[at], cells[at]);
            }
            csv.WriteRecord(cells);
            Records++;
        }
    }

    public override byte[] End(IReadOnlyCollection<ProvedSum> sums)
    {
        csv.Dispose();
        return base.End(sums);
    }

    public override void Dispose()
    {
        csv.Dispose();
        base.Dispose();
    }

    private static string HeadingOf(LayoutColumn column) => Core.Posting.HarmlessCell.Of(column.Heading);
}
