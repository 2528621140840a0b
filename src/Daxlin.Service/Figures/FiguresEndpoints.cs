using System.Globalization;
using Daxlin.Service.Batches;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Figures;

internal static class FiguresEndpoints
{
    private const int MostVendors = 50;
    private const int DaysOfWeek = 7;

    /// <summary>Of a date as yyyy-MM-dd, and of its month.</summary>
    private const int LengthOfDate = 10;
    private const int LengthOfMonth = 7;

    public static void Map(RouteGroupBuilder api) => api.MapGet("/figures", Show).WithTags("Figures")
        .WithSummary("How the work went: what went through untouched, by week and vendor; what holds invoices; sums by vendor and month.");

    private static async Task<Ok<WorkFigures>> Show(
        [FromQuery(Name = "from")] DateOnly? from, [FromQuery(Name = "to")] DateOnly? to, [FromQuery(Name = "batch")] int? batch, DaxlinDb db, CancellationToken cancel)
    {
        var rows = db.Invoices.AsNoTracking().Where(row => row.State != InvoiceState.Returned && (batch == null || row.BatchId == batch));
        if (from is { } first)
        {
            var start = first.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
            rows = rows.Where(row => row.Intake.ReceivedAt >= start);
        }
        if (to is { } last)
        {
            var end = last.AddDays(1).ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
            rows = rows.Where(row => row.Intake.ReceivedAt < end);
        }
        var counted = CountedInvoice.Of(rows);
        var days = await counted.GroupBy(invoice => new { invoice.ReceivedAt.Date, invoice.IsUntouched, invoice.Vendor })
            .Select(group => new { group.Key.Date, group.Key.IsUntouched, group.Key.Vendor, Count = group.Count() }).ToListAsync(cancel);
        var months = await counted.Where(invoice => invoice.Vendor != "" && invoice.InvoiceDate.Length == LengthOfDate)
            .GroupBy(invoice => new { Month = invoice.InvoiceDate.Substring(0, LengthOfMonth), invoice.Vendor, invoice.Currency })
            .Select(group => new { group.Key.Month, group.Key.Vendor, group.Key.Currency, Count = group.Count(), Size = group.Sum(invoice => invoice.Size) })
            .OrderBy(group => group.Month).ThenBy(group => group.Vendor).ThenBy(group => group.Currency).ToListAsync(cancel);
        return TypedResults.Ok(new WorkFigures(
            [
                .. days.GroupBy(day => MondayOf(DateOnly.FromDateTime(day.Date))).OrderBy(week => week.Key)
                    .Select(week => new WeekFigure(week.Key, week.Sum(day => day.Count), week.Where(day => day.IsUntouched).Sum(day => day.Count))),
            ],
            [
                .. days.Where(day => day.Vendor.Length > 0).GroupBy(day => day.Vendor).Select(vendor => new VendorFigure(vendor.Key, vendor.Sum(day => day.Count), vendor.Where(day => day.IsUntouched).Sum(day => day.Count)))
                    .OrderByDescending(vendor => vendor.Invoices).ThenBy(vendor => vendor.Vendor, StringComparer.Ordinal).Take(MostVendors),
            ],
            await ReasonCount.Of(counted, cancel),
            [.. months.Select(month => new MonthSum(month.Month, month.Vendor, month.Currency, month.Count, BatchSheets.Settled(Invoice.AmountOf(month.Size), month.Currency)))]));
    }

    /// <summary>The first day of the week (ISO 8601) that a day is in.</summary>
    private static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + DaysOfWeek - 1) % DaysOfWeek));
}
