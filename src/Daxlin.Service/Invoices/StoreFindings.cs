using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;
using Daxlin.Core.Vendors;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Daxlin.Service.Vendors;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>Holds invoices against which others, or their vendor's record, have something to say, or whose lines lack a code; and codes them.</summary>
/// <remarks>
/// First come is first: the original is the one whose document was taken in first, whichever was captured first, so a
/// capture done again never makes it the double of its own copy. One that was set aside holds nothing. One that a person
/// has decided on stays as decided.
/// </remarks>
internal sealed class StoreFindings
{
    private readonly DaxlinDb db;
    private readonly DateTime at;
    private readonly CancellationToken cancel;
    private readonly Dictionary<int, (Vendor Vendor, VendorFacts Facts)> vendors = [];
    private CodingFacts? facts;

    private StoreFindings(DaxlinDb db, DateTime at, CancellationToken cancel) => (this.db, this.at, this.cancel) = (db, at, cancel);

    /// <summary>Finds anew what is said against invoices that came or changed, and against those on which they have a say.</summary>
    /// <param name="db">Its open changes are stored, before it looks and after.</param>
    /// <param name="rows">Those that came or changed.</param>
    /// <param name="before">By what others were found before, also of those that are gone.</param>
    /// <param name="at">Now.</param>
    public static async Task Refresh(DaxlinDb db, IReadOnlyCollection<Invoice> rows, IEnumerable<InvoiceKeys> before, DateTime at, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        var findings = new StoreFindings(db, at, cancel);
        foreach (var row in rows)
            await findings.Place(row);
        await db.SaveChangesAsync(cancel);
        var concerned = new HashSet<Invoice>(rows.Where(IsOpen));
        var all = before.Concat(rows.Select(InvoiceKeys.Of)).Distinct().ToList();
        foreach (var keys in all)
            concerned.UnionWith(await findings.ConcernedBy(keys));
        foreach (var vendor in all.Select(keys => keys.VendorId).OfType<int>().Distinct())
            concerned.UnionWith(await findings.HeldWrongly(vendor));
        foreach (var row in concerned)
            await findings.Weigh(row);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Finds anew what a vendor's record says against its invoices that nobody has decided on.</summary>
    /// <returns>How many of them are held or clear now that were not before.</returns>
    public static async Task<int> RefreshVendor(DaxlinDb db, int vendor, DateTime at, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        var findings = new StoreFindings(db, at, cancel);
        var rows = await findings.Undecided.Where(row => row.VendorId == vendor).ToListAsync(cancel);
        var before = rows.ConvertAll(row => row.State);
        foreach (var row in rows)
        {
            await findings.Place(row);
            await findings.Weigh(row);
        }
        await db.SaveChangesAsync(cancel);
        return rows.Where((row, at) => row.State != before[at]).Count();
    }

    /// <summary>Codes invoices anew that were coded by other rules, lists or layouts than there are now.</summary>
    /// <param name="most">So many at most.</param>
    /// <returns>How many were; fewer than <paramref name="most"/> where none is left.</returns>
    public static async Task<int> RefreshCoding(DaxlinDb db, int most, DateTime at, CancellationToken cancel)
    {
        var facts = await CodingFacts.Load(db, cancel);
        var findings = new StoreFindings(db, at, cancel) { facts = facts };
        var rows = await findings.Undecided.Where(row => row.CodedBy != facts.Basis).OrderBy(row => row.Id).Take(most).ToListAsync(cancel);
        foreach (var row in rows)
            await findings.Weigh(row);
        await db.SaveChangesAsync(cancel);
        return rows.Count;
    }

    /// <summary>Codes one invoice anew if it was coded by something else than there is now.</summary>
    /// <returns>Whether it is another one since.</returns>
    public static async Task<bool> CodeAnew(DaxlinDb db, Invoice row, DateTime at, CancellationToken cancel)
    {
        if (!IsOpen(row) || row.CodedBy == await CodingFacts.BasisOf(db, cancel))
            return false;
        var before = row.Record;
        await new StoreFindings(db, at, cancel).Weigh(row);
        await db.SaveChangesAsync(cancel);
        return row.Record != before;
    }

    private static bool IsOpen(Invoice row) => row.State is InvoiceState.Held or InvoiceState.Clear;

    /// <summary>Finds the vendor's record, and works out by what an invoice is found.</summary>
    private async Task Place(Invoice row)
    {
        if (row.Vendor.Length == 0 || SeenBefore.Squash(row.Vendor).Length == 0)
        {
            (row.VendorId, row.SeenKey, row.LikeKey, row.Iban) = (null, "", "", "");
            return;
        }
        var vendor = row.VendorId is { } known && vendors.TryGetValue(known, out var had) && had.Vendor.Name == row.Vendor ? had.Vendor
            : await VendorRegister.Of(db, row.Vendor, at, cancel);
        row.VendorId = vendor.Id;
        row.SeenKey = row.InvoiceNumber.Length == 0 ? "" : SeenBefore.Key(vendor.Key, row.InvoiceNumber);
        if (Stated(row) is { } stated)
            (row.LikeKey, row.Iban) = (LikeBefore.Key(vendor.Key, stated.Currency, stated.Total, stated.IsCreditNote), stated.Iban);
    }

    public static StatedFacts? Stated(Invoice row) => row.Stated.Length == 0 ? null : JsonSerializer.Deserialize<StatedFacts>(row.Stated);

    private IQueryable<Invoice> Undecided => db.Invoices.Include(row => row.Intake).Where(row => row.State == InvoiceState.Held || row.State == InvoiceState.Clear);

    private async Task<List<Invoice>> ConcernedBy(InvoiceKeys keys)
    {
        var concerned = new List<Invoice>();
        if (keys.Seen.Length > 0)
            concerned.AddRange(await Undecided.Where(row => row.SeenKey == keys.Seen).ToListAsync(cancel));
        if (keys.Like.Length > 0)
        {
            var like = (await OtherInvoice.Of(Undecided.Where(row => row.LikeKey == keys.Like)).ToListAsync(cancel)).FindAll(other => other.IsLike(keys.Number, keys.Date)).ConvertAll(other => other.Id);
            concerned.AddRange(await Undecided.Where(row => like.Contains(row.Id)).ToListAsync(cancel));
        }
        return concerned;
    }

    /// <summary>Invoices of a vendor that may be held otherwise now than they are, since others came or went.</summary>
    private async Task<List<Invoice>> HeldWrongly(int vendor)
    {
        var ofVendor = Undecided.Where(row => row.VendorId == vendor);
        // What a credit note credits may have come.
        var wrongly = await ofVendor.Where(row => row.IsCreditNote).ToListAsync(cancel);
        // The vendor's account may be another one: that of its first invoice is, while nothing else is known.
        var (_, facts) = await VendorOf(vendor);
        var borne = await ofVendor.Where(row => row.Iban != "").Select(row => new { row.Iban, IsHeld = row.HeldBy.Contains(VendorChecks.AccountChanged) }).Distinct().ToListAsync(cancel);
        foreach (var account in borne.Where(one => one.IsHeld != facts.IsForeign(one.Iban)))
            wrongly.AddRange(await ofVendor.Where(row => row.Iban == account.Iban && row.HeldBy.Contains(VendorChecks.AccountChanged) == account.IsHeld).ToListAsync(cancel));
        return wrongly;
    }

    private async Task Weigh(Invoice row)
    {
        if (db.Entry(row).Reference(one => one.Intake) is { CurrentValue: null } intake)
            await intake.LoadAsync(cancel);
        var found = new List<Finding>();
        var first = await Double(row);
        if (first is not null)
            found.Add(first);
        if (Stated(row) is { } stated && row.VendorId is { } id)
        {
            var (vendor, facts) = await VendorOf(id);
            if (first is null && await Like(row) is { } like)
                found.Add(like);
            found.AddRange(VendorChecks.Of(stated, facts));
            if (DateRange.FindingOf(stated.Date, DateOnly.FromDateTime(row.Intake.ReceivedAt)) is { } date)
                found.Add(date);
            if (stated.IsCreditNote && await Credit(row, stated, vendor) is { } credit)
                found.Add(credit);
        }
        await Set(row, found);
    }

    private async Task<(Vendor Vendor, VendorFacts Facts)> VendorOf(int id)
    {
        if (!vendors.TryGetValue(id, out var known))
        {
            var vendor = await db.Vendors.SingleAsync(one => one.Id == id, cancel);
            vendors[id] = known = (vendor, await VendorRegister.Facts(db, vendor, cancel));
        }
        return known;
    }

    private async Task<Finding?> Double(Invoice row)
    {
        if (row.SeenKey.Length == 0 || (await Others(db.Invoices.Where(other => other.SeenKey == row.SeenKey), row)).Find(other => other.ComesBefore(row)) is not { } first)
            return null;
        return row.Intake.Sha256 == first.Sha256
            ? Finding.Hold(SeenBefore.SameFile, $"This is the same file as {first.FileName}, {await PlaceOf(first)}.", TradeNames.InvoiceNumber)
            : SeenBefore.ToFinding(row.Vendor, row.InvoiceNumber, $"it is {await PlaceOf(first)}");
    }

    private async Task<Finding?> Like(Invoice row)
    {
        if (row.LikeKey.Length == 0
            || (await Others(db.Invoices.Where(other => other.LikeKey == row.LikeKey && other.SeenKey != row.SeenKey), row))
                .Find(other => other.ComesBefore(row) && other.IsLike(row.InvoiceNumber, row.InvoiceDate)) is not { } first)
            return null;
        var isSameDay = row.InvoiceDate.Length > 0 && first.Date == row.InvoiceDate;
        return LikeBefore.ToFinding(row.Vendor, row.InvoiceNumber, Money(row), isSameDay ? row.InvoiceDate : "", first.Number, await PlaceOf(first));
    }

    /// <summary>Other invoices that were not returned, the first taken in first.</summary>
    private Task<List<OtherInvoice>> Others(IQueryable<Invoice> like, Invoice row) =>
        OtherInvoice.Of(like.Where(other => other.Id != row.Id && other.State != InvoiceState.Returned).OrderBy(other => other.IntakeId).ThenBy(other => other.FirstPage)).ToListAsync(cancel);

    private async Task<string> PlaceOf(OtherInvoice other)
    {
        var batch = await db.Batches.Where(one => one.Id == other.BatchId).Select(one => one.Name).SingleAsync(cancel);
        return $"invoice {other.Id} in the batch “{batch}” ({InvoiceDetails.Word(other.State)})";
    }

    private async Task<Finding?> Credit(Invoice row, StatedFacts stated, Vendor vendor)
    {
        var invoices = db.Invoices.Where(other => other.VendorId == vendor.Id && !other.IsCreditNote && other.State != InvoiceState.Returned);
        if (stated.Credits.Length > 0)
        {
            var key = SeenBefore.Key(vendor.Key, stated.Credits);
            return await invoices.AnyAsync(other => other.SeenKey == key, cancel) ? null : CreditAlone.ToFinding(vendor.Name, stated.Credits, Money(row));
        }
        var least = Math.Abs(row.TotalSize);
        return await invoices.AnyAsync(other => other.Currency == row.Currency && other.TotalSize >= least, cancel) ? null : CreditAlone.ToFinding(vendor.Name, "", Money(row));
    }

    private static string Money(Invoice row) => $"{row.Total.TrimStart('-')} {row.Currency}";

    /// <summary>Puts what was found into the invoice's record, but for what a person let pass.</summary>
    private async Task Set(Invoice row, List<Finding> found)
    {
        facts ??= await CodingFacts.Load(db, cancel);
        row.CodedBy = facts.Basis;
        // Most invoices come once and fit their vendor, and a long record takes milliseconds to read.
        if (found.Count == 0 && !facts.IsAny && !row.Record.Contains($"\"{InvoiceRecords.FromStore}\"", StringComparison.Ordinal) && !CodedInvoices.HasCodes(row.Record))
            return;
        var (record, ofCodes) = await CodedInvoices.Code(row, InvoiceRecords.FromJson(row.Record), facts, db, cancel);
        found.AddRange(ofCodes);
        var (open, accepted) = (new List<FindingRecord>(), new List<AcceptedRecord>());
        var passed = found.Count == 0 ? [] : await Passed(row);
        foreach (var finding in found)
        {
            if (passed.Find(one => one.What.Code == finding.Code && one.What.Message == finding.Message) is { } by)
                accepted.Add(new AcceptedRecord(finding.Code, finding.Message, finding.About, by.What.Reason, by.By, by.At, InvoiceRecords.FromStore));
            else
                open.Add(InvoiceRecords.Of(finding, InvoiceRecords.FromStore) with { Passing = InvoiceRecords.Word(PassingOf(finding)) });
        }
        var next = record with
        {
            Findings = [.. open, .. record.Findings.Where(finding => finding.Origin != InvoiceRecords.FromStore)],
            Accepted = [.. record.Accepted.Where(one => one.Origin != InvoiceRecords.FromStore), .. accepted],
        };
        var json = InvoiceRecords.ToJson(next);
        if (json == row.Record)
            return;
        row.Record = json;
        (row.State, row.Findings, row.FirstFinding, row.HeldBy) = InvoiceRecords.HeldBy(next);
    }

    /// <summary>Leaves what the store said of an invoice in its record until that is found anew, so that one that is captured anew as it was does not change.</summary>
    /// <param name="before">The record as it was before the capture; empty for a new invoice.</param>
    public static void Carry(Invoice row, string before)
    {
        if (!IsOpen(row) || (!before.Contains($"\"{InvoiceRecords.FromStore}\"", StringComparison.Ordinal) && !CodedInvoices.HasCodes(before)))
            return;
        var (had, now) = (InvoiceRecords.FromJson(before), InvoiceRecords.FromJson(row.Record));
        now = now with
        {
            Findings = [.. had.Findings.Where(one => one.Origin == InvoiceRecords.FromStore), .. now.Findings],
            Accepted = [.. now.Accepted, .. had.Accepted.Where(one => one.Origin == InvoiceRecords.FromStore)],
            Coding = had.Coding,
        };
        row.Record = InvoiceRecords.ToJson(now);
        (row.State, row.Findings, row.FirstFinding, row.HeldBy) = InvoiceRecords.HeldBy(now);
    }

    /// <summary>What the store says of an invoice at the moment, each with whether it may pass.</summary>
    public static ImmutableArray<OutsideFinding> Open(Invoice row) =>
        [.. InvoiceRecords.FromJson(row.Record).Findings.Where(one => one.Origin == InvoiceRecords.FromStore).Select(CapturedRecords.Of).Select(finding => new OutsideFinding(finding, PassingOf(finding)))];

    /// <summary>Whether a person may let pass what the store says. One that came before is set aside, or approved with a reason.</summary>
    public static Passing PassingOf(Finding finding) => finding.Code switch
    {
        SeenBefore.Code or SeenBefore.SameFile => Passing.Never,
        LikeBefore.Code or CreditAlone.Code or Uncoded.Code or Flagged.Code or CodingFacts.Faulty => Passing.ForReason,
        _ => VendorChecks.PassingOf(finding.Code),
    };

    private async Task<List<PassedFinding>> Passed(Invoice row)
    {
        var made = await db.Corrections.Where(correction => correction.InvoiceId == row.Id).OrderBy(correction => correction.Id).ToListAsync(cancel);
        var by = made.ToDictionary(correction => correction.Id);
        return [.. new CorrectionHistory(made.Select(CorrectedInvoices.Of)).Holding
            .Select(one => one.What is FindingAccepted what ? new PassedFinding(what, by[one.Id].By, by[one.Id].At) : null).OfType<PassedFinding>()];
    }

    private sealed record PassedFinding(FindingAccepted What, string By, DateTime At);
}
