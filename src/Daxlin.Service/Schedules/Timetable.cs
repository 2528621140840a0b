using System.Globalization;
using Daxlin.Core.Schedules;
using Quartz;

namespace Daxlin.Service.Schedules;

/// <summary>When due times come, by a clock that is set forward in spring and back in autumn.</summary>
/// <remarks>
/// Of the scheduler Quartz this is the calendar alone. What was done when is stored in one change with what was done, which a store of its own beside ours could not promise.
/// </remarks>
public static class Timetable
{
    /// <summary>A clock that was set back by less than this makes nothing due a second time.</summary>
    private static readonly TimeSpan LongestBack = TimeSpan.FromDays(1);

    /// <summary>The first due time after a time.</summary>
    /// <remarks>
    /// A day has each of its times once. One in the hour that spring leaves out is due when that hour would begin: 02:30 on such a Sunday is due at 03:00. One in the hour that autumn
    /// has twice is due in the second.
    /// </remarks>
    /// <param name="zone">Whose clock the times are of.</param>
    public static DateTimeOffset After(this DueTimes due, DateTimeOffset time, TimeZoneInfo zone) =>
        due.At.Min(at => new CronExpression(Expression(due, at), zone).GetNextValidTimeAfter(time)!.Value);

    /// <summary>The next due time of what was due before.</summary>
    /// <remarks>What the clock said wrongly, a year ahead perhaps, is forgotten once it is right again.</remarks>
    /// <param name="last">The last time that something was done of; null for never.</param>
    public static DateTimeOffset Next(this DueTimes due, DateTimeOffset? last, DateTimeOffset now, TimeZoneInfo zone) =>
        due.After(last > now && last - now < LongestBack ? last.Value : now, zone);

    /// <summary>How many due times lie after one, up to a time.</summary>
    /// <param name="most">It is not counted further.</param>
    public static int CountBetween(this DueTimes due, DateTimeOffset after, DateTimeOffset until, TimeZoneInfo zone, int most)
    {
        var count = 0;
        for (var next = due.After(after, zone); next <= until && count < most; next = due.After(next, zone))
            count++;
        return count;
    }

    /// <summary>As Quartz writes it: second, minute, hour, day of the month, month, day of the week.</summary>
    private static string Expression(DueTimes due, TimeOnly at)
    {
        var days = due.DayOfMonth is { } day ? $"{OfMonth(day)} * ?" : $"? * {string.Join(',', due.Days.Select(one => $"{one}"[..3].ToUpperInvariant()))}";
        return string.Create(CultureInfo.InvariantCulture, $"0 {at.Minute} {at.Hour} {days}");
    }

    private static string OfMonth(DayOfMonth day) => day.Number?.ToString(CultureInfo.InvariantCulture) ?? (day.IsWeekday ? "LW" : "L");
}
