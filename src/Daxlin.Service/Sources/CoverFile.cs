using System.Collections.Immutable;
using System.Text;
using CsvHelper;
using Daxlin.Core.Posting;
using Daxlin.Core.Sources;

namespace Daxlin.Service.Sources;

/// <summary>Reads a cover sheet: CSV, whatever stands between its cells.</summary>
internal static class CoverFile
{
    /// <returns>What is stated; or what is wrong with it, as a sentence.</returns>
    public static (ImmutableArray<StatedTotal> Stated, string Fault) Read(byte[] bytes)
    {
        try
        {
            using var csv = CsvReader.FromText(TextOf(bytes), new CsvReaderOptions { FieldCountMismatch = default });
            csv.ReadHeader();
            return CoverSheet.Read([.. csv.Headers.ToArray()], Rows(csv));
        }
        catch (Exception error) when (error is CsvFormatException or ArgumentException)
        {
            return ([], $"It is no CSV that can be read: {error.Message}");
        }
    }

    private static IEnumerable<IReadOnlyList<string>> Rows(CsvReader csv)
    {
        while (csv.Read())
            yield return [.. Enumerable.Range(0, csv.FieldCount).Select(csv.GetString)];
    }

    /// <summary>Spreadsheets write UTF-8, UTF-16 with a mark, or a page of Windows, in which figures and codes are the same.</summary>
    private static string TextOf(byte[] bytes)
    {
        using var reader = new StreamReader(new MemoryStream(bytes), Encoding.Latin1, detectEncodingFromByteOrderMarks: true);
        return reader.ReadToEnd();
    }
}
