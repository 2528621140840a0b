using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Json;

/// <summary>Reads times of a day and days of the week, as documents say them.</summary>
internal static class DayReader
{
    public static TimeOnly? RequiredTime(this FaultList faults, JsonPlace parent, string key) =>
        faults.RequiredText(parent, key) is { Length: > 0 } text ? Time(faults, parent.Find(key)!, text) : null;

    public static TimeOnly? Time(this FaultList faults, JsonPlace place, string text)
    {
        if (TimeOnly.TryParseExact(text, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var time))
            return time;
        faults.Add(place, $"“{text}” is no time of a day; one is written as 06:30.");
        return null;
    }

    /// <returns>In the order of the week; all of them where the document says none.</returns>
    public static ImmutableArray<DayOfWeek> Days(this FaultList faults, JsonPlace? place)
    {
        if (place is null)
            return [.. Weekdays.Words.Select(one => one.Day)];
        var days = faults.Texts(place);
        if (days.IsEmpty || days.Any(day => !Weekdays.Words.Any(one => one.Word == day)))
            faults.Add(place, $"Days are wanted here, as {string.Join(", ", Weekdays.Words.Select(one => one.Word))}.");
        return [.. Weekdays.Words.Where(one => days.Contains(one.Word)).Select(one => one.Day)];
    }
}
