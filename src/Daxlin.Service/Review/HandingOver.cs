using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.Review;

/// <summary>A person hands an undecided invoice to another, or takes it back.</summary>
public sealed class HandingOver(DaxlinDb db, TimeProvider clock)
{
    private const int LongestName = 100;
    private const int LongestNote = 2000;

    internal async Task<Refused?> Do(Invoice invoice, HandOver wanted, string who, CancellationToken cancel)
    {
        var (to, note) = (wanted.To?.Trim() ?? "", wanted.Note?.Trim() ?? "");
        if (to.Length > LongestName || note.Length > LongestNote)
            return Refused.Faulty("too-long", $"A person's name has at most {LongestName} characters, and a note {LongestNote}.");
        if (!BoundActs.IsUndecided(invoice))
            return BoundActs.AlreadyDecided(invoice);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Invoice(invoice.Id), clock.GetUtcNow().UtcDateTime, who, HistoryActs.HandedOver, to.Length > 0 ? $"handed over to {to}" : "took back")
            {
                Before = invoice.HandedTo,
                After = to,
                Reason = note,
            },
            cancel);
        invoice.HandedTo = to;
        await db.SaveChangesAsync(cancel);
        return null;
    }
}
