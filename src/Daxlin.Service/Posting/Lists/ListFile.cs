using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.Web;

namespace Daxlin.Service.Posting.Lists;

/// <summary>A translation list as CSV: word, meaning, and from which day on.</summary>
internal static class ListFile
{
    private static readonly string[] Columns = ["word", "meaning", "from"];

    private const int MostEntries = 50_000;

    public static string Write(IEnumerable<ListEntryRecord> entries)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            csv.WriteHeader(Columns);
            foreach (var entry in entries)
                csv.WriteRecord([HarmlessCell.Of(entry.Word), HarmlessCell.Of(entry.Meaning), entry.From]);
        }
        return text.ToString();
    }

    /// <returns>The entries, or what is wrong with the first that is.</returns>
    public static (ImmutableArray<ListEntryRecord> Entries, Refused? Refused) Read(string text)
    {
        var entries = ImmutableArray.CreateBuilder<ListEntryRecord>();
        try
        {
            using var csv = CsvReader.FromText(text, new CsvReaderOptions { FieldCountMismatch = default });
            csv.ReadHeader();
            var columns = csv.Headers.ToArray().Select(column => column.Trim()).ToList();
            if (columns.Find(column => !Columns.Contains(column)) is { } unknown)
                return ([], Refused.Faulty("column-unknown", $"A list has no column “{unknown}”; it has {string.Join(", ", Columns)}."));
            if (!columns.Contains("word") || !columns.Contains("meaning"))
                return ([], Refused.Faulty("column-missing", "The first line of a list says its columns: word, meaning, and from, which may be left out."));
            while (csv.Read())
            {
                string Cell(string column) => columns.IndexOf(column) is var at and >= 0 && at < csv.FieldCount ? HarmlessCell.Back(csv.GetString(at).Trim()) : "";
                var entry = new ListEntryRecord(Cell("word"), Cell("meaning"), Cell("from"));
                if (entry.From.Length > 0 && ExpressionType.Date.Read(entry.From) is null)
                    return ([], Refused.Faulty("entry-faulty", $"Entry {entries.Count + 1}: “{entry.From}” is no day; it is written as 2026-11-26."));
                if (entries.Count == MostEntries)
                    return ([], Refused.Faulty("too-many", $"A list has {MostEntries} entries at most."));
                entries.Add(entry);
            }
            return TranslationList.FaultOf(entries.Select(entry => entry.Entry)) is { } fault ? ([], Refused.Faulty("entry-faulty", fault)) : (entries.ToImmutable(), null);
        }
        catch (Exception error) when (error is CsvFormatException or ArgumentException)
        {
            return ([], Refused.Faulty("file-faulty", $"The file is no CSV that can be read, after {entries.Count.ToString(CultureInfo.InvariantCulture)} entries: {error.Message}"));
        }
    }
}
