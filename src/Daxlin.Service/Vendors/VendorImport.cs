using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;
using Daxlin.Core.Checks;
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
                var cells = columns.Select((column, at) => (column.Trim(), at < csv.FieldCount ? csv.GetString(at).Trim().TrimStart('\'') : "")).ToDictionary(cell => cell.Item1, cell => cell.Item2);
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
        using var _ = await turn.Take(cancel);
        db.ChangeTracker.Clear();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var vendor = await VendorRegister.Find(db, name, cancel);
        var revision = vendor?.Revision ?? 0;
        var (terms, areGood) = Terms(Cell(VendorFile.TermsDays), Cell(VendorFile.TermsFromMonthEnd), vendor);
        if (!areGood)
            return new ImportedVendor(row, name, "refused", $"“{Cell(VendorFile.TermsDays)}” are no days of terms, or “{Cell(VendorFile.TermsFromMonthEnd)}” is neither yes nor no.");
        var others = vendor is null ? [] : await db.VendorSpellings.Where(one => one.VendorId == vendor.Id && one.Name != vendor.Name).Select(one => one.Name).ToListAsync(cancel);
        var (kept, _, refused) = await keeping.Keep(
            vendor,
            new VendorToKeep(
                vendor is null || SeenBefore.Squash(vendor.Name) == SeenBefore.Squash(name) ? name : vendor.Name,
                [.. others, .. Several(Cell(VendorFile.OtherNames))],
                Several(Cell(VendorFile.TaxIds)) is { Length: > 0 } taxIds ? taxIds : vendor is null ? [] : [.. VendorRegister.TaxIdsOf(vendor)],
                Or(Cell(VendorFile.Currency), vendor?.Currency), terms, Or(Cell(VendorFile.LedgerAccount), vendor?.LedgerAccount), Or(Cell(VendorFile.TaxCode), vendor?.TaxCode)),
            who, cancel);
        if (kept is null)
            return new ImportedVendor(row, name, "refused", refused!.Sentence);
        foreach (var iban in Several(Cell(VendorFile.Accounts)).AddRange(Several(Cell(VendorFile.AccountsWaiting))))
        {
            var (_, unwanted) = await keeping.AddAccount(kept, new AccountToAdd(iban, "From a file of vendors"), who, cancel);
            if (unwanted is { Code: not "account-there" })
                return new ImportedVendor(row, name, "refused", unwanted.Sentence);
        }
        await transaction.CommitAsync(cancel);
        return new ImportedVendor(row, kept.Name, vendor is null ? "added" : kept.Revision == revision ? "same" : "changed", "");
    }

    private static string Or(string text, string? had) => text.Length > 0 ? text : had ?? "";

    private static ImmutableArray<string> Several(string cell) => [.. cell.Split(VendorFile.Between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(part => part.TrimStart('\''))];

    private static (TermsRecord? Terms, bool AreGood) Terms(string days, string fromMonthEnd, Vendor? vendor)
    {
        var had = vendor?.TermsDays is { } known ? new TermsRecord(known, vendor.TermsFromMonthEnd) : null;
        if (fromMonthEnd.ToLowerInvariant() is not ("" or "yes" or "no"))
            return (null, false);
        if (days.Length == 0)
            return (had, true);
        return int.TryParse(days, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? (new TermsRecord(number, fromMonthEnd.Length > 0 ? fromMonthEnd.Equals("yes", StringComparison.OrdinalIgnoreCase) : had?.FromMonthEnd ?? false), true) : (null, false);
    }
}
