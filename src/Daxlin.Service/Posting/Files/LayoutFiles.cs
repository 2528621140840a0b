using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes what a layout makes of invoices into its files: one a run, a vendor or an invoice, and one a table if their names say so.</summary>
internal sealed class LayoutFiles(PostingLayout layout, RunFacts run) : IDisposable
{
    private readonly Dictionary<string, LayoutWriter> open = [];

    private readonly LayoutFileNames names = new(layout.File, run);

    /// <exception cref="UnwritableException">Something of it has no place in its file.</exception>
    public void Add(LaidOutInvoice invoice)
    {
        foreach (var tables in layout.File.PartsTables ? layout.Tables.Select(table => new[] { table }) : [[.. layout.Tables]])
        {
            var name = names.Of(invoice.Invoice, tables[0]);
            if (!open.TryGetValue(name, out var writer))
                open[name] = writer = WriterOf(layout.File, tables);
            writer.Add(invoice, invoice.Records.Where(record => tables.Contains(record.Table)));
        }
    }

    public List<WrittenFile> End(IReadOnlyCollection<ProvedSum> sums) =>
        [.. open.Select(file => new WrittenFile(file.Key, file.Value.MediaType, file.Value.Encoding, file.Value.Records, file.Value.End(sums)))];

    public void Dispose()
    {
        foreach (var writer in open.Values)
            writer.Dispose();
    }

    private static LayoutWriter WriterOf(FileRule file, IReadOnlyCollection<LayoutTable> tables) => file.Format switch
    {
        FileFormat.FixedWidth => new FixedWidthFileWriter(file, tables),
        FileFormat.Xlsx => new XlsxFileWriter(tables),
        FileFormat.Json or FileFormat.Ndjson => new JsonFileWriter(file, tables),
        FileFormat.Ubl => new UblFileWriter(),
        _ => new CsvFileWriter(file, tables),
    };
}
