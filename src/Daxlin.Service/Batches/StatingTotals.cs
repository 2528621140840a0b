using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.Batches;

/// <summary>A person says what a batch is to come to, or takes that back.</summary>
public sealed class StatingTotals(DaxlinDb db, TimeProvider clock)
{
    private const int MostTotals = 50;

    internal async Task<Refused?> Do(Batch batch, TotalsToState wanted, string who, CancellationToken cancel)
    {
        if (FaultOf(wanted) is { } fault)
            return Refused.Faulty("totals-faulty", fault);
        ImmutableArray<StatedTotal> totals = [.. wanted.Totals.Select(total => new StatedTotal(total.Currency!.ToUpperInvariant(), total.Invoices, total.Sum is { } sum ? SettledForm.Number(sum) : null))];
        var (before, after) = (ComparedTotal.Told(BatchSheets.Stated(batch)), ComparedTotal.Told(totals));
        if (before == after)
            return null;
        batch.ControlTotals = JsonSerializer.Serialize(totals);
        batch.Revision++;
        await HistoryLog.Record(
            db, new Deed(HistoryStreams.Batch(batch.Id), clock.GetUtcNow().UtcDateTime, who, HistoryActs.TotalsStated, "stated control totals") { Before = before, After = after }, cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private static string? FaultOf(TotalsToState wanted)
    {
        if (wanted.Totals.IsDefault || wanted.Totals.Length > MostTotals)
            return $"Say in “totals” what the batch is to come to, in {MostTotals} currencies at most.";
        foreach (var total in wanted.Totals)
        {
            if (Currency.Find(total.Currency ?? "") is null)
                return $"“{total.Currency}” is no currency of ISO 4217; one is EUR.";
            if (total.Invoices is < 0)
                return $"{total.Invoices} is no count of invoices.";
            if (total.Sum is { } sum && SettledForm.Number(sum) is null)
                return $"“{sum}” is no sum; one is written as 1204.50.";
        }
        return wanted.Totals.DistinctBy(total => total.Currency!.ToUpperInvariant()).Count() == wanted.Totals.Length ? null : "Each currency has one control total.";
    }
}
