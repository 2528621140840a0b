using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes each column at its place, a record a line.</summary>
internal sealed class FixedWidthFileWriter : TextFileWriter
{
    public FixedWidthFileWriter(FileRule file, IReadOnlyCollection<LayoutTable> tables) : base(file)
    {
        foreach (var table in file.HasHeadings ? tables : [])
        {
            foreach (var column in table.Columns)
            {
                RefuseStrangers(table, column, column.Heading);
                Text.Write((column.Heading.Length > column.Width ? column.Heading[..column.Width] : column.Heading).PadRight(column.Width));
            }
            Text.WriteLine();
        }
    }

    public override string MediaType => $"text/plain; charset={Encoding.WebName}";

    public override void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records)
    {
        foreach (var record in records)
        {
            for (var at = 0; at < record.Values.Length; at++)
            {
                var cell = CellText.Placed(record.Table.Columns[at], File, record.Values[at]);
                RefuseStrangers(record.Table, record.Table.Columns[at], cell);
                Text.Write(cell);
            }
            Text.WriteLine();
            Records++;
        }
    }
}
