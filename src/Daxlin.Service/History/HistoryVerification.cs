using Daxlin.Core.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.History;

/// <summary>Goes through the whole history, and through what it says was approved.</summary>
internal static class HistoryVerification
{
    /// <param name="withRecords">Also whether each approved invoice is still what was approved, which reads every record.</param>
    public static async Task<HistoryVerified> Run(DaxlinDb db, bool withRecords, CancellationToken cancel)
    {
        using var check = new HistoryCheck();
        var approved = new Dictionary<string, HistoryEntry>();
        BrokenLink? broken = null;
        await foreach (var row in db.History.AsNoTracking().OrderBy(row => row.Id).AsAsyncEnumerable().WithCancellation(cancel))
        {
            var entry = row.Entry();
            if ((broken = check.Take(entry)) is not null)
                break;
            if (withRecords && entry.Deed.Act == HistoryActs.Approved)
                approved[entry.Deed.Stream] = entry;
        }
        var looked = 0;
        if (withRecords && broken is null)
            (broken, looked) = await Approved(approved, db, cancel);
        return new HistoryVerified(broken is null, check.Entries, check.Seals, looked, check.NewestSeal, broken?.Stream ?? "", broken?.Entry ?? 0, broken?.Sentence ?? "");
    }

    /// <summary>Values of an approved or posted invoice that are not those that were approved.</summary>
    /// <param name="approved">The newest approval of each invoice, by its stream.</param>
    private static async Task<(BrokenLink? Broken, int Looked)> Approved(Dictionary<string, HistoryEntry> approved, DaxlinDb db, CancellationToken cancel)
    {
        var looked = 0;
        var decided = db.Invoices.AsNoTracking().Where(row => row.State == InvoiceState.Approved || row.State == InvoiceState.Posted)
            .Select(row => new { row.Id, row.Record }).OrderBy(row => row.Id);
        await foreach (var row in decided.AsAsyncEnumerable().WithCancellation(cancel))
        {
            looked++;
            var stream = HistoryStreams.Invoice(row.Id);
            if (!approved.TryGetValue(stream, out var entry))
                return (new BrokenLink(stream, 0, $"Invoice {row.Id} counts as approved, and nobody approved it: no entry of the history says so."), looked);
            if (entry.Deed.Content != HistoryChain.ContentOf(row.Record))
                return (new BrokenLink(stream, entry.Id, $"The values of invoice {row.Id} are not those that {entry.Deed.By} approved, {entry.Deed.At:yyyy-MM-dd HH:mm:ss} UTC: they were changed later."), looked);
        }
        return (null, looked);
    }
}
