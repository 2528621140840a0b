using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting;
using Daxlin.Core.Vendors;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>Takes vendors' records from a file, row by row. Columns that the file has not, and empty cells, leave what is there.</summary>
/// <remarks>
/// Accounts of a file wait for another person, whichever column they stand in: a file confirms nothing. So a file that was
/// exported and is taken in again changes nothing, since its accounts are on record.
/// </remarks>
public sealed class VendorImport(DaxlinDb db, VendorKeeping keeping, WriteTurn turn)
{
    private const int MostRows = 20_000;

    /// <returns>What became of each row; or why the file is none.</returns>
    internal async Task<(List<ImportedVendor>? Rows, Refused? Refused)> Take(string text, string who, CancellationToken cancel)
    {
        var rows = new List<ImportedVendor>();
        try
        {
            using var csv = CsvReader.FromText(text, new CsvReaderOptions { FieldCountMismatch = default });
            csv.ReadHeader();
            var columns = csv.Headers.ToArray();
            if (columns.FirstOrDefault(column => !VendorFile.Columns.Contains(column.Trim())) is { } unknown)
                return (null, Refused.Faulty("column-unknown", $"A vendor file has no column “{unknown}”; it has {string.Join(", ", VendorFile.Columns)}."));
            if (!columns.Any(column => column.Trim() == VendorFile.Name))
                return (null, Refused.Faulty("column-missing", $"The file has no column “{VendorFile.Name}” in its first line."));
            while (csv.Read())
            {
                if (rows.Count == MostRows)
                    return (rows, null);
                var cells = columns.Select((column, at) => (column.Trim(), at < csv.FieldCount ? HarmlessCell.Back(csv.GetString(at).Trim()) : "")).ToDictionary(cell => cell.Item1, cell => cell.Item2);
                rows.Add(await TakeRow(rows.Count + 1, cells, who, cancel));
            }
            return (rows, null);
        }
        catch (Exception error) when (error is CsvFormatException or ArgumentException)
        {
            return (null, Refused.Faulty("file-faulty", $"The file is no CSV that can be read, after {rows.Count.ToString(CultureInfo.InvariantCulture)} rows: {error.Message}"));
        }
    }

    private async Task<ImportedVendor> TakeRow(int row, Dictionary<string, string> cells, string who, CancellationToken cancel)
    {
        string Cell(string column) => cells.GetValueOrDefault(column, "");
        var name = Cell(VendorFile.Name);
        await using var change = await turn.Take(db, cancel);
        db.ChangeTracker.Clear();
        var vendor = await VendorRegister.Find(db, name, cancel);
        var revision = vendor?.Revision ?? 0;
        var had = vendor is null ? new VendorRecord(name, [], [], "", null, "", "") : await VendorRegister.Record(db, vendor, cancel);
        if (Terms(Cell(VendorFile.TermsDays), Cell(VendorFile.TermsFromMonthEnd), had.Terms) is not (var terms, true))
            return new ImportedVendor(row, name, "refused", $"“{Cell(VendorFile.TermsDays)}” are no days of terms, or “{Cell(VendorFile.TermsFromMonthEnd)}” is neither yes nor no.");
        var (kept, _, refused) = await keeping.Keep(
            vendor,
            new VendorRecord(
                SeenBefore.Squash(had.Name) == SeenBefore.Squash(name) ? name : had.Name, had.OtherNames.AddRange(Several(Cell(VendorFile.OtherNames))),
                Several(Cell(VendorFile.TaxIds)) is { Length: > 0 } taxIds ? taxIds : had.TaxIds,
                Or(Cell(VendorFile.Currency), had.Currency), terms, Or(Cell(VendorFile.LedgerAccount), had.LedgerAccount), Or(Cell(VendorFile.TaxCode), had.TaxCode)),
            who, cancel);
        if (kept is null)
            return new ImportedVendor(row, name, "refused", refused!.Sentence);
        foreach (var iban in Several(Cell(VendorFile.Accounts)).AddRange(Several(Cell(VendorFile.AccountsWaiting))))
        {
            if (await keeping.AddAccount(kept, new AccountToAdd(iban, "From a file of vendors"), who, cancel) is { Code: not "account-there" } unwanted)
                return new ImportedVendor(row, name, "refused", unwanted.Sentence);
        }
        await change.Commit(cancel);
        return new ImportedVendor(row, kept.Name, vendor is null ? "added" : kept.Revision == revision ? "same" : "changed", "");
    }

    private static string Or(string text, string had) => text.Length > 0 ? text : had;

    private static ImmutableArray<string> Several(string cell) => [.. cell.Split(VendorFile.Between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(HarmlessCell.Back)];

    private static (PaymentTerms? Terms, bool AreGood) Terms(string days, string fromMonthEnd, PaymentTerms? had)
    {
        if (fromMonthEnd.ToLowerInvariant() is not ("" or "yes" or "no"))
            return (null, false);
        if (days.Length == 0)
            return (had, true);
        return int.TryParse(days, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? (new PaymentTerms(number, fromMonthEnd.Length > 0 ? fromMonthEnd.Equals("yes", StringComparison.OrdinalIgnoreCase) : had?.FromMonthEnd ?? false), true) : (null, false);
    }
}
