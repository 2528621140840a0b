using System.Collections.Immutable;
using System.Text;
using CsvHelper;
using Daxlin.Core.Posting;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes every value that was captured as CSV, where no layout says which: RFC 4180, UTF-8, a heading row, lines ended by CR LF.</summary>
internal sealed class EveryValueFile : IDisposable
{
    private readonly MemoryStream bytes = MemoryOfFiles.New();
    private readonly StreamWriter text;
    private readonly CsvWriter csv;
    private readonly ImmutableArray<string> columns;
    private int records;

    /// <param name="columns">As <see cref="PostingColumnsSoFar"/> gathers them from all invoices of the run.</param>
    public EveryValueFile(ImmutableArray<string> columns)
    {
        this.columns = columns;
        text = new StreamWriter(bytes, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), leaveOpen: true);
        csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true);
        csv.WriteHeader(columns.AsSpan());
    }

    public void Add(IEnumerable<PostingRecord> rows)
    {
        foreach (var row in rows)
        {
            csv.WriteRecord([.. columns.Select(column => HarmlessCell.Of(row[column]))]);
            records++;
        }
    }

    public WrittenFile End(int run)
    {
        csv.Dispose();
        text.Dispose();
        return new WrittenFile($"posting-run-{run}.csv", "text/csv; charset=utf-8", Encoding.UTF8, records, bytes.ToArray());
    }

    public void Dispose()
    {
        csv.Dispose();
        text.Dispose();
        bytes.Dispose();
    }
}
