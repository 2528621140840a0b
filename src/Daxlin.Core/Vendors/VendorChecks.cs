using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

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

    public static IEnumerable<Finding> Of(StatedFacts invoice, VendorFacts vendor)
    {
        if (AccountOf(invoice, vendor) is { } account)
            yield return account;
        if (invoice.VendorName.Length > 0 && !vendor.OtherNames.Add(vendor.Name).Any(name => IsSameName(name, invoice.VendorName)))
        {
            yield return Finding.Hold(
                NameDiffers,
                $"The invoice is of “{invoice.VendorName}”; the vendor is {vendor.Name}{(vendor.OtherNames.IsEmpty ? "" : $", also spelt {string.Join(" or ", vendor.OtherNames)}")}. If it is the same vendor, add this spelling to its record.",
                TradeNames.VendorName);
        }
        if (TaxIdOf(invoice, vendor) is { } taxId)
            yield return taxId;
        if (vendor.Currency.Length > 0 && invoice.Currency.Length > 0 && invoice.Currency != vendor.Currency)
            yield return Finding.Hold(CurrencyUnusual, $"The invoice is in {invoice.Currency}; {vendor.Name} bills in {vendor.Currency}.", TradeNames.Currency);
        if (vendor.Terms is { } terms && invoice is { IsCreditNote: false, Date: { } date, Due: { } due } && due >= date && !terms.Fits(date, due))
        {
            var (agreed, days) = (terms.DueOf(date), due.DayNumber - terms.DueOf(date).DayNumber);
            yield return Finding.Hold(
                DueAgainstTerms,
                $"Due on {Day(due)}; agreed with {vendor.Name} are {terms}, so {Day(agreed)} ({Text(Math.Abs(days))} {(Math.Abs(days) == 1 ? "day" : "days")} {(days < 0 ? "less" : "more")}).",
                TradeNames.InvoiceDate, TradeNames.DueDate);
        }
        if (NumberForm.IsUnusual(invoice.Number, vendor.NumbersBefore))
        {
            yield return Finding.Hold(
                NumberUnusual,
                $"The invoice number {invoice.Number} is of another form than the {Text(vendor.NumbersBefore.Length)} of {vendor.Name} before, such as {vendor.NumbersBefore[0]}.",
                TradeNames.InvoiceNumber);
        }
    }

    /// <summary>Whether a person who has looked may let one of these findings pass.</summary>
    public static Passing PassingOf(string code) => code switch
    {
        AccountChanged => Passing.Never,
        TaxIdDiffers or CurrencyUnusual => Passing.ForReason,
        _ => Passing.Freely,
    };

    private static Finding? AccountOf(StatedFacts invoice, VendorFacts vendor)
    {
        var known = vendor.Accounts.IsEmpty ? vendor.AccountsBefore : vendor.Accounts;
        if (invoice.Iban.Length == 0 || known.IsEmpty || known.Contains(invoice.Iban))
            return null;
        return Finding.Hold(
            AccountChanged,
            $"The bank account {Grouped(invoice.Iban)} is not that of {vendor.Name}: {(vendor.Accounts.IsEmpty ? "its invoices before bear" : "its record says")} {string.Join(" or ", known.Select(Grouped))}. "
            + "Ask the vendor on a way that is not on this invoice; two persons must confirm the account in the vendor's record before this is approved.",
            TradeNames.Iban);
    }

    private static Finding? TaxIdOf(StatedFacts invoice, VendorFacts vendor)
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

    /// <summary>An IBAN as it is printed: in groups of four (ISO 13616).</summary>
    public static string Grouped(string iban) => string.Join(' ', iban.Chunk(4).Select(four => new string(four)));

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
