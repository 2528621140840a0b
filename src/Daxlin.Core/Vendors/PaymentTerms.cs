namespace Daxlin.Core.Vendors;

/// <summary>When a vendor's invoices are due, as agreed.</summary>
/// <param name="Days">So many days after the invoice's date.</param>
/// <param name="FromMonthEnd">Counted from the last day of the month that the invoice is dated in.</param>
/// <example>30 days from the month's end: an invoice of 2026-01-12 is due on 2026-03-02.</example>
public sealed record PaymentTerms(int Days, bool FromMonthEnd)
{
    /// <summary>No terms of trade run longer than a year.</summary>
    public const int MostDays = 366;

    /// <summary>The day that was agreed, for an invoice of a day.</summary>
    public DateOnly DueOf(DateOnly date) =>
        (FromMonthEnd ? new DateOnly(date.Year, date.Month, DateTime.DaysInMonth(date.Year, date.Month)) : date).AddDays(Days);

    /// <summary>Says that a due date keeps the terms: it is the agreed day, or the Monday after it if that is on a weekend.</summary>
    public bool Fits(DateOnly date, DateOnly due)
    {
        var agreed = DueOf(date);
        return due == agreed || (agreed.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday && due == agreed.AddDays(agreed.DayOfWeek == DayOfWeek.Saturday ? 2 : 1));
    }

    public override string ToString() => $"{Days} days {(FromMonthEnd ? "from the month's end" : "net")}";
}
