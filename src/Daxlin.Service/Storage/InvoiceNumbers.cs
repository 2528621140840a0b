using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>Numbers for invoices, in the order in which their files were taken in.</summary>
internal static class InvoiceNumbers
{
    /// <summary>The next number that no invoice has, and that none is to get. The caller holds the turn to write.</summary>
    public static async Task<int> Next(DaxlinDb db, CancellationToken cancel) => 1 + Math.Max(
        await db.Invoices.MaxAsync(row => (int?)row.Id, cancel) ?? 0, await db.Intakes.MaxAsync(row => (int?)row.InvoiceNumber, cancel) ?? 0);
}
