using Daxlin.Core.Schedules;
using Daxlin.Core.Values;
using Daxlin.Service.Schedules;

namespace Daxlin.Service.Tests;

/// <summary>Due times come once a day each, in spring and autumn, too.</summary>
public class TimetableTests
{
    /// <summary>Every minute of a day is due once on each day of a year in places whose clocks change at different hours, one of them by half an hour and at midnight.</summary>
    [Theory]
    [InlineData("UTC")]
    [InlineData("Europe/Berlin")]
    [InlineData("America/New_York")]
    [InlineData("Australia/Lord_Howe")]
    [InlineData("America/Santiago")]
    public void Each_day_has_each_of_its_times_once(string place)
    {
        var zone = TimeZoneInfo.FindSystemTimeZoneById(place);
        foreach (var at in new[] { 0, 1, 29, 30, 59, 60, 90, 119, 120, 121, 150, 179, 180, 181, 720, 1439 }.Select(minute => TimeOnly.MinValue.AddMinutes(minute)))
        {
            var due = new DueTimes([at], [.. Weekdays.Words.Select(one => one.Day)], null);
            var next = new DateTimeOffset(2025, 12, 31, 12, 0, 0, TimeSpan.Zero);
            var days = new List<DateOnly>();
            for (var count = 0; count < 365; count++)
            {
                var before = next;
                next = due.After(before, zone);
                Assert.True(next > before);
                var local = TimeZoneInfo.ConvertTime(next, zone).DateTime;
                days.Add(DateOnly.FromDateTime(local));
                var named = local.Date + at.ToTimeSpan();
                Assert.True(local == named || zone.IsInvalidTime(named), $"{place} {at}: {local}");
            }
            Assert.Equal(Enumerable.Range(0, 365).Select(days[0].AddDays), days);
        }
    }

    [Fact]
    public void Days_of_months_and_several_times_are_the_calendars()
    {
        var utc = TimeZoneInfo.Utc;
        string[] Three(DueTimes due, string from)
        {
            var next = DateTimeOffset.Parse(from, System.Globalization.CultureInfo.InvariantCulture);
            return [.. Enumerable.Range(0, 3).Select(_ => $"{(next = due.After(next, utc)):yyyy-MM-dd HH:mm}")];
        }

        DueTimes Of(DayOfMonth? day, params DayOfWeek[] days) => new([new(7, 30), new(18, 0)], [.. days], day);
        Assert.Equal(["2026-01-31 07:30", "2026-01-31 18:00", "2026-02-28 07:30"], Three(Of(new(null, false)), "2026-01-05T00:00:00Z"));
        Assert.Equal(["2026-01-30 18:00", "2026-02-27 07:30", "2026-02-27 18:00"], Three(Of(new(null, true)), "2026-01-30T07:30:00Z"));
        Assert.Equal(["2026-02-28 07:30", "2026-02-28 18:00", "2026-03-28 07:30"], Three(Of(new(28, false)), "2026-01-30T07:30:00Z"));
        Assert.Equal(["2026-12-04 18:00", "2026-12-07 07:30", "2026-12-07 18:00"], Three(Of(null, DayOfWeek.Monday, DayOfWeek.Friday), "2026-12-04T07:30:00Z"));
    }

    [Fact]
    public void A_clock_that_is_set_back_makes_nothing_due_twice_and_one_that_was_far_ahead_is_forgotten()
    {
        var due = new DueTimes([new(18, 30)], [.. Weekdays.Words.Select(one => one.Day)], null);
        var evening = new DateTimeOffset(2026, 12, 2, 18, 30, 0, TimeSpan.Zero);
        Assert.Equal(evening.AddDays(1), due.Next(evening, evening.AddMinutes(-40), TimeZoneInfo.Utc));
        Assert.Equal(evening, due.Next(evening.AddYears(3), evening.AddMinutes(-40), TimeZoneInfo.Utc));
        Assert.Equal(evening, due.Next(null, evening.AddMinutes(-40), TimeZoneInfo.Utc));
        Assert.Equal((2, 1000), (due.CountBetween(evening, evening.AddDays(2), TimeZoneInfo.Utc, 1000), due.CountBetween(evening, evening.AddYears(9), TimeZoneInfo.Utc, 1000)));
    }
}
