using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Schedules;

/// <summary>When something is due: at times of a day, on some days.</summary>
/// <param name="At">At least one, in their order.</param>
/// <param name="Days">Of the week; all of them where <paramref name="DayOfMonth"/> says which.</param>
/// <param name="DayOfMonth">A day of each month; null for days of the week.</param>
public sealed record DueTimes(ImmutableArray<TimeOnly> At, ImmutableArray<DayOfWeek> Days, DayOfMonth? DayOfMonth)
{
    /// <summary>What becomes of times at which nothing could be done.</summary>
    public const string SaysOfMissed = "Times that pass while the service is stopped are made up by one turn, after its next start.";

    public string Says
    {
        get
        {
            var times = string.Join(" and ", At.Select(at => at.ToString("HH:mm", CultureInfo.InvariantCulture)));
            return DayOfMonth is { } day ? $"On {day.Says} of each month at {times}" : Weekdays.AreAll(Days) ? $"Each day at {times}" : $"On {Weekdays.Listed(Days)} at {times}";
        }
    }
}
