using System.Globalization;
using System.Text;
using Daxlin.Core.Checks;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Core.Values;
using Daxlin.Service.Batches;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Vendors;

internal static class VendorEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var vendors = api.MapGroup("/vendors").WithTags("Vendors").ChangesNeed(Right.Work);
        vendors.MapGet("", List).WithSummary("All vendors by name; or those with some letters in a name, a tax number or an account.");
        vendors.MapPost("", Begin).WithSummary("Begins a vendor's record. One begins by itself, too, with the first template or invoice of a vendor.");
        vendors.MapGet("/{id:int}", Show).WithSummary("A vendor's record.");
        vendors.MapPut("/{id:int}", Keep).WithSummary("Says anew what a vendor's record says; its open invoices are looked at anew.");
        vendors.MapPost("/{id:int}/accounts", Add).WithSummary("Adds a bank account; it counts when another person has confirmed it.");
        vendors.MapPost("/{id:int}/accounts/confirmation", Confirm).WithSummary("Confirms a bank account that another person added.").Needs(Right.Approve);
        vendors.MapPost("/{id:int}/accounts/end", End).WithSummary("Says that an account is none of the vendor's any more.");
        vendors.MapPut("/{id:int}/group", GiveGroup).WithSummary("Says whose a vendor's invoices are, for those who are held to groups.").Needs(Right.Administer);
        vendors.MapGet("/export", Export).WithSummary("All vendors' records as CSV.").Produces<string>(contentType: "text/csv");
        vendors.MapPost("/import", Import).RequireRateLimiting(Limits.Heavy).WithSummary("Takes vendors' records from CSV: row by row, each by itself; empty cells leave what is there.").Accepts<string>("text/csv");
    }

    private static async Task<Ok<List<VendorSummary>>> List(
        [FromQuery(Name = "search")] string? search, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var vendors = VendorList.Like(db, search);
        if (page.AfterNumber is { } after && await db.Vendors.FindAsync([after], cancel) is { } last)
            vendors = vendors.Where(vendor => string.Compare(vendor.Name, last.Name) > 0 || (vendor.Name == last.Name && vendor.Id > last.Id));
        var rows = await page.Of(VendorList.Counted(db, vendors), row => row.Row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(rows.ConvertAll(VendorList.SummaryOf));
    }

    private static async Task<Results<Ok<VendorDetail>, ProblemHttpResult>> Show(int id, DaxlinDb db, HttpResponse response, CancellationToken cancel) =>
        await db.Vendors.FindAsync([id], cancel) is { } vendor ? TypedResults.Ok(await Tagged(vendor, 0, db, response, cancel)) : Problem.NotThere($"vendor {id}");

    private static async Task<Results<Created<VendorDetail>, ProblemHttpResult>> Begin(
        VendorToKeep wanted, Actor actor, DaxlinDb db, VendorKeeping keeping, WriteTurn turn, HttpResponse response, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var (vendor, moved, refused) = await keeping.Keep(null, wanted.Record, actor.Name, cancel);
        if (vendor is null)
            return refused!.ToProblem();
        await change.Commit(cancel);
        return TypedResults.Created($"/api/v1/vendors/{vendor.Id}", await Tagged(vendor, moved, db, response, cancel));
    }

    private static Task<Results<Ok<VendorDetail>, ProblemHttpResult>> Keep(
        int id, VendorToKeep wanted, HttpRequest request, Actor actor, DaxlinDb db, VendorKeeping keeping, WriteTurn turn, CancellationToken cancel) =>
        Do(id, request, db, turn, async vendor =>
        {
            var (_, moved, refused) = await keeping.Keep(vendor, wanted.Record, actor.Name, cancel);
            return (moved, refused);
        }, cancel);

    private static Task<Results<Ok<VendorDetail>, ProblemHttpResult>> Add(
        int id, AccountToAdd wanted, HttpRequest request, Actor actor, DaxlinDb db, VendorKeeping keeping, WriteTurn turn, CancellationToken cancel) =>
        Do(id, request, db, turn, async vendor => (0, await keeping.AddAccount(vendor, wanted, actor.Name, cancel)), cancel);

    private static async Task<Results<Ok<VendorDetail>, ProblemHttpResult>> Confirm(
        int id, AccountDecision wanted, HttpRequest request, Actor actor, DaxlinDb db, VendorKeeping keeping, WriteTurn turn, CancellationToken cancel) =>
        actor.For.Length > 0 ? Problem.Of(StatusCodes.Status403Forbidden, "right-missing", $"{actor.Name} stands in for {actor.For} at approvals; bank details are confirmed by an approver in person.")
        : await Do(id, request, db, turn, vendor => keeping.ConfirmAccount(vendor, wanted, actor.Name, cancel), cancel);

    private static Task<Results<Ok<VendorDetail>, ProblemHttpResult>> End(
        int id, AccountDecision wanted, HttpRequest request, Actor actor, DaxlinDb db, VendorKeeping keeping, WriteTurn turn, CancellationToken cancel) =>
        Do(id, request, db, turn, vendor => keeping.EndAccount(vendor, wanted, actor.Name, cancel), cancel);

    private static Task<Results<Ok<VendorDetail>, ProblemHttpResult>> GiveGroup(
        int id, GroupToGive wanted, HttpRequest request, Actor actor, GivingGroup giving, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Do(id, request, db, turn, async vendor => (0, await giving.Do(vendor, HistoryStreams.Vendor(id), wanted.Group, actor, cancel)), cancel);

    /// <param name="act">Does it and says how many invoices are held or clear now that were not before; or why it cannot be done.</param>
    private static Task<Results<Ok<VendorDetail>, ProblemHttpResult>> Do(
        int id, HttpRequest request, DaxlinDb db, WriteTurn turn, Func<Vendor, Task<(int Moved, Refused? Refused)>> act, CancellationToken cancel)
    {
        var moved = 0;
        return Bound.Do<Vendor, VendorDetail>(
            id, "vendor", db, turn, request, vendor => $"The record of {vendor.Name} was changed since it was shown. Look at it again.",
            async vendor =>
            {
                (moved, var refused) = await act(vendor);
                return refused;
            },
            vendor => Detail(vendor, moved, db, cancel), cancel);
    }

    private static async Task<FileContentHttpResult> Export(DaxlinDb db, CancellationToken cancel) =>
        TypedResults.File(Encoding.UTF8.GetBytes(await VendorFile.Write(db, cancel)), "text/csv; charset=utf-8", "vendors.csv");

    private static async Task<Results<Ok<List<ImportedVendor>>, ProblemHttpResult>> Import(
        HttpRequest request, Actor actor, VendorImport import, CancellationToken cancel)
    {
        using var reader = new StreamReader(request.Body, new UTF8Encoding(false, throwOnInvalidBytes: true));
        var (rows, refused) = await import.Take(await reader.ReadToEndAsync(cancel), actor.Name, cancel);
        return rows is null ? refused!.ToProblem() : TypedResults.Ok(rows);
    }

    private static async Task<VendorDetail> Tagged(Vendor vendor, int moved, DaxlinDb db, HttpResponse response, CancellationToken cancel)
    {
        Seen.Tag(response, vendor.Revision);
        return await Detail(vendor, moved, db, cancel);
    }

    private static async Task<VendorDetail> Detail(Vendor vendor, int moved, DaxlinDb db, CancellationToken cancel)
    {
        var record = await VendorRegister.Record(db, vendor, cancel);
        var keys = record.Names.Select(SeenBefore.Squash).ToHashSet();
        var accounts = await db.VendorAccounts.Where(account => account.VendorId == vendor.Id).OrderBy(account => account.Id).ToListAsync(cancel);
        var ofVendor = db.Invoices.Where(invoice => invoice.VendorId == vendor.Id && invoice.State != InvoiceState.Returned);
        var borne = await ofVendor.Where(invoice => invoice.Iban != "").GroupBy(invoice => invoice.Iban).Select(group => new { Iban = group.Key, Count = group.Count() }).ToListAsync(cancel);
        var templates = await TemplateVersions.Newest(db).Select(template => new { template.Name, template.Vendor }).ToListAsync(cancel);
        return new VendorDetail(
            vendor.Id, vendor.Revision, record.Name, record.OtherNames, record.TaxIds, record.Currency,
            record.Terms is { } terms ? new TermsRecord(terms.Days, terms.FromMonthEnd) : null, record.LedgerAccount, record.TaxCode,
            [.. accounts.Select(Of)],
            [
                .. borne.Where(one => !accounts.Any(account => account.Iban == one.Iban && account.EndedAt is null)).OrderByDescending(one => one.Count).ThenBy(one => one.Iban)
                    .Select(one => new AccountSeen(Iban.Grouped(one.Iban), one.Count)),
            ],
            [.. templates.Where(template => keys.Contains(SeenBefore.Squash(template.Vendor))).Select(template => template.Name).Order(StringComparer.Ordinal)],
            await ofVendor.CountAsync(cancel), await ofVendor.CountAsync(invoice => invoice.State == InvoiceState.Held, cancel), moved, vendor.Group);
    }

    private static AccountRecord Of(VendorAccount account) => new(
        Iban.Grouped(account.Iban), account.EndedAt is not null ? "ended" : account.ConfirmedAt is not null ? "confirmed" : "waiting",
        account.AddedAt, account.AddedBy, account.Reason, account.ConfirmedAt, account.ConfirmedBy, account.EndedAt, account.EndedBy);
}
