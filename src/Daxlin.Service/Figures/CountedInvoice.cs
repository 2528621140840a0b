using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Figures;

/// <summary>An invoice as sheets and charts count it, all of it worked out by the database.</summary>
internal sealed record CountedInvoice
{
    public required InvoiceState State { get; init; }
    public required string Vendor { get; init; }
    public required string Currency { get; init; }

    /// <summary>Clear, approved or posted, and no person has changed, let pass or approved anything of it despite a finding.</summary>
    public required bool IsUntouched { get; init; }

    /// <summary>Its total as <see cref="Invoice.TotalSize"/>; a credit note counts as less, however its amounts are printed.</summary>
    public required long Size { get; init; }

    public required DateTime ReceivedAt { get; init; }

    /// <summary>As yyyy-MM-dd; empty if unknown.</summary>
    public required string InvoiceDate { get; init; }

    /// <summary>The codes of what holds it, parted by commas.</summary>
    public required string HeldBy { get; init; }

    /// <summary>What invoices come to by currency, credit notes taken off; those without a currency come to nothing.</summary>
    public static async Task<SortedDictionary<string, decimal>> SumsOf(IQueryable<Invoice> rows, CancellationToken cancel) => new(
        await Of(rows).Where(invoice => invoice.Currency != "").GroupBy(invoice => invoice.Currency)
            .Select(group => new { Currency = group.Key, Size = group.Sum(invoice => invoice.Size) }).ToDictionaryAsync(sum => sum.Currency, sum => Invoice.AmountOf(sum.Size), cancel),
        StringComparer.Ordinal);

    public static IQueryable<CountedInvoice> Of(IQueryable<Invoice> rows) => rows.Select(row => new CountedInvoice
    {
        State = row.State,
        Vendor = row.Vendor,
        Currency = row.Currency,
        IsUntouched = !row.IsTouched && (row.State == InvoiceState.Clear || row.State == InvoiceState.Approved || row.State == InvoiceState.Posted),
        Size = row.IsCreditNote ? -Math.Abs(row.TotalSize) : row.TotalSize,
        ReceivedAt = row.Intake.ReceivedAt,
        InvoiceDate = row.InvoiceDate,
        HeldBy = row.HeldBy,
    });
}
