using System.Collections.Immutable;

namespace Daxlin.Core.Schedules;

/// <summary>What waits for a person at some time.</summary>
/// <param name="Day">The day, by the clock of the service's machine.</param>
/// <param name="Held">How many invoices are held, or fit no template.</param>
/// <param name="Oldest">Some of them with what is wrong, the oldest first.</param>
/// <param name="Clear">How many are clear, and wait for approval.</param>
/// <param name="Approved">How many are approved, and wait to be posted.</param>
/// <param name="Unreadable">How many documents could not be read, and were not taken away since.</param>
/// <param name="Troubles">What stands still, in sentences.</param>
public sealed record WaitingFacts(DateOnly Day, int Held, ImmutableArray<WaitingInvoice> Oldest, int Clear, int Approved, int Unreadable, ImmutableArray<string> Troubles)
{
    public bool IsNothing => Held == 0 && Clear == 0 && Approved == 0 && Unreadable == 0 && Troubles.IsEmpty;
}
