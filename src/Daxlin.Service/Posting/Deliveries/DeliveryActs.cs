using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>What persons say of deliveries. The turn to write is held by who asks.</summary>
internal sealed class DeliveryActs(DaxlinDb db, ReceiverShelf receivers, DeliveryWorker worker, DeliveryEvents events, TimeProvider clock)
{
    public async Task<(Delivery? Delivery, Refused? Refused)> Ask(PostingRun run, DeliveryToAsk wanted, string who, CancellationToken cancel)
    {
        if (string.IsNullOrEmpty(wanted.Receiver))
            return (null, Refused.Faulty("receiver-missing", "Say which receiver is to have the run: “receiver” with its name."));
        var (row, unfit) = await receivers.FindFor(wanted.Receiver, run.Layout, cancel);
        if (row is null)
            return (null, unfit);
        var before = await db.Deliveries.Where(one => one.RunNumber == run.Number && one.Receiver == row.Name).OrderByDescending(one => one.Id).FirstOrDefaultAsync(cancel);
        if (before is { State: DeliveryState.Waiting or DeliveryState.GivenUp })
        {
            return (null, Refused.Conflict("asked-already", before.State == DeliveryState.Waiting
                ? $"Run {run.Number} waits for “{row.Name}” already (delivery {before.Id})." : $"The delivery of run {run.Number} to “{row.Name}” was given up (delivery {before.Id}): send that one again, or settle it."));
        }
        if (before is not null && !Reason.SaysSomething(wanted.Again ?? ""))
        {
            return (null, Refused.Conflict(
                "delivered-already",
                $"{(before.State == DeliveryState.Settled ? $"The delivery of run {run.Number} to “{row.Name}” was settled by a person," : $"“{row.Name}” has run {run.Number} since")} {before.EndedAt:yyyy-MM-dd HH:mm} UTC. To deliver it once more, say why, in words of {Reason.FewestLetters} letters at least."));
        }
        var now = clock.GetUtcNow().UtcDateTime;
        var delivery = Delivery.Of(run.Number, row.Name, now, who);
        db.Deliveries.Add(delivery);
        await Record(delivery, now, who, HistoryActs.DeliveryAsked, $"asked for delivery to {row.Name}{(before is null ? "" : " once more")}", wanted.Again?.Trim() ?? "", cancel);
        return (delivery, null);
    }

    /// <summary>Tries a delivery at once that waits or was given up.</summary>
    public async Task<Refused?> TryAgain(Delivery delivery, string who, CancellationToken cancel)
    {
        if (Ended(delivery) is { } ended)
            return ended;
        var now = clock.GetUtcNow().UtcDateTime;
        (delivery.State, delivery.NextAt, delivery.EndedAt) = (DeliveryState.Waiting, now, null);
        delivery.Attempts = 0;
        await Record(delivery, now, who, HistoryActs.DeliveryAsked, $"asked for another try of the delivery to {delivery.Receiver}", "", cancel);
        return null;
    }

    /// <summary>Ends a delivery that was given up, or waits, by what a person knows.</summary>
    public async Task<Refused?> Settle(Delivery delivery, DeliveryToSettle wanted, string who, CancellationToken cancel)
    {
        if (Ended(delivery) is { } ended)
            return ended;
        var reason = wanted.Reason?.Trim() ?? "";
        if (!Reason.SaysSomething(reason))
            return Refused.Faulty("reason-missing", $"Say how it is known that the receiver has it, or why it is not to have it, in words of {Reason.FewestLetters} letters at least.");
        var now = clock.GetUtcNow().UtcDateTime;
        (delivery.State, delivery.EndedAt, delivery.Says) = (DeliveryState.Settled, now, $"{who}: {reason}");
        await Record(delivery, now, who, HistoryActs.DeliverySettled, $"settled the delivery to {delivery.Receiver}", reason, cancel);
        return null;
    }

    private static Refused? Ended(Delivery delivery) => delivery.State switch
    {
        DeliveryState.Delivered => Refused.Conflict("delivered-already", $"“{delivery.Receiver}” has run {delivery.RunNumber} already. To deliver it once more, ask for the run to be delivered again, and say why."),
        DeliveryState.Settled => Refused.Conflict("settled-already", $"This delivery was settled by a person. To deliver run {delivery.RunNumber} to “{delivery.Receiver}” all the same, ask for it again, and say why."),
        _ => null,
    };

    private async Task Record(Delivery delivery, DateTime at, string who, string act, string what, string reason, CancellationToken cancel)
    {
        await HistoryLog.Record(db, new Deed(HistoryStreams.PostingRun(delivery.RunNumber), at, who, act, what) { Reason = reason }, cancel);
        await db.SaveChangesAsync(cancel);
        db.Then(worker.Wake);
        db.Then(() => events.Moved(delivery.RunNumber));
    }
}
