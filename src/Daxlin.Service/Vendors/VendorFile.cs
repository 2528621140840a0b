using System.Globalization;
using CsvHelper;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>Vendors' records as CSV: RFC 4180, UTF-8, a heading row. Several names, numbers or accounts in a cell are parted by a bar.</summary>
internal static class VendorFile
{
    public const string Name = "name";
    public const string OtherNames = "otherNames";
    public const string TaxIds = "taxIds";
    public const string Currency = "currency";
    public const string TermsDays = "termsDays";
    public const string TermsFromMonthEnd = "termsFromMonthEnd";
    public const string LedgerAccount = "ledgerAccount";
    public const string TaxCode = "taxCode";
    public const string Accounts = "accounts";
    public const string AccountsWaiting = "accountsWaiting";

    public static readonly string[] Columns = [Name, OtherNames, TaxIds, Currency, TermsDays, TermsFromMonthEnd, LedgerAccount, TaxCode, Accounts, AccountsWaiting];

    public const char Between = '|';

    public static async Task<string> Write(DaxlinDb db, CancellationToken cancel)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            csv.WriteHeader(Columns);
            var spellings = (await db.VendorSpellings.AsNoTracking().OrderBy(one => one.Name).ToListAsync(cancel)).ToLookup(one => one.VendorId);
            var accounts = (await db.VendorAccounts.AsNoTracking().Where(one => one.EndedAt == null).OrderBy(one => one.Id).ToListAsync(cancel)).ToLookup(one => one.VendorId);
            foreach (var vendor in await db.Vendors.AsNoTracking().OrderBy(one => one.Name).ThenBy(one => one.Id).ToListAsync(cancel))
            {
                var record = VendorRegister.RecordOf(vendor, spellings[vendor.Id].Select(one => one.Name).Where(name => name != vendor.Name));
                csv.WriteRecord(
                [
                    HarmlessCell.Of(record.Name), Joined(record.OtherNames), Joined(record.TaxIds), record.Currency,
                    record.Terms?.Days.ToString(CultureInfo.InvariantCulture) ?? "", record.Terms is null ? "" : record.Terms.FromMonthEnd ? "yes" : "no",
                    HarmlessCell.Of(record.LedgerAccount), HarmlessCell.Of(record.TaxCode),
                    Joined(accounts[vendor.Id].Where(one => one.ConfirmedAt is not null).Select(one => Iban.Grouped(one.Iban))),
                    Joined(accounts[vendor.Id].Where(one => one.ConfirmedAt is null).Select(one => Iban.Grouped(one.Iban))),
                ]);
            }
        }
        return text.ToString();
    }

    private static string Joined(IEnumerable<string> parts) => string.Join($" {Between} ", parts.Select(HarmlessCell.Of));
}
