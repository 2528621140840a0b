using CsCheck;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Tests;

public class DateRangeTests
{
    [Fact]
    public void A_date_within_the_range_is_never_told_and_one_outside_always_with_both_days() => Gen.Select(Gen.Int[0, 40_000], Gen.Int[-8_000, 8_000]).Sample((at, by) =>
    {
        var received = new DateOnly(2000, 1, 1).AddDays(at);
        var date = received.AddDays(by);
        var finding = DateRange.FindingOf(date, received);
        // Ten years are 3,652 or 3,653 days, but for a century without a leap year; one year 365 or 366.
        if (by is >= -3650 and <= 365)
            Assert.Null(finding);
        else if (by is < -3653 or > 366)
            Assert.Contains($"dated {date:yyyy-MM-dd}, {Math.Abs(by):N0} days {(by > 0 ? "after" : "before")} it was taken in on {received:yyyy-MM-dd}", finding!.Message, StringComparison.Ordinal);
    });

    [Fact]
    public void No_date_is_none() => Assert.Null(DateRange.FindingOf(null, new DateOnly(2026, 11, 26)));
}
