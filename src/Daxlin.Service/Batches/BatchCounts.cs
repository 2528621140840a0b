using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

/// <summary>Counts a batch's documents and invoices by their states.</summary>
internal static class BatchCounts
{
    public static async Task<List<BatchSummary>> Of(DaxlinDb db, List<Batch> rows, RecognitionProgress recognition, CancellationToken cancel)
    {
        var ids = rows.ConvertAll(batch => batch.Id);
        var documents = await db.Intakes.Where(intake => ids.Contains(intake.BatchId))
            .GroupBy(intake => new { intake.BatchId, intake.State })
            .Select(group => new { group.Key.BatchId, group.Key.State, Count = group.Count() })
            .ToListAsync(cancel);
        var invoices = await db.Invoices.Where(invoice => ids.Contains(invoice.BatchId))
            .GroupBy(invoice => new { invoice.BatchId, invoice.State })
            .Select(group => new { group.Key.BatchId, group.Key.State, Count = group.Count() })
            .ToListAsync(cancel);
        var alike = await db.Invoices.Where(invoice => ids.Contains(invoice.BatchId) && invoice.State == InvoiceState.Unplaced && invoice.LooksLike != "")
            .GroupBy(invoice => invoice.BatchId)
            .Select(group => new { Batch = group.Key, Vendors = group.Select(invoice => invoice.LooksLike).Distinct().Count() })
            .ToDictionaryAsync(group => group.Batch, group => group.Vendors, cancel);
        var underWay = recognition.UnderWay.ToDictionary();
        var recognised = underWay.Count == 0 ? [] : await db.Intakes.Where(intake => ids.Contains(intake.BatchId) && intake.State == IntakeState.Waiting && underWay.Keys.Contains(intake.Sha256))
            .Select(intake => new { intake.BatchId, intake.Sha256 }).ToListAsync(cancel);
        return rows.ConvertAll(batch => new BatchSummary(
            batch.Id, batch.Name, batch.CreatedAt,
            documents.Where(group => group.BatchId == batch.Id).Sum(group => group.Count),
            Documents(batch.Id, IntakeState.Waiting),
            Documents(batch.Id, IntakeState.Unreadable),
            new InvoiceCounts(
                Invoices(batch.Id, InvoiceState.Unplaced), Invoices(batch.Id, InvoiceState.Held), Invoices(batch.Id, InvoiceState.Clear),
                Invoices(batch.Id, InvoiceState.Approved), Invoices(batch.Id, InvoiceState.Posted), Invoices(batch.Id, InvoiceState.Returned)),
            alike.GetValueOrDefault(batch.Id), batch.Group, batch.Revision, Recognising(batch.Id)));

        PagesUnderWay? Recognising(int batch)
        {
            var own = recognised.FindAll(one => one.BatchId == batch).ConvertAll(one => underWay[one.Sha256]);
            return own.Count == 0 ? null : new PagesUnderWay(own.Sum(pages => pages.Done), own.Sum(pages => pages.Of));
        }

        int Documents(int batch, IntakeState state) =>
            documents.Where(group => group.BatchId == batch && group.State == state).Sum(group => group.Count);
        int Invoices(int batch, InvoiceState state) =>
            invoices.Where(group => group.BatchId == batch && group.State == state).Sum(group => group.Count);
    }
}
