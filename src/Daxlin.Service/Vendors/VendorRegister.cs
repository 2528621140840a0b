using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Checks;
using Daxlin.Core.History;
using Daxlin.Core.Templates;
using Daxlin.Core.Vendors;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>Finds a vendor's record by any name it goes by, and begins one for a name that none has.</summary>
/// <remarks>To be called under the turn to write: a record may be begun.</remarks>
internal static class VendorRegister
{
    /// <summary>So many approved numbers are looked at for their form.</summary>
    private const int NumbersBefore = 50;

    public static async Task<Vendor> Of(DaxlinDb db, string name, DateTime at, CancellationToken cancel)
    {
        var key = SeenBefore.Squash(name);
        var known = await Find(db, name, cancel);
        if (known is not null)
            return known;
        var vendor = new Vendor { Key = key, Name = name };
        db.Vendors.Add(vendor);
        await db.SaveChangesAsync(cancel);
        db.VendorSpellings.Add(new VendorSpelling { Key = key, VendorId = vendor.Id, Name = name });
        await HistoryLog.Record(db, new Deed(HistoryStreams.Vendor(vendor.Id), at, Deed.Daxlin, HistoryActs.VendorChanged, "began the record") { After = name }, cancel);
        await db.SaveChangesAsync(cancel);
        return vendor;
    }

    public static async Task<Vendor?> Find(DaxlinDb db, string name, CancellationToken cancel)
    {
        var key = SeenBefore.Squash(name);
        return await db.Vendors.SingleOrDefaultAsync(vendor => db.VendorSpellings.Any(spelling => spelling.Key == key && spelling.VendorId == vendor.Id), cancel);
    }

    /// <summary>Gives a record to every vendor whose templates or invoices an earlier release stored without one.</summary>
    public static async Task FillIn(DaxlinDb db, DateTime at)
    {
        var names = await db.Templates.Select(template => template.Vendor)
            .Union(db.Invoices.Where(invoice => invoice.VendorId == null).Select(invoice => invoice.Vendor)).Distinct().ToListAsync();
        foreach (var name in names.Where(name => SeenBefore.Squash(name).Length > 0))
            await Of(db, name, at, default);
        // All invoices of a name that stands on a record as it is, in one pass; of other spellings there are few.
        var open = db.Invoices.Where(invoice => invoice.VendorId == null && invoice.Vendor != "");
        if (!await open.AnyAsync())
            return;
        await open.ExecuteUpdateAsync(set => set.SetProperty(
            invoice => invoice.VendorId, invoice => db.VendorSpellings.Where(spelling => spelling.Name == invoice.Vendor).Select(spelling => (int?)spelling.VendorId).FirstOrDefault()));
        foreach (var name in await open.Select(invoice => invoice.Vendor).Distinct().ToListAsync())
        {
            if (await Find(db, name, default) is { } vendor)
                await open.Where(invoice => invoice.Vendor == name).ExecuteUpdateAsync(set => set.SetProperty(invoice => invoice.VendorId, vendor.Id));
        }
    }

    /// <summary>What is on record of a vendor.</summary>
    public static async Task<VendorRecord> Record(DaxlinDb db, Vendor vendor, CancellationToken cancel)
    {
        var spellings = await db.VendorSpellings.Where(spelling => spelling.VendorId == vendor.Id && spelling.Name != vendor.Name).OrderBy(spelling => spelling.Name).Select(spelling => spelling.Name).ToListAsync(cancel);
        return RecordOf(vendor, spellings);
    }

    /// <param name="otherNames">Its spellings but its own name.</param>
    public static VendorRecord RecordOf(Vendor vendor, IEnumerable<string> otherNames) => new(
        vendor.Name, [.. otherNames], JsonSerializer.Deserialize<ImmutableArray<string>>(vendor.TaxIds), vendor.Currency,
        vendor.TermsDays is { } days ? new PaymentTerms(days, vendor.TermsFromMonthEnd) : null, vendor.LedgerAccount, vendor.TaxCode);

    /// <summary>What of a vendor speaks for or against its invoices.</summary>
    public static async Task<VendorFacts> Facts(DaxlinDb db, Vendor vendor, CancellationToken cancel)
    {
        var accounts = await db.VendorAccounts.Where(account => account.VendorId == vendor.Id && account.ConfirmedAt != null).OrderBy(account => account.Id).ToListAsync(cancel);
        var ofVendor = db.Invoices.Where(invoice => invoice.VendorId == vendor.Id);
        var approved = ofVendor.Where(invoice => invoice.State == InvoiceState.Approved || invoice.State == InvoiceState.Posted);
        var numbers = await approved.OrderByDescending(invoice => invoice.Id).Select(invoice => invoice.InvoiceNumber).Take(NumbersBefore).ToListAsync(cancel);
        // A tax that does not come out at all tells nothing.
        var roundings = await approved.Where(invoice => invoice.TaxRounding != TaxRoundings.None).Select(invoice => invoice.TaxRounding).Distinct().ToListAsync(cancel);
        return new VendorFacts(
            await Record(db, vendor, cancel), [.. accounts.Where(account => account.EndedAt is null).Select(account => account.Iban)],
            accounts.Count > 0 ? [] : [.. await AccountsBefore(ofVendor, approved, cancel)], accounts.Count > 0, [.. numbers])
        {
            TaxRounding = roundings.Aggregate(TaxRoundings.Any, (all, one) => all & one),
        };
    }

    /// <summary>The accounts that approved invoices bear; while none is approved, that of the first that was taken in.</summary>
    private static async Task<List<string>> AccountsBefore(IQueryable<Invoice> ofVendor, IQueryable<Invoice> approved, CancellationToken cancel)
    {
        var paid = await approved.Where(invoice => invoice.Iban != "").Select(invoice => invoice.Iban).Distinct().ToListAsync(cancel);
        return paid.Count > 0 ? paid
            : await ofVendor.Where(invoice => invoice.Iban != "" && invoice.State != InvoiceState.Returned)
                .OrderBy(invoice => invoice.IntakeId).ThenBy(invoice => invoice.FirstPage).Select(invoice => invoice.Iban).Take(1).ToListAsync(cancel);
    }
}
