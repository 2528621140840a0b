using Daxlin.Core.Recognition;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Looks for invoices that came before and look like one that no template recognises.</summary>
internal static class LikeInvoices
{
    /// <summary>So many are looked at, the newest first: half a megabyte of what they look like.</summary>
    private const int Most = 1_000;

    /// <summary>Whose it looks to be; empty if nothing tells.</summary>
    /// <param name="intake">The document that it is of, which is no witness for itself.</param>
    public static async Task<string> VendorOf(DaxlinDb db, InvoiceOutcome invoice, int intake, CancellationToken cancel)
    {
        var known = await db.Invoices.AsNoTracking().Where(row => row.IntakeId != intake).OrderByDescending(row => row.Id).Take(Most)
            .Select(row => new { Vendor = row.Vendor == "" ? row.LooksLike : row.Vendor, row.Looks }).ToListAsync(cancel);
        return KnownLooks.VendorOf(invoice.Names, InvoiceLooks.Of(invoice.Looks), known.Select(row => new KnownLooks(row.Vendor, InvoiceLooks.Of(row.Looks))));
    }
}
