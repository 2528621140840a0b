using System.Globalization;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>A run that is to be delivered.</summary>
/// <param name="Receiver">The receiver's name.</param>
/// <param name="Again">Why it is delivered once more to a receiver that has it; left out for the first time.</param>
public sealed record DeliveryToAsk(string? Receiver = null, string? Again = null);

/// <summary>How a person ends a delivery that was given up.</summary>
/// <param name="Reason">How it is known that the receiver has it, or why it is not to have it; it is kept on record.</param>
public sealed record DeliveryToSettle(string? Reason = null);

/// <summary>The handing of a run to a receiver.</summary>
/// <param name="State"><c>waiting</c>, <c>delivered</c>, <c>given-up</c> or <c>settled</c>.</param>
/// <param name="Attempts">How often it failed.</param>
/// <param name="NextAt">When it is tried next; null unless it waits.</param>
/// <param name="EndedAt">When it was delivered, given up or settled.</param>
/// <param name="Says">The receipt, or why it failed last; empty before the first try.</param>
/// <param name="Key">By which the receiver knows the delivery again: a webhook's id, the part of a Message-ID before the @.</param>
public sealed record DeliveryRecord(
    int Id, int Run, string Receiver, string State, int Attempts, DateTime? NextAt, DateTime AskedAt, string AskedBy, DateTime? EndedAt, string Says, string Key)
{
    internal static DeliveryRecord Of(Delivery row) => new(
        row.Id, row.RunNumber, row.Receiver, WordOf(row.State), row.Attempts, row.State == DeliveryState.Waiting ? row.NextAt : null, row.AskedAt, row.AskedBy, row.EndedAt, row.Says, row.Key);

    internal static string WordOf(DeliveryState state) => state switch { DeliveryState.Delivered => "delivered", DeliveryState.GivenUp => "given-up", DeliveryState.Settled => "settled", _ => "waiting" };

    internal static DeliveryState? StateOf(string word) => word switch { "waiting" => DeliveryState.Waiting, "delivered" => DeliveryState.Delivered, "given-up" => DeliveryState.GivenUp, "settled" => DeliveryState.Settled, _ => null };
}

/// <summary>How far the deliveries of a run are.</summary>
/// <param name="Waiting">How many are tried by themselves, at once or later.</param>
/// <param name="Due">How many of these are being tried, and do not wait for a later time.</param>
public sealed record DeliveryProgress(int Waiting, int Due);
