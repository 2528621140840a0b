using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Values;
using Daxlin.Core.Vendors;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>A person begins or changes a vendor's record; its invoices that nobody has decided on are looked at anew.</summary>
/// <remarks>The turn to write and a transaction are taken by who asks.</remarks>
public sealed class VendorKeeping(DaxlinDb db, TimeProvider clock)
{
    private const int LongestName = 200;
    private const int LongestCode = 50;
    private const int MostNames = 50;

    /// <param name="vendor">Null for a new one.</param>
    /// <returns>The record with how many invoices are held or clear now that were not before; or why not.</returns>
    internal async Task<(Vendor? Vendor, int Moved, Refused? Refused)> Keep(Vendor? vendor, VendorToKeep wanted, string who, CancellationToken cancel)
    {
        var (facts, fault) = Read(wanted);
        if (facts is null)
            return (null, 0, fault);
        var now = clock.GetUtcNow().UtcDateTime;
        if (vendor is null)
        {
            if (await VendorRegister.Find(db, facts.Name, cancel) is { } same)
                return (null, 0, Refused.Conflict("vendor-there", $"“{facts.Name}” is a vendor already: {same.Name}, number {same.Id}."));
            vendor = new Vendor { Key = SeenBefore.Squash(facts.Name), Name = facts.Name };
            if (await db.Vendors.AnyAsync(other => other.Key == vendor.Key, cancel))
                return (null, 0, Refused.Conflict("vendor-there", $"A vendor was first known as “{facts.Name}”, and goes by another name now; find it in the list."));
            db.Vendors.Add(vendor);
            await db.SaveChangesAsync(cancel);
        }
        var before = Told(vendor, await NamesOf(vendor, cancel));
        if (await Spell(vendor, facts, now, who, cancel) is { } taken)
            return (null, 0, taken);
        (vendor.Name, vendor.TaxIds, vendor.Currency) = (facts.Name, JsonSerializer.Serialize(facts.TaxIds), facts.Currency);
        (vendor.TermsDays, vendor.TermsFromMonthEnd) = (facts.Terms?.Days, facts.Terms?.FromMonthEnd ?? false);
        (vendor.LedgerAccount, vendor.TaxCode) = (facts.LedgerAccount, facts.TaxCode);
        await db.SaveChangesAsync(cancel);
        var after = Told(vendor, await NamesOf(vendor, cancel));
        var changed = after.Where(part => before.GetValueOrDefault(part.Key, "") != part.Value).Select(part => part.Key).ToList();
        if (changed.Count == 0)
            return (vendor, 0, null);
        await Record(vendor, $"changed {string.Join(", ", changed)}", Together(before, changed), Together(after, changed), "", who, now, cancel);
        return (vendor, await StoreFindings.RefreshVendor(db, vendor.Id, now, cancel), null);
    }

    /// <summary>Adds a bank account, which counts when another person has confirmed it.</summary>
    internal async Task<(int Moved, Refused? Refused)> AddAccount(Vendor vendor, AccountToAdd wanted, string who, CancellationToken cancel)
    {
        var reading = ValueReader.ReadIban(wanted.Iban ?? "");
        if (!reading.IsGood)
            return (0, Refused.Faulty("iban-faulty", $"“{wanted.Iban}” {reading.Fault}."));
        if (Unsaid(wanted.Reason, "how you know that this account is the vendor's: whom you asked, and on which way") is { } unsaid)
            return (0, unsaid);
        var iban = SeenBefore.Squash(reading.Value);
        if (await Current(vendor, iban, cancel) is { } there)
        {
            return (0, Refused.Conflict("account-there", there.ConfirmedAt is null
                ? $"{VendorChecks.Grouped(iban)} was added by {there.AddedBy} already and waits for another person to confirm it." : $"{VendorChecks.Grouped(iban)} is confirmed already."));
        }
        var now = clock.GetUtcNow().UtcDateTime;
        db.VendorAccounts.Add(new VendorAccount { VendorId = vendor.Id, Iban = iban, AddedAt = now, AddedBy = who, Reason = wanted.Reason!.Trim() });
        await Record(vendor, "added a bank account, to be confirmed", "", VendorChecks.Grouped(iban), wanted.Reason.Trim(), who, now, cancel);
        return (0, null);
    }

    /// <summary>A second person confirms an account that another one added.</summary>
    internal async Task<(int Moved, Refused? Refused)> ConfirmAccount(Vendor vendor, AccountDecision wanted, string who, CancellationToken cancel)
    {
        var iban = SeenBefore.Squash(wanted.Iban ?? "");
        if (await Current(vendor, iban, cancel) is not { } account)
            return (0, NoAccount(vendor, wanted));
        if (account.ConfirmedAt is not null)
            return (0, Refused.Conflict("account-confirmed", $"{VendorChecks.Grouped(iban)} is confirmed already, by {account.ConfirmedBy}."));
        if (string.Equals(account.AddedBy, who, StringComparison.OrdinalIgnoreCase))
            return (0, Refused.Conflict("second-person-needed", $"{account.AddedBy} added this account; another person must confirm it."));
        if (Unsaid(wanted.Reason, "how you know, too, that this account is the vendor's") is { } unsaid)
            return (0, unsaid);
        var now = clock.GetUtcNow().UtcDateTime;
        (account.ConfirmedAt, account.ConfirmedBy) = (now, who);
        await Record(vendor, $"confirmed the bank account that {account.AddedBy} added", "", VendorChecks.Grouped(iban), wanted.Reason!.Trim(), who, now, cancel);
        return (await StoreFindings.RefreshVendor(db, vendor.Id, now, cancel), null);
    }

    /// <summary>Says that an account is none of the vendor's any more, or never was.</summary>
    internal async Task<(int Moved, Refused? Refused)> EndAccount(Vendor vendor, AccountDecision wanted, string who, CancellationToken cancel)
    {
        var iban = SeenBefore.Squash(wanted.Iban ?? "");
        if (await Current(vendor, iban, cancel) is not { } account)
            return (0, NoAccount(vendor, wanted));
        if (Unsaid(wanted.Reason, "why this account is ended") is { } unsaid)
            return (0, unsaid);
        var now = clock.GetUtcNow().UtcDateTime;
        (account.EndedAt, account.EndedBy) = (now, who);
        await Record(vendor, "ended a bank account", VendorChecks.Grouped(iban), "", wanted.Reason!.Trim(), who, now, cancel);
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

    private static (Facts? Facts, Refused? Fault) Read(VendorToKeep wanted)
    {
        (Facts?, Refused?) No(string sentence) => (null, Refused.Faulty("vendor-faulty", sentence));
        var name = wanted.Name?.Trim() ?? "";
        if (SeenBefore.Squash(name).Length == 0 || name.Length > LongestName)
            return No($"A vendor's name has letters or figures, and at most {LongestName} characters.");
        ImmutableArray<string> others = [.. (wanted.OtherNames ?? []).Select(other => other.Trim()).Where(other => other.Length > 0).DistinctBy(SeenBefore.Squash).Where(other => SeenBefore.Squash(other) != SeenBefore.Squash(name))];
        if (others.Length > MostNames || others.Any(other => other.Length > LongestName || SeenBefore.Squash(other).Length == 0))
            return No($"A vendor has at most {MostNames} other spellings, each with letters or figures and at most {LongestName} characters.");
        ImmutableArray<string> taxIds = [.. (wanted.TaxIds ?? []).Select(id => id.Trim()).Where(id => id.Length > 0).DistinctBy(TaxIdentifier.Bare)];
        if (taxIds.Length > MostNames || taxIds.Any(id => id.Length > LongestCode || TaxIdentifier.Bare(id).Length == 0))
            return No($"A tax number has figures or letters, and at most {LongestCode} characters.");
        if (taxIds.FirstOrDefault(TaxIdentifier.IsFaulty) is { } faulty)
            return No($"The check digits of the tax number {faulty} do not come out: one of its figures is wrong.");
        var currency = wanted.Currency?.Trim().ToUpperInvariant() ?? "";
        if (currency.Length > 0 && Currency.Find(currency) is null)
            return No($"“{wanted.Currency}” is no currency of ISO 4217; one is EUR.");
        if (wanted.Terms is { Days: < 0 or > PaymentTerms.MostDays })
            return No($"Terms are 0 to {PaymentTerms.MostDays} days.");
        var (ledger, taxCode) = (wanted.LedgerAccount?.Trim() ?? "", wanted.TaxCode?.Trim() ?? "");
        if (ledger.Length > LongestCode || taxCode.Length > LongestCode)
            return No($"A ledger account and a tax code have at most {LongestCode} characters.");
        return (new Facts(name, others, taxIds, currency, wanted.Terms is { } terms ? new PaymentTerms(terms.Days, terms.FromMonthEnd) : null, ledger, taxCode), null);
    }

    /// <summary>Gives the vendor its names. One that another vendor goes by is taken over with that vendor's invoices, if nothing is on its record.</summary>
    private async Task<Refused?> Spell(Vendor vendor, Facts facts, DateTime now, string who, CancellationToken cancel)
    {
        var wanted = facts.OtherNames.Insert(0, facts.Name).ToDictionary(SeenBefore.Squash);
        var had = await db.VendorSpellings.Where(spelling => spelling.VendorId == vendor.Id).ToListAsync(cancel);
        foreach (var gone in had.Where(spelling => !wanted.ContainsKey(spelling.Key)))
        {
            var newest = db.Templates.Where(template => !template.IsRetired && template.Version == db.Templates.Where(other => other.Name == template.Name).Max(other => other.Version));
            var users = (await newest.Select(template => new { template.Name, template.Vendor }).ToListAsync(cancel)).FindAll(template => SeenBefore.Squash(template.Vendor) == gone.Key);
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
        if (other is not { TaxIds: "[]", Currency: "", TermsDays: null, LedgerAccount: "", TaxCode: "" } || await db.VendorAccounts.AnyAsync(account => account.VendorId == other.Id, cancel))
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

    private async Task<ImmutableArray<string>> NamesOf(Vendor vendor, CancellationToken cancel) =>
        [.. await db.VendorSpellings.Where(spelling => spelling.VendorId == vendor.Id && spelling.Name != vendor.Name).OrderBy(spelling => spelling.Name).Select(spelling => spelling.Name).ToListAsync(cancel)];

    /// <summary>The record part by part, as the history tells it.</summary>
    private static Dictionary<string, string> Told(Vendor vendor, ImmutableArray<string> names) => new()
    {
        ["name"] = vendor.Name,
        ["other spellings"] = string.Join(" or ", names),
        ["tax numbers"] = string.Join(" or ", VendorRegister.TaxIdsOf(vendor)),
        ["currency"] = vendor.Currency,
        ["terms"] = vendor.TermsDays is { } days ? new PaymentTerms(days, vendor.TermsFromMonthEnd).ToString() : "",
        ["ledger account"] = vendor.LedgerAccount,
        ["tax code"] = vendor.TaxCode,
    };

    private static string Together(Dictionary<string, string> parts, List<string> changed) =>
        string.Join("; ", changed.Select(part => string.Create(CultureInfo.InvariantCulture, $"{part}: {(parts.GetValueOrDefault(part) is { Length: > 0 } text ? text : "nothing")}")));

    private sealed record Facts(string Name, ImmutableArray<string> OtherNames, ImmutableArray<string> TaxIds, string Currency, PaymentTerms? Terms, string LedgerAccount, string TaxCode);
}
