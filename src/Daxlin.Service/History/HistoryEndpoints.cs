using System.Globalization;
using System.Text.Json;
using Daxlin.Core.History;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.History;

internal static class HistoryEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var history = api.MapGroup("/history").WithTags("History");
        history.MapGet("", List).WithSummary("What was done, the newest first: all of it, or of one thing, by one person, in a time.");
        history.MapGet("/export", Export).WithSummary("The same from the oldest on, an entry a line (NDJSON).").Produces<string>(contentType: "application/x-ndjson");
        history.MapGet("/verify", Verify).WithSummary("Goes through all of it, and names the first link that does not hold.").NeedsAllGroups();
    }

    private static async Task<Ok<List<HistoryEntryRecord>>> List(
        [AsParameters] HistoryFilter filter, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var before = page.AfterNumber ?? int.MaxValue;
        var rows = await page.Of(filter.Of(db).Where(row => row.Id < before).OrderByDescending(row => row.Id), row => row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(rows.ConvertAll(Of));
    }

    private static async Task Export([AsParameters] HistoryFilter filter, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        context.Response.ContentType = "application/x-ndjson; charset=utf-8";
        await foreach (var row in filter.Of(db).OrderBy(row => row.Id).AsAsyncEnumerable().WithCancellation(cancel))
        {
            await JsonSerializer.SerializeAsync(context.Response.Body, Of(row), JsonSerializerOptions.Web, cancel);
            await context.Response.Body.WriteAsync("\n"u8.ToArray(), cancel);
        }
    }

    private static async Task<Ok<HistoryVerified>> Verify(DaxlinDb db, CancellationToken cancel) => TypedResults.Ok(await HistoryVerification.Run(db, withRecords: true, cancel));

    private static HistoryEntryRecord Of(HistoryRow row) => new(
        row.Id, row.Stream, row.Number, row.At, row.By, row.Act, row.What, row.Before, row.After, row.Reason, row.Letter, row.Content, row.Hash);
}

/// <summary>Which part of the history is asked for; all that is said must be so.</summary>
/// <param name="Invoice">Of this invoice.</param>
/// <param name="Vendor">Of this vendor and of its invoices.</param>
/// <param name="Template">Of this template.</param>
/// <param name="Run">Of this posting run.</param>
/// <param name="Person">Of this person: sign-ins, rights, keys, refusals.</param>
/// <param name="By">By the person of this name.</param>
/// <param name="Act">Only this act: captured, corrected, approved …</param>
/// <param name="From">From this day on, in UTC.</param>
/// <param name="To">Up to this day, itself among it.</param>
internal readonly record struct HistoryFilter(
    [FromQuery(Name = "invoice")] int? Invoice, [FromQuery(Name = "vendor")] int? Vendor, [FromQuery(Name = "template")] string? Template,
    [FromQuery(Name = "run")] int? Run, [FromQuery(Name = "person")] int? Person,
    [FromQuery(Name = "by")] string? By, [FromQuery(Name = "act")] string? Act, [FromQuery(Name = "from")] DateOnly? From, [FromQuery(Name = "to")] DateOnly? To)
{
    public IQueryable<HistoryRow> Of(DaxlinDb db)
    {
        var rows = db.History.AsNoTracking();
        if (Invoice is { } invoice)
            rows = Stream(rows, HistoryStreams.Invoice(invoice));
        if (Template is { } template)
            rows = Stream(rows, HistoryStreams.Template(template));
        if (Run is { } run)
            rows = Stream(rows, HistoryStreams.PostingRun(run));
        if (Person is { } person)
            rows = Stream(rows, HistoryStreams.Person(person));
        if (Vendor is { } vendor)
        {
            var own = HistoryStreams.Vendor(vendor);
            // The names of the streams are worked out once, and looked up for each entry.
            rows = rows.Where(row => row.Stream == own || db.Invoices.Where(one => one.VendorId == vendor).Select(one => "invoice/" + one.Id.ToString()).Contains(row.Stream));
        }
        if (By is { } by)
            rows = rows.Where(row => row.By == by);
        if (Act is { } act)
            rows = rows.Where(row => row.Act == act);
        if (From is { } from)
        {
            var first = from.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
            rows = rows.Where(row => row.At >= first);
        }
        if (To is { } to)
        {
            var end = to.AddDays(1).ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
            rows = rows.Where(row => row.At < end);
        }
        return rows;
    }

    private static IQueryable<HistoryRow> Stream(IQueryable<HistoryRow> rows, string stream) => rows.Where(row => row.Stream == stream);
}
