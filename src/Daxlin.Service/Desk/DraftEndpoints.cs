using System.Text.RegularExpressions;
using Daxlin.Core.People;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Desk;

/// <summary>Keeps templates while they are worked on, so that a closed browser loses nothing and two people see each other's changes.</summary>
internal static partial class DraftEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var drafts = api.MapGroup("/template-drafts").WithTags("Desk").ChangesNeed(Right.Work);
        drafts.MapGet("", List).WithSummary("Templates that are worked on and not saved yet, the last changed first.");
        drafts.MapGet("/{key}", Show).WithSummary("A template that is worked on.");
        drafts.MapPut("/{key}", Keep).WithSummary("Keeps a template that is worked on; If-Match says which text was changed.");
        drafts.MapDelete("/{key}", Drop).WithSummary("Throws a draft away.");
    }

    private static async Task<Ok<List<DraftSummary>>> List(DaxlinDb db, CancellationToken cancel) =>
        TypedResults.Ok(await db.DeskDrafts.OrderByDescending(row => row.ChangedAt).Take(200)
            .Select(row => new DraftSummary(row.Key, row.InvoiceId, row.Vendor, row.ChangedAt, row.ChangedBy)).ToListAsync(cancel));

    private static async Task<Results<Ok<DraftDetail>, ProblemHttpResult>> Show(string key, DaxlinDb db, HttpResponse response, CancellationToken cancel) =>
        await Find(db, key, cancel) is { } row ? Tagged(row, response) : NotThere(key);

    private static async Task<Results<Ok<DraftDetail>, ProblemHttpResult>> Keep(
        string key, DraftToKeep wanted, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        if (!Keys().IsMatch(key))
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "key-faulty", "A draft is kept under its template's name, or under invoice-7 for a new one made on invoice 7.");
        if (wanted.Template is not { Length: > 0 and <= TemplateReader.LongestDocument } text)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "template-faulty", $"A template is a text of 1 to {TemplateReader.LongestDocument} characters.");
        await using var change = await turn.Take(db, cancel);
        var row = await Find(db, key, cancel);
        if (row is not null && Seen.Refuse(request, row.Revision, () => Changed(row)) is { } unseen)
            return unseen;
        if (row is null && request.Headers.IfMatch.Count > 0)
            return Problem.Of(StatusCodes.Status412PreconditionFailed, "changed-since", "This draft is not there any more: it was saved as a version, or thrown away.");
        if (row is null)
        {
            row = new DeskDraft { Key = key, Document = "", Vendor = "", ChangedAt = default, ChangedBy = "", Revision = 0 };
            db.DeskDrafts.Add(row);
        }
        (row.InvoiceId, row.Document, row.Vendor) = (wanted.Invoice, text, VendorIn().Match(text) is { Success: true } vendor ? vendor.Groups[1].Value : row.Vendor);
        (row.ChangedAt, row.ChangedBy, row.Revision) = (clock.GetUtcNow().UtcDateTime, actor.Name, row.Revision + 1);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
        return Tagged(row, request.HttpContext.Response);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Drop(string key, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (await db.DeskDrafts.Where(row => row.Key == key).ExecuteDeleteAsync(cancel) == 0)
            return NotThere(key);
        await change.Commit(cancel);
        return TypedResults.NoContent();
    }

    private static Task<DeskDraft?> Find(DaxlinDb db, string key, CancellationToken cancel) => db.DeskDrafts.SingleOrDefaultAsync(row => row.Key == key, cancel);

    private static Ok<DraftDetail> Tagged(DeskDraft row, HttpResponse response)
    {
        Seen.Tag(response, row.Revision);
        return TypedResults.Ok(new DraftDetail(row.Key, row.InvoiceId, row.Document, row.ChangedAt, row.ChangedBy, row.Revision));
    }

    private static string Changed(DeskDraft row) => $"{row.ChangedBy} has changed this draft meanwhile, {row.ChangedAt:yyyy-MM-dd HH:mm:ss} UTC. Look at it before you go on.";

    private static ProblemHttpResult NotThere(string key) => Problem.NotThere($"draft “{key}”");

    [GeneratedRegex("^(?:invoice-[1-9][0-9]{0,8}|[a-z0-9]+(?:-[a-z0-9]+)*)$")]
    private static partial Regex Keys();

    [GeneratedRegex("\"vendor\"\\s*:\\s*\"([^\"\\\\]{1,100})\"")]
    private static partial Regex VendorIn();
}
