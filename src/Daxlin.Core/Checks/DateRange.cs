using System.Globalization;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Checks;

/// <summary>Tells an invoice whose date cannot be: a year misread or misprinted, 2062 for 2026.</summary>
public static class DateRange
{
    public const string Code = "date-range";

    /// <summary>Books are kept for ten years at most in most countries: what is older is claimed from nobody.</summary>
    private const int MostYearsBefore = 10;

    /// <summary>Invoices are dated ahead by days or weeks, for the month or the year to come.</summary>
    private const int MostYearsAhead = 1;

    /// <param name="received">The day on which the document was taken in.</param>
    /// <returns>Null for a date in the range, or none.</returns>
    public static Finding? FindingOf(DateOnly? date, DateOnly received) =>
        date is not { } day || (day >= received.AddYears(-MostYearsBefore) && day <= received.AddYears(MostYearsAhead)) ? null
        : Finding.Hold(
            Code,
            $"The invoice is dated {Text(day)}, {Text(Math.Abs(day.DayNumber - received.DayNumber))} days {(day > received ? "after" : "before")} it was taken in on {Text(received)}.",
            TradeNames.InvoiceDate);

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString("N0", CultureInfo.InvariantCulture);
}
