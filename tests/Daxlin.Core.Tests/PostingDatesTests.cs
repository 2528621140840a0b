using CsCheck;
using Daxlin.Core.Posting;

namespace Daxlin.Core.Tests;

/// <summary>Whatever is closed and said: nothing is posted on a closed day, and what is dated in an open period keeps its day.</summary>
public class PostingDatesTests
{
    private static readonly Gen<DateOnly?> Days = Gen.Int[-10, 60].Select(day => day < 0 ? (DateOnly?)null : new DateOnly(2026, 10, 1).AddDays(day));

    private static ApprovedInvoice Dated(DateOnly? day) => new(
        7, "Kestrel", false, "EUR", "a.pdf", "", day is { } date ? new Dictionary<string, string> { ["invoiceDate"] = date.ToString("yyyy-MM-dd"), ["total"] = "1.00" } : new() { ["total"] = "1.00" }, [], []);

    [Fact]
    public void Nothing_is_posted_on_a_closed_day_and_nothing_moves_without_need() => Gen.Select(Days, Days, Days).Sample((closed, said, own) =>
    {
        var dates = new PostingDates(closed, said);
        var posted = Dated(own).PostedBy(dates);
        if (closed is null || own > closed)
        {
            Assert.Equal(own, posted!.PostingDate);
            // A column of its own is written only where the day is not the invoice's.
            var columns = new PostingColumnsSoFar();
            columns.Add(posted);
            Assert.DoesNotContain("postingDate", columns.Columns);
        }
        else
        {
            Assert.Equal(said, posted?.PostingDate);
            Assert.Equal(said is not null, posted is not null);
        }
    });

    [Fact]
    public void What_takes_a_run_back_is_posted_on_its_days_unless_those_are_closed_by_now() => Gen.Select(Days, Days, Days, Gen.Int[0, 40]).Sample((closed, said, own, further) =>
    {
        if (Dated(own).PostedBy(new PostingDates(closed, said)) is not { } posted || (closed is not null && said <= closed))
            return;
        // A day that is open whatever is closed here.
        var now = new PostingDates(closed?.AddDays(further) ?? new DateOnly(2026, 10, 1).AddDays(further), new DateOnly(2027, 3, 1));
        var back = posted.PostedBy(now)!;
        Assert.Equal(posted.PostingDate is { } day && day > now.ClosedThrough ? day : now.Otherwise, back.PostingDate);
        Assert.False(now.IsClosed(back.PostingDate));
        // The record says it, whatever the invoice's own date is.
        Assert.Equal(back.PostingDate!.Value.ToString("yyyy-MM-dd"), PostingColumns.HeaderOf(back, isReversed: true)["postingDate"]);
    });
}
