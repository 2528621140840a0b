using System.Text;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Lists;

internal static class ListEndpoints
{
    private const int LongestFile = 20_000_000;

    public static void Map(RouteGroupBuilder api)
    {
        var lists = api.MapGroup("/translation-lists").WithTags("Posting").ChangesNeed(Right.Work);
        lists.MapGet("", All).WithSummary("All translation lists, in which layouts look words up.");
        lists.MapGet("/{name}", Show).WithSummary("A translation list with its entries.");
        lists.MapGet("/{name}/file", Export).WithSummary("A translation list as CSV: word, meaning, from.").Produces<string>(contentType: "text/csv");
        lists.MapPut("/{name}/file", Import).WithSummary("Takes a translation list from CSV, in the place of what it said before.").Accepts<string>("text/csv");
    }

    private static async Task<Ok<List<ListSummary>>> All([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(
            ListShelf.Newest(db).Where(row => string.Compare(row.Name, after) > 0).OrderBy(row => row.Name).Select(row => new { row.Name, row.Count, row.SavedAt, row.SavedBy, row.Version }),
            row => row.Name, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(row => new ListSummary(row.Name, row.Version, row.Count, row.SavedAt, row.SavedBy)));
    }

    private static async Task<Results<Ok<ListDetail>, ProblemHttpResult>> Show(string name, ListShelf shelf, HttpResponse response, CancellationToken cancel)
    {
        if (await shelf.Find(name, cancel) is not { } list)
            return NotThere(name);
        Seen.Tag(response, list.Version);
        return TypedResults.Ok(new ListDetail(list.Name, list.Version, list.SavedAt, list.SavedBy, ListShelf.EntriesOf(list)));
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Export(string name, ListShelf shelf, CancellationToken cancel) => await shelf.Find(name, cancel) is { } list
        ? TypedResults.File(Encoding.UTF8.GetBytes(ListFile.Write(ListShelf.EntriesOf(list))), "text/csv; charset=utf-8", $"{name}.csv") : NotThere(name);

    /// <remarks>A list that is there is bound to what was seen if If-Match says so; a file under version control is taken in unseen.</remarks>
    private static async Task<Results<Ok<ListSummary>, ProblemHttpResult>> Import(string name, HttpRequest request, Actor actor, ListShelf shelf, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        if (DocumentName.FaultOf(name) is { } fault)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "name-faulty", fault);
        var (entries, refused) = ListFile.Read(await SentDocument.Of(request, LongestFile, cancel));
        if (refused is not null)
            return refused.ToProblem();
        await using var change = await turn.Take(db, cancel);
        var newest = await shelf.Find(name, cancel);
        if (newest is not null && Seen.RefuseVersion(request, newest.Version, $"list “{name}”", newest.SavedBy, newest.SavedAt) is { } unseen)
            return unseen;
        var saved = await shelf.Save(newest, name, entries, actor.Name, cancel);
        await change.Commit(cancel);
        Seen.Tag(request.HttpContext.Response, saved.Version);
        return TypedResults.Ok(new ListSummary(saved.Name, saved.Version, saved.Count, saved.SavedAt, saved.SavedBy));
    }

    private static ProblemHttpResult NotThere(string name) => Problem.NotThere($"list “{name}”");
}
