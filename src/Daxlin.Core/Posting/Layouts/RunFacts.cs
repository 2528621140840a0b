namespace Daxlin.Core.Posting.Layouts;

/// <summary>What a layout can say of the run that it writes.</summary>
/// <param name="Number">The run's number; that of the next one while it is only tried.</param>
/// <param name="IsReversal">Says that it takes back what an earlier run posted: every amount and quantity gets the other sign.</param>
public sealed record RunFacts(int Number, DateOnly On, bool IsReversal = false)
{
    /// <summary>On which days its invoices are posted.</summary>
    public PostingDates Dates { get; init; } = PostingDates.Open;
}
