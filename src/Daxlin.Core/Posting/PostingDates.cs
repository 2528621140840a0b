namespace Daxlin.Core.Posting;

/// <summary>On which day an invoice is posted: on its own, or where that lies in a closed period, on the day that is said for the run.</summary>
/// <example>Closed through 31 October, the rest on 1 November: an invoice of 15 October is posted on 1 November, one of 5 November on that day.</example>
/// <param name="ClosedThrough">The last day of what is closed; null if nothing is.</param>
/// <param name="Otherwise">The day for what is dated in a closed period; null if none is said.</param>
public sealed record PostingDates(DateOnly? ClosedThrough, DateOnly? Otherwise)
{
    /// <summary>Nothing is closed.</summary>
    public static PostingDates Open { get; } = new(null, null);

    /// <summary>Says that a day lies in a closed period. What has no day is in none that is open.</summary>
    public bool IsClosed(DateOnly? day) => ClosedThrough is { } last && (day is null || day <= last);

    /// <returns>Null where a day has to be said.</returns>
    public DateOnly? Of(DateOnly? own) => IsClosed(own) ? Otherwise : own;
}
