using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Periods;

/// <summary>Closes periods of the books, and opens them again for a reason. What was posted before is not touched.</summary>
public sealed class ClosedPeriods(DaxlinDb db, TimeProvider clock)
{
    /// <summary>What was said last; null if nobody ever closed anything.</summary>
    public Task<PeriodClosing?> Newest(CancellationToken cancel) => db.PeriodClosings.OrderByDescending(row => row.Id).FirstOrDefaultAsync(cancel);

    /// <param name="newest">What was seen; the turn to write is held by who asks.</param>
    internal async Task<Refused?> Close(PeriodClosing? newest, PeriodsToClose wanted, string who, CancellationToken cancel)
    {
        var (before, now, reason) = (newest?.Through, clock.GetUtcNow().UtcDateTime, wanted.Reason?.Trim() ?? "");
        if (wanted.Through == before)
            return null;
        if (wanted.Through > DateOnly.FromDateTime(now))
            return Refused.Faulty("period-to-come", $"{ExpressionTypes.Settled(wanted.Through)} is still to come; a period is closed when it is over.");
        if (before is not null && (wanted.Through is null || wanted.Through < before) && !Reason.SaysSomething(reason))
            return Refused.Faulty("reason-missing", $"All up to {ExpressionTypes.Settled(before)} is closed. Say why days of it are opened again, in words of {Reason.FewestLetters} letters at least.");
        db.PeriodClosings.Add(new PeriodClosing { Id = (newest?.Id ?? 0) + 1, Through = wanted.Through, At = now, By = who, Reason = reason });
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.ClosedPeriods, now, who, HistoryActs.PeriodsClosed, wanted.Through is null ? "opened all periods" : $"closed all up to {ExpressionTypes.Settled(wanted.Through)}")
            {
                Before = before is null ? "nothing closed" : ExpressionTypes.Settled(before),
                After = wanted.Through is null ? "nothing closed" : ExpressionTypes.Settled(wanted.Through),
                Reason = reason,
            }, cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }
}
