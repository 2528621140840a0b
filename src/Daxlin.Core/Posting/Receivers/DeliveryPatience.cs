using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Receivers;

/// <summary>How long a delivery waits after it failed, and when it is given up.</summary>
public static class DeliveryPatience
{
    /// <summary>Soon at first, for a line that was cut for a moment, then ever more seldom: a day in all, so that a receiver that is down over night is reached.</summary>
    private static readonly ImmutableArray<TimeSpan> Waits =
    [
        TimeSpan.FromSeconds(10), TimeSpan.FromMinutes(1), TimeSpan.FromMinutes(5), TimeSpan.FromMinutes(30), TimeSpan.FromHours(2), TimeSpan.FromHours(6), TimeSpan.FromHours(16),
    ];

    /// <summary>How often it is tried before a person has to look.</summary>
    public static int MostAttempts => Waits.Length + 1;

    /// <param name="attempts">How often it was tried.</param>
    /// <returns>Null if it is given up.</returns>
    public static TimeSpan? After(int attempts) => attempts <= Waits.Length ? Waits[Math.Max(attempts, 1) - 1] : null;
}
