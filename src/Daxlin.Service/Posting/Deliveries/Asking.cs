using Daxlin.Service.Storage;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>Asks for a run to be delivered.</summary>
internal static class Asking
{
    public static Delivery For(int run, string receiver, DateTime at, string who) =>
        new() { Key = Guid.NewGuid().ToString("N"), RunNumber = run, Receiver = receiver, AskedAt = at, AskedBy = who, NextAt = at };
}
