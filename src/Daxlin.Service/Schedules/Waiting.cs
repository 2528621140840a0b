using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Corrections;
using Daxlin.Core.Schedules;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Schedules;

/// <summary>Looks at what waits for a person.</summary>
internal static class Waiting
{
    /// <summary>So many invoices are named.</summary>
    private const int MostNamed = 25;

    /// <param name="since">Documents that could not be read are told if they came after this.</param>
    public static async Task<WaitingFacts> Of(DaxlinDb db, DateTime since, DateOnly day, CancellationToken cancel)
    {
        var held = db.Invoices.AsNoTracking().Where(invoice => invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Unplaced);
        var oldest = await held.OrderBy(invoice => invoice.Id).Take(MostNamed)
            .Select(invoice => new
            {
                invoice.State,
                invoice.Vendor,
                invoice.InvoiceNumber,
                invoice.Total,
                invoice.Currency,
                invoice.FirstFinding,
                File = invoice.Intake!.FileName,
                Batch = db.Batches.Where(batch => batch.Id == invoice.BatchId).Select(batch => batch.Name).Single(),
            }).ToListAsync(cancel);
        return new WaitingFacts(
            day, await held.CountAsync(cancel),
            [
                .. oldest.Select(one => new WaitingInvoice(
                    one.InvoiceNumber.Length > 0 ? $"{one.Vendor} {one.InvoiceNumber}".Trim() : one.File, SettledForm.Shown(one.Total, one.Currency), one.Batch,
                    one.FirstFinding.Length > 0 ? one.FirstFinding : "No template knows it yet.")),
            ],
            await db.Invoices.CountAsync(invoice => invoice.State == InvoiceState.Clear, cancel), await db.Invoices.CountAsync(invoice => invoice.State == InvoiceState.Approved, cancel),
            await db.Intakes.CountAsync(intake => intake.State == IntakeState.Unreadable && intake.ReceivedAt > since, cancel), await Troubles(db, cancel));
    }

    private static async Task<ImmutableArray<string>> Troubles(DaxlinDb db, CancellationToken cancel)
    {
        var deliveries = await db.Deliveries.CountAsync(delivery => delivery.State == DeliveryState.GivenUp, cancel);
        return
        [
            .. await SourceShelf.Troubles(db, cancel), .. await ScheduleShelf.Troubles(db, cancel),
            .. deliveries == 0 ? Array.Empty<string>() : [string.Create(CultureInfo.InvariantCulture, $"{(deliveries == 1 ? "1 delivery of a posting run was" : $"{deliveries} deliveries of posting runs were")} given up.")],
        ];
    }
}
