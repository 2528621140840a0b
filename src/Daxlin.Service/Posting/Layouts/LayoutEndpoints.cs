using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.People;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Layouts;

internal static class LayoutEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var layouts = api.MapGroup("/posting-layouts").WithTags("Posting").ChangesNeed(Right.Work);
        layouts.MapGet("", List).WithSummary("All posting layouts, the newest version of each.");
        layouts.MapPost("", Save).WithSummary("Saves a layout document; a changed one becomes the next version.");
        layouts.MapPost("/trial", Try).RequireRateLimiting(Limits.Heavy).WithSummary("What a layout makes of some invoices, and what is wrong with it; nothing is stored.").OnlyLooks();
        layouts.MapGet("/{name}", Show).WithSummary("A layout with its document, the newest version unless one is named.");
        layouts.MapGet("/{name}/versions", Versions).WithSummary("A layout's history, the newest version first.");
        layouts.MapRetirement<LayoutShelf, LayoutVersion>("Retires a layout: no run is made by it any more.", "Brings a retired layout back.");
        api.MapGet("/layout-names", Names).WithTags("Posting").WithSummary("The names that the columns of each kind of record can speak of; templates' own names come besides.");
        api.MapGet("/layout-formats", Formats).WithTags("Posting").WithSummary("The formats that files of layouts have, and what can be said of each.");
        api.MapGet("/layout.schema.json", () => Results.Stream(LayoutSchema.Open(), "application/schema+json")).WithTags("Posting").WithSummary("The JSON Schema of layout documents.");
    }

    private static Ok<List<OfferedNames>> Names() => TypedResults.Ok(Enum.GetValues<LayoutRecords>().Select(OfferedNames.Of).ToList());

    private static Ok<List<OfferedFormat>> Formats() => TypedResults.Ok(Enum.GetValues<FileFormat>().Select(OfferedFormat.Of).ToList());

    private static async Task<Ok<List<LayoutSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, ListShelf shelf, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var (lists, _) = await shelf.Now(cancel);
        var rows = await page.Of(
            LayoutShelf.Newest(db).Where(row => string.Compare(row.Name, after) > 0).OrderBy(row => row.Name)
                .Select(row => new { Row = row, Runs = db.PostingRuns.Count(run => run.Layout == row.Name) }),
            row => row.Row.Name, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one => new LayoutSummary(
            one.Row.Name, one.Row.Version, one.Row.SavedAt, one.Row.SavedBy, one.Row.Note, one.Row.IsRetired, FormatOf(one.Row.Document, lists), one.Runs)));
    }

    private static string FormatOf(string document, Core.Posting.Expressions.TranslationLists lists)
    {
        try
        {
            return LayoutReader.Read(document, lists).File.Format.Word();
        }
        catch (JsonFaultException)
        {
            return "";
        }
    }

    private static async Task<Results<Ok<LayoutDetail>, ProblemHttpResult>> Show(string name, int? version, LayoutShelf shelf, HttpResponse response, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } newest)
            return NotThere(name);
        if (await shelf.Row(name, version, cancel) is not { } row)
            return Problem.NotThere($"version {version} of the layout “{name}”");
        Seen.Tag(response, newest.Version);
        return TypedResults.Ok(new LayoutDetail(row.Name, row.Version, newest.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, row.Document));
    }

    private static async Task<Results<Ok<List<LayoutVersionRecord>>, ProblemHttpResult>> Versions(string name, DaxlinDb db, CancellationToken cancel)
    {
        var versions = await db.Layouts.Where(row => row.Name == name).OrderByDescending(row => row.Version)
            .Select(row => new LayoutVersionRecord(
                row.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, db.PostingRuns.Count(run => run.Layout == name && run.LayoutVersion == row.Version)))
            .ToListAsync(cancel);
        return versions.Count == 0 ? NotThere(name) : TypedResults.Ok(versions);
    }

    private static async Task<Results<Ok<DocumentSaved>, Created<DocumentSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, Actor actor, LayoutShelf shelf, ListShelf lists, WriteTurn turn, CancellationToken cancel)
    {
        var document = await SentDocument.Of(request, LayoutReader.Longest, cancel);
        PostingLayout layout;
        try
        {
            layout = LayoutReader.Read(document, (await lists.Now(cancel)).Lists);
        }
        catch (JsonFaultException error)
        {
            return shelf.Faulty(error);
        }
        return await shelf.Save(layout.Name, document, note, $"/api/v1/posting-layouts/{layout.Name}", request, actor, turn, cancel);
    }

    private static async Task<Results<Ok<TriedLayout>, ProblemHttpResult>> Try(LayoutToTry wanted, TriedLayouts tried, CancellationToken cancel)
    {
        if (wanted.Document is not { Length: > 0 } document)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "Say in “document” which layout is to be tried.");
        if (wanted.Invoices is { Length: > TriedLayouts.Most })
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "too-many", $"A layout is tried on {TriedLayouts.Most} invoices at most.");
        return TypedResults.Ok(await tried.Try(document, wanted.Invoices, cancel));
    }

    private static ProblemHttpResult NotThere(string name) => Problem.NotThere($"layout “{name}”");
}
