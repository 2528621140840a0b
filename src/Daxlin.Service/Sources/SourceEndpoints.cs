using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Sources;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Outgoing;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

internal static class SourceEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var sources = api.MapGroup("/sources").WithTags("Sources").ChangesNeed(Right.Administer).NeedsAllGroups();
        sources.MapGet("", List).WithSummary("All sources of invoices, the newest version of each, with how it is.");
        sources.MapPost("", Save).WithSummary("Saves a source's document; a changed one becomes the next version.");
        sources.MapPost("/check", Check).WithSummary("What a source's document says and what is wrong with it; nothing is stored, and nothing is looked at.");
        sources.MapGet("/{name}", Show).WithSummary("A source with its document, the newest version unless one is named.");
        sources.MapVersions<SourceShelf, SourceVersion>("A source's versions, the newest first.");
        sources.MapGet("/{name}/items", Items).WithSummary("What came from a source and what became of it, the newest first.");
        sources.MapGet("/{name}/items/{id:int}/original", Original).WithSummary("A file or a message byte for byte as it came.");
        sources.MapPost("/{name}/look", Look).RequireRateLimiting(Limits.Heavy).WithSummary("Looks at a source now, takes what is there, and says what came of it.").Needs(Right.Work);
        var (pause, resume) = sources.MapPausing<SourceShelf, SourceVersion, SourceState>("Stops looking at a source until somebody says to go on.", "Goes on looking at a source.");
        pause.Needs(Right.Work);
        resume.Needs(Right.Work);
        sources.MapRetirement<SourceShelf, SourceVersion>("Retires a source: it is not looked at any more.", "Brings a retired source back.");
        api.MapGet("/source.schema.json", () => Results.Stream(SourceSchema.Open(), "application/schema+json")).WithTags("Sources").WithSummary("The JSON Schema of sources.");
    }

    private static async Task<Ok<List<SourceSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, TimeProvider clock, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(
            SourceShelf.Newest(db).Where(row => string.Compare(row.Name, after) > 0).OrderBy(row => row.Name).Select(row => new
            {
                Row = row,
                State = db.SourceStates.SingleOrDefault(state => state.Name == row.Name),
                Items = db.SourceItems.Count(item => item.Source == row.Name),
                Documents = db.SourceItems.Where(item => item.Source == row.Name).Sum(item => item.Documents),
                LeftOut = db.SourceItems.Where(item => item.Source == row.Name).Sum(item => item.LeftOut),
            }),
            row => row.Row.Name, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one =>
        {
            var source = SourceShelf.Read(one.Row);
            return new SourceSummary(
                one.Row.Name, one.Row.Version, one.Row.SavedAt, one.Row.SavedBy, one.Row.Note, source?.Way.Word ?? "", source?.Way.Place ?? "", source?.Batch.Pattern ?? "",
                SourceShelf.WordOf(one.Row.IsRetired, one.State, source, clock.GetLocalNow().DateTime), one.State?.Trouble ?? "", one.State?.TroubleSince, one.State?.LookedAt, one.State?.TakenAt, one.Items, one.Documents, one.LeftOut);
        }));
    }

    private static async Task<Results<Ok<SourceDetail>, ProblemHttpResult>> Show(string name, int? version, SourceShelf shelf, TimeProvider clock, HttpResponse response, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } newest)
            return NotThere(name);
        if (await shelf.Row(name, version, cancel) is not { } row)
            return Problem.NotThere($"version {version} of the source “{name}”");
        var (source, state) = (SourceShelf.Read(row), await shelf.Db.SourceStates.AsNoTracking().SingleOrDefaultAsync(one => one.Name == name, cancel));
        Seen.Tag(response, newest.Version);
        return TypedResults.Ok(new SourceDetail(
            row.Name, row.Version, newest.Version, row.SavedAt, row.SavedBy, row.Note, SourceShelf.WordOf(newest.IsRetired, state, SourceShelf.Read(newest), clock.GetLocalNow().DateTime), state?.Trouble ?? "", state?.TroubleSince, state?.LookedAt, state?.TakenAt,
            row.Document, source?.Says ?? [], shelf.MissingOf(source)));
    }

    private static async Task<Results<Ok<List<SourceItemRecord>>, ProblemHttpResult>> Items(string name, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Sources.AnyAsync(row => row.Name == name, cancel))
            return NotThere(name);
        var before = page.AfterNumber ?? int.MaxValue;
        var rows = await page.Of(
            db.SourceItems.AsNoTracking().Where(row => row.Source == name && row.Id < before).OrderByDescending(row => row.Id)
                .Select(row => new { Row = row, Batch = db.Batches.Where(batch => batch.Id == row.BatchId).Select(batch => batch.Name).SingleOrDefault() }),
            row => row.Row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one => new SourceItemRecord(
            one.Row.Id, one.Row.Name, one.Row.From, one.Row.At, one.Row.Size, one.Row.BatchId, one.Batch ?? "", one.Row.Documents, one.Row.LeftOut,
            JsonSerializer.Deserialize<ImmutableArray<SourcePart>>(one.Row.Parts, JsonSerializerOptions.Web),
            MailWords.Of(one.Row.AnswerState), one.Row.AnswerTo, one.Row.AnswerSays,
            one.Row.Sha256.Length > 0)));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Original(string name, int id, DaxlinDb db, DocumentStore documents, CancellationToken cancel)
    {
        if (await db.SourceItems.AsNoTracking().SingleOrDefaultAsync(row => row.Source == name && row.Id == id && row.Sha256 != "", cancel) is not { } item)
            return Problem.NotThere($"item {id} of the source “{name}” whose bytes are kept");
        // Whatever it is, it is to be kept and not shown: a browser would open what a stranger sent.
        return await documents.FaultOf(item.Sha256, cancel) is var (code, sentence) ? Problem.Of(StatusCodes.Status410Gone, code, sentence)
            : TypedResults.PhysicalFile(documents.PathOf(item.Sha256), "application/octet-stream", Core.Capture.FileName.Of(item.Name));
    }

    private static async Task<Results<Ok<DocumentSaved>, Created<DocumentSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, Actor actor, SourceShelf shelf, WriteTurn turn, CancellationToken cancel)
    {
        var document = await SentDocument.Of(request, SourceReader.Longest, cancel);
        Source source;
        try
        {
            source = SourceReader.Read(document);
        }
        catch (JsonFaultException error)
        {
            return shelf.Faulty(error);
        }
        return await shelf.Save(source.Name, document, note, $"/api/v1/sources/{source.Name}", request, actor, turn, cancel);
    }

    private static Results<Ok<CheckedSource>, ProblemHttpResult> Check(SourceToCheck wanted, SourceShelf shelf)
    {
        if (wanted.Document is null)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "The key “document” is missing: the source's document, as text.");
        try
        {
            var source = SourceReader.Read(wanted.Document);
            return TypedResults.Ok(new CheckedSource(source.Name, [], source.Says, [.. source.Way.Secrets], shelf.MissingOf(source)));
        }
        catch (JsonFaultException error)
        {
            return TypedResults.Ok(new CheckedSource("", DocumentFaultRecord.Of(error.Faults), [], [], []));
        }
    }

    private static async Task<Results<Ok<LookedAtSource>, ProblemHttpResult>> Look(string name, SourceShelf shelf, SourceWatch watch, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } row)
            return NotThere(name);
        if (row.IsRetired)
            return Problem.Of(StatusCodes.Status409Conflict, "source-retired", $"The source “{name}” is retired: it is not looked at any more.");
        return TypedResults.Ok((await watch.Look(row, cancel)).Said);
    }

    private static ProblemHttpResult NotThere(string name) => Problem.NotThere($"source “{name}”");
}
