using Daxlin.Core.Checks;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

/// <summary>Vendors as lists show them.</summary>
internal static class VendorList
{
    /// <summary>Those with some letters in a name, a tax number or an account; all if <paramref name="search"/> has none.</summary>
    public static IQueryable<Vendor> Like(DaxlinDb db, string? search)
    {
        var vendors = db.Vendors.AsNoTracking();
        if (SeenBefore.Squash(search ?? "") is not { Length: > 0 } key)
            return vendors;
        var like = search!.Trim();
        return vendors.Where(vendor => db.VendorSpellings.Any(spelling => spelling.VendorId == vendor.Id && spelling.Key.Contains(key))
            || vendor.TaxIds.Contains(like) || db.VendorAccounts.Any(account => account.VendorId == vendor.Id && account.Iban.Contains(key)));
    }

    /// <summary>By name, with what is counted of each.</summary>
    public static IQueryable<ListedVendor> Counted(DaxlinDb db, IQueryable<Vendor> vendors) =>
        vendors.OrderBy(vendor => vendor.Name).ThenBy(vendor => vendor.Id).Select(vendor => new ListedVendor
        {
            Row = vendor,
            Confirmed = db.VendorAccounts.Count(account => account.VendorId == vendor.Id && account.ConfirmedAt != null && account.EndedAt == null),
            Waiting = db.VendorAccounts.Count(account => account.VendorId == vendor.Id && account.ConfirmedAt == null && account.EndedAt == null),
            Invoices = db.Invoices.Count(invoice => invoice.VendorId == vendor.Id && invoice.State != InvoiceState.Returned),
            Held = db.Invoices.Count(invoice => invoice.VendorId == vendor.Id && invoice.State == InvoiceState.Held),
        });

    public static VendorSummary SummaryOf(ListedVendor one) => new(
        one.Row.Id, one.Row.Name, one.Row.Currency, VendorRegister.RecordOf(one.Row, []).Terms?.ToString() ?? "", one.Row.LedgerAccount, one.Confirmed, one.Waiting, one.Invoices, one.Held, one.Row.Revision);
}
