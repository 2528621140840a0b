using System.Text.Json;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Values;
using Daxlin.Core.Vendors;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>A person begins or changes a vendor's record; its invoices that nobody has decided on are looked at anew.</summary>
/// <remarks>The turn to write and a transaction are taken by who asks.</remarks>
public sealed class VendorKeeping(DaxlinDb db, TimeProvider clock)
{
    /// <param name="vendor">Null for a new one.</param>
    /// <param name="wanted">Its record as it is to be.</param>
    /// <returns>The record with how many invoices are held or clear now that were not before; or why not.</returns>
    internal async Task<(Vendor? Vendor, int Moved, Refused? Refused)> Keep(Vendor? vendor, VendorRecord wanted, string who, CancellationToken cancel)
    {
        if (wanted.Settled() is not ({ } record, _))
            return (null, 0, Refused.Faulty("vendor-faulty", wanted.Settled().Fault));
        var now = clock.GetUtcNow().UtcDateTime;
        if (vendor is null)
        {
            if (await VendorRegister.Find(db, record.Name, cancel) is { } same)
                return (null, 0, Refused.Conflict("vendor-there", $"“{record.Name}” is a vendor already: {same.Name}, number {same.Id}."));
            vendor = new Vendor { Key = SeenBefore.Squash(record.Name), Name = record.Name };
            if (await db.Vendors.AnyAsync(other => other.Key == vendor.Key, cancel))
                return (null, 0, Refused.Conflict("vendor-there", $"A vendor was first known as “{record.Name}”, and goes by another name now; find it in the list."));
            db.Vendors.Add(vendor);
            await db.SaveChangesAsync(cancel);
        }
        var before = await VendorRegister.Record(db, vendor, cancel);
        if (await Spell(vendor, record, now, who, cancel) is { } taken)
            return (null, 0, taken);
        (vendor.Name, vendor.TaxIds, vendor.Currency) = (record.Name, JsonSerializer.Serialize(record.TaxIds), record.Currency);
        (vendor.TermsDays, vendor.TermsFromMonthEnd) = (record.Terms?.Days, record.Terms?.FromMonthEnd ?? false);
        (vendor.LedgerAccount, vendor.TaxCode) = (record.LedgerAccount, record.TaxCode);
        await db.SaveChangesAsync(cancel);
        if ((await VendorRegister.Record(db, vendor, cancel)).ChangesFrom(before) is not var (what, was, after))
            return (vendor, 0, null);
        await Record(vendor, what, was, after, "", who, now, cancel);
        return (vendor, await StoreFindings.RefreshVendor(db, vendor.Id, now, cancel), null);
    }

    /// <summary>Adds a bank account, which counts when another person has confirmed it.</summary>
    internal async Task<Refused?> AddAccount(Vendor vendor, AccountToAdd wanted, string who, CancellationToken cancel)
    {
        var reading = ValueReader.ReadIban(wanted.Iban ?? "");
        if (!reading.IsGood)
            return Refused.Faulty("iban-faulty", $"“{wanted.Iban}” {reading.Fault}.");
        if (Unsaid(wanted.Reason, "how you know that this account is the vendor's: whom you asked, and on which way") is { } unsaid)
            return unsaid;
        var iban = Iban.Bare(reading.Value);
        if (await Current(vendor, iban, cancel) is { } there)
        {
            return Refused.Conflict("account-there", there.ConfirmedAt is null
                ? $"{Iban.Grouped(iban)} was added by {there.AddedBy} already and waits for another person to confirm it." : $"{Iban.Grouped(iban)} is confirmed already.");
        }
        var now = clock.GetUtcNow().UtcDateTime;
        db.VendorAccounts.Add(new VendorAccount { VendorId = vendor.Id, Iban = iban, AddedAt = now, AddedBy = who, Reason = wanted.Reason!.Trim() });
        await Record(vendor, "added a bank account, to be confirmed", "", Iban.Grouped(iban), wanted.Reason.Trim(), who, now, cancel);
        return null;
    }

    /// <summary>A second person confirms an account that another one added.</summary>
    internal async Task<(int Moved, Refused? Refused)> ConfirmAccount(Vendor vendor, AccountDecision wanted, string who, CancellationToken cancel)
    {
        var iban = Iban.Bare(wanted.Iban ?? "");
        if (await Current(vendor, iban, cancel) is not { } account)
            return (0, NoAccount(vendor, wanted));
        if (account.ConfirmedAt is not null)
            return (0, Refused.Conflict("account-confirmed", $"{Iban.Grouped(iban)} is confirmed already, by {account.ConfirmedBy}."));
        if (string.Equals(account.AddedBy, who, StringComparison.OrdinalIgnoreCase))
            return (0, Refused.Conflict("second-person-needed", $"{account.AddedBy} added this account; another person must confirm it."));
        if (Unsaid(wanted.Reason, "how you know, too, that this account is the vendor's") is { } unsaid)
            return (0, unsaid);
        var now = clock.GetUtcNow().UtcDateTime;
        (account.ConfirmedAt, account.ConfirmedBy) = (now, who);
        await Record(vendor, $"confirmed the bank account that {account.AddedBy} added", "", Iban.Grouped(iban), wanted.Reason!.Trim(), who, now, cancel);
        return (await StoreFindings.RefreshVendor(db, vendor.Id, now, cancel), null);
    }

    /// <summary>Says that an account is none of the vendor's any more, or never was.</summary>
    internal async Task<(int Moved, Refused? Refused)> EndAccount(Vendor vendor, AccountDecision wanted, string who, CancellationToken cancel)
    {
        var iban = Iban.Bare(wanted.Iban ?? "");
        if (await Current(vendor, iban, cancel) is not { } account)
            return (0, NoAccount(vendor, wanted));
        if (Unsaid(wanted.Reason, "why this account is ended") is { } unsaid)
            return (0, unsaid);
        var now = clock.GetUtcNow().UtcDateTime;
        (account.EndedAt, account.EndedBy) = (now, who);
        await Record(vendor, "ended a bank account", Iban.Grouped(iban), "", wanted.Reason!.Trim(), who, now, cancel);
        return (await StoreFindings.RefreshVendor(db, vendor.Id, now, cancel), null);
    }

    private Task<VendorAccount?> Current(Vendor vendor, string iban, CancellationToken cancel) =>
        db.VendorAccounts.SingleOrDefaultAsync(account => account.VendorId == vendor.Id && account.Iban == iban && account.EndedAt == null, cancel);

    private static Refused NoAccount(Vendor vendor, AccountDecision wanted) => Refused.Conflict("account-unknown", $"{vendor.Name} has no account “{wanted.Iban}” on record.");

    private static Refused? Unsaid(string? reason, string what) => Reason.SaysSomething(reason ?? "") ? null
        : Refused.Faulty(CorrectionFault.ReasonMissing, $"Say {what}, in words of {Reason.FewestLetters} letters at least; it is kept on record.");

    private async Task Record(Vendor vendor, string what, string before, string after, string reason, string who, DateTime now, CancellationToken cancel)
    {
        vendor.Revision++;
        await HistoryLog.Record(db, new Deed(HistoryStreams.Vendor(vendor.Id), now, who, HistoryActs.VendorChanged, what) { Before = before, After = after, Reason = reason }, cancel);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Gives the vendor its names. One that another vendor goes by is taken over with that vendor's invoices, if nothing is on its record.</summary>
    private async Task<Refused?> Spell(Vendor vendor, VendorRecord record, DateTime now, string who, CancellationToken cancel)
    {
        var wanted = record.Names.ToDictionary(SeenBefore.Squash);
        var had = await db.VendorSpellings.Where(spelling => spelling.VendorId == vendor.Id).ToListAsync(cancel);
        foreach (var gone in had.Where(spelling => !wanted.ContainsKey(spelling.Key)))
        {
            var users = (await TemplateVersions.Newest(db).Select(template => new { template.Name, template.Vendor }).ToListAsync(cancel)).FindAll(template => SeenBefore.Squash(template.Vendor) == gone.Key);
            if (users.Count > 0)
                return Refused.Conflict("name-in-use", $"The template {users[0].Name} calls the vendor “{gone.Name}”, so that spelling must stay on its record.");
            db.VendorSpellings.Remove(gone);
        }
        foreach (var (key, name) in wanted)
        {
            if (had.Find(spelling => spelling.Key == key) is { } own)
            {
                own.Name = name;
                continue;
            }
            if (await db.VendorSpellings.SingleOrDefaultAsync(spelling => spelling.Key == key, cancel) is { } other)
            {
                if (await TakeOver(vendor, await db.Vendors.SingleAsync(one => one.Id == other.VendorId, cancel), now, who, cancel) is { } refused)
                    return refused;
            }
            else
            {
                db.VendorSpellings.Add(new VendorSpelling { Key = key, VendorId = vendor.Id, Name = name });
            }
        }
        return null;
    }

    private async Task<Refused?> TakeOver(Vendor vendor, Vendor other, DateTime now, string who, CancellationToken cancel)
    {
        if (!VendorRegister.RecordOf(other, []).IsBare || await db.VendorAccounts.AnyAsync(account => account.VendorId == other.Id, cancel))
            return Refused.Conflict("name-taken", $"“{other.Name}” is a vendor with a record of its own, number {other.Id}. Empty that record first if both are one vendor.");
        var begins = other.Key.Length;
#pragma warning disable CA1845 // The database knows Substring, and no spans.
        await db.Invoices.Where(invoice => invoice.VendorId == other.Id).ExecuteUpdateAsync(
            set => set.SetProperty(invoice => invoice.VendorId, vendor.Id)
                .SetProperty(invoice => invoice.SeenKey, invoice => invoice.SeenKey == "" ? "" : vendor.Key + invoice.SeenKey.Substring(begins))
                .SetProperty(invoice => invoice.LikeKey, invoice => invoice.LikeKey == "" ? "" : vendor.Key + invoice.LikeKey.Substring(begins)),
            cancel);
#pragma warning restore CA1845
        foreach (var spelling in await db.VendorSpellings.Where(spelling => spelling.VendorId == other.Id).ToListAsync(cancel))
            spelling.VendorId = vendor.Id;
        await db.SaveChangesAsync(cancel);
        await HistoryLog.Record(
            db, new Deed(HistoryStreams.Vendor(other.Id), now, who, HistoryActs.VendorChanged, $"became one with vendor {vendor.Id}") { Before = other.Name, After = vendor.Name }, cancel);
        db.Vendors.Remove(other);
        await db.SaveChangesAsync(cancel);
        return null;
    }
}
