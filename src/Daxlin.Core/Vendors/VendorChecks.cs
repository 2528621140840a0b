using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Vendors;

/// <summary>Says what a vendor's record, and its invoices before, speak against on an invoice.</summary>
public static class VendorChecks
{
    /// <summary>Another bank account than that of the vendor. Only the vendor's record settles it, by two persons; nothing of it is approved before.</summary>
    public const string AccountChanged = "account-changed";

    public const string NameDiffers = "vendor-name-differs";
    public const string TaxIdDiffers = "tax-id-differs";
    public const string TaxIdFaulty = "tax-id-check";
    public const string CurrencyUnusual = "currency-unusual";
    public const string DueAgainstTerms = "due-against-terms";
    public const string NumberUnusual = "number-unusual";
    public const string RoundingUnusual = "tax-rounding-unusual";

    public static IEnumerable<Finding> Of(StatedFacts invoice, VendorFacts vendor)
    {
        var record = vendor.Record;
        if (AccountOf(invoice, vendor) is { } account)
            yield return account;
        if (invoice.VendorName.Length > 0 && !record.Names.Any(name => IsSameName(name, invoice.VendorName)))
        {
            yield return Finding.Hold(
                NameDiffers,
                $"The invoice is of “{invoice.VendorName}”; the vendor is {record.Name}{(record.OtherNames.IsEmpty ? "" : $", also spelt {string.Join(" or ", record.OtherNames)}")}. If it is the same vendor, add this spelling to its record.",
                TradeNames.VendorName);
        }
        if (TaxIdOf(invoice, record) is { } taxId)
            yield return taxId;
        if (record.Currency.Length > 0 && invoice.Currency.Length > 0 && invoice.Currency != record.Currency)
            yield return Finding.Hold(CurrencyUnusual, $"The invoice is in {invoice.Currency}; {record.Name} bills in {record.Currency}.", TradeNames.Currency);
        if (record.Terms is { } terms && invoice is { IsCreditNote: false, Date: { } date, Due: { } due } && due >= date && !terms.Fits(date, due))
        {
            var (agreed, days) = (terms.DueOf(date), due.DayNumber - terms.DueOf(date).DayNumber);
            yield return Finding.Hold(
                DueAgainstTerms,
                $"Due on {Day(due)}; agreed with {record.Name} are {terms}, so {Day(agreed)} ({Text(Math.Abs(days))} {(Math.Abs(days) == 1 ? "day" : "days")} {(days < 0 ? "less" : "more")}).",
                TradeNames.InvoiceDate, TradeNames.DueDate);
        }
        if (RoundingOf(invoice, vendor) is { } rounding)
            yield return rounding;
        if (NumberForm.IsUnusual(invoice.Number, vendor.NumbersBefore))
        {
            yield return Finding.Hold(
                NumberUnusual,
                $"The invoice number {invoice.Number} is of another form than the {Text(vendor.NumbersBefore.Length)} of {record.Name} before, such as {vendor.NumbersBefore[0]}.",
                TradeNames.InvoiceNumber);
        }
    }

    /// <remarks>No count of invoices is asked for: whoever rounds one way is never told, and whoever does not is told once.</remarks>
    private static Finding? RoundingOf(StatedFacts invoice, VendorFacts vendor) =>
        vendor.TaxRounding is TaxRoundings.None or TaxRoundings.Any || (invoice.TaxRounding & vendor.TaxRounding) != TaxRoundings.None ? null
        : Finding.Hold(
            RoundingUnusual,
            $"The tax comes out only if it is rounded {(invoice.TaxRounding == TaxRoundings.None ? "one way at one rate and another way at another" : Words(invoice.TaxRounding))}; on all approved invoices of {vendor.Record.Name} it is rounded {Words(vendor.TaxRounding)}, so it may be a cent or more off.",
            TradeNames.Tax);

    private static string Words(TaxRoundings ways) => string.Join(" or ", new[]
    {
        (TaxRoundings.ByLine, "on each line"), (TaxRoundings.ByRate, "for each rate"), (TaxRoundings.Once, "once for all"),
    }.Where(way => ways.HasFlag(way.Item1)).Select(way => way.Item2));

    /// <summary>Whether a person who has looked may let one of these findings pass.</summary>
    public static Passing PassingOf(string code) => code switch
    {
        AccountChanged => Passing.Never,
        TaxIdDiffers or CurrencyUnusual => Passing.ForReason,
        _ => Passing.Freely,
    };

    private static Finding? AccountOf(StatedFacts invoice, VendorFacts vendor)
    {
        var known = vendor.KnownAccounts;
        return !vendor.IsForeign(invoice.Iban) ? null : Finding.Hold(
            AccountChanged,
            $"The bank account {Iban.Grouped(invoice.Iban)} is not that of {vendor.Record.Name}: "
            + (known.IsEmpty ? "all accounts of its record were ended" : $"{(vendor.HadAccounts ? "its record says" : "its invoices before bear")} {string.Join(" or ", known.Select(Iban.Grouped))}")
            + ". Ask the vendor on a way that is not on this invoice; two persons must confirm the account in the vendor's record before this is approved.",
            TradeNames.Iban);
    }

    private static Finding? TaxIdOf(StatedFacts invoice, VendorRecord vendor)
    {
        if (invoice.TaxId.Length == 0)
            return null;
        var bare = TaxIdentifier.Bare(invoice.TaxId);
        if (vendor.TaxIds.Length > 0)
        {
            return vendor.TaxIds.Any(one => TaxIdentifier.Bare(one) == bare) ? null
                : Finding.Hold(TaxIdDiffers, $"The tax number {invoice.TaxId} is not that of {vendor.Name}, whose record says {string.Join(" or ", vendor.TaxIds)}.", TradeNames.VendorTaxId);
        }
        return !TaxIdentifier.IsFaulty(bare) ? null
            : new Finding(TaxIdFaulty, Severity.Note, $"The check digits of the tax number {invoice.TaxId} do not come out: one of its figures is wrong, or it is no tax number of {bare[..2]}.", [TradeNames.VendorTaxId]);
    }

    /// <summary>One name is the other with something more: "Brinewood Chandlery" and "Brinewood Chandlery Ltd."</summary>
    public static bool IsSameName(string one, string other)
    {
        var (a, b) = (SeenBefore.Squash(one), SeenBefore.Squash(other));
        return a.Length > 0 && b.Length > 0 && (a.Contains(b, StringComparison.Ordinal) || b.Contains(a, StringComparison.Ordinal));
    }

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
