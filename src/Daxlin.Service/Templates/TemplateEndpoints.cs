using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

internal static class TemplateEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var templates = api.MapGroup("/templates").WithTags("Templates").ChangesNeed(Right.Work);
        templates.MapGet("", List).WithSummary("All templates, the newest version of each.");
        templates.MapPost("", Save).WithSummary("Saves a template document; a changed one becomes the next version, by which what is held or unplaced is captured anew.");
        templates.MapPost("/check", Check).WithSummary("Says what is wrong with a template document, and saves nothing.");
        api.MapGet("/template.schema.json", () => Results.Stream(TemplateSchema.Open(), "application/schema+json")).WithTags("Templates")
            .WithSummary("The JSON Schema of template documents.");
        templates.MapGet("/{name}", Show).WithSummary("A template with its document, the newest version unless one is named.");
        templates.MapGet("/{name}/versions", Versions).WithSummary("A template's history, the newest version first.");
        templates.MapGet("/{name}/comparison", Compare).WithSummary("What two versions of a template say otherwise, key by key.");
        templates.MapGet("/{name}/drift", Drift).WithSummary("Signs that a vendor's layout has changed under its template.");
        templates.MapGet("/{name}/corrections", Corrections)
            .WithSummary("What persons corrected in the same way on three invoices or more of the newest version, each with the change that would capture it so.");
        api.MapGet("/batches/{id:int}/drift", DriftOfBatch).WithTags("Templates").WithSummary("The same for all templates that captured invoices of a batch.");
        templates.MapPost("/{name}/retirement", Retire).WithSummary("Retires a template: it recognises nothing any more, and its history is kept.");
        templates.MapPost("/{name}/comeback", BringBack).WithSummary("Brings a retired template back.");
        templates.MapPost("/{name}/return", Return).WithSummary("Makes an older version the current one again, as a new version.");
        templates.MapPost("/{name}/renaming", Rename).WithSummary("Gives a template another name; its invoices keep the name that captured them.");
    }

    private static async Task<Ok<List<TemplateSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, DriftWatch drift, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(TemplateList.All(db).Where(row => string.Compare(row.Name, after) > 0), row => row.Name, context, cancel);
        return TypedResults.Ok(await TemplateList.SummariesOf(rows, db, drift, cancel));
    }

    private static async Task<Results<Ok<ImmutableArray<DriftRecord>>, ProblemHttpResult>> Drift(string name, DaxlinDb db, DriftWatch drift, CancellationToken cancel) =>
        await Newest(db, name, cancel) is null ? NotThere(name) : TypedResults.Ok(await drift.Of(db, [name], cancel));

    private static async Task<Results<Ok<ImmutableArray<RepeatedCorrectionRecord>>, ProblemHttpResult>> Corrections(
        string name, DaxlinDb db, TaughtTemplates taught, CancellationToken cancel) =>
        await Newest(db, name, cancel) is { } newest ? TypedResults.Ok(await taught.Of(newest, cancel)) : NotThere(name);

    private static async Task<Results<Ok<ImmutableArray<DriftRecord>>, ProblemHttpResult>> DriftOfBatch(int id, DaxlinDb db, DriftWatch drift, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var names = await db.Invoices.Where(invoice => invoice.BatchId == id && invoice.Template != "").Select(invoice => invoice.Template).Distinct().ToListAsync(cancel);
        return TypedResults.Ok(await drift.Of(db, names, cancel));
    }

    private static async Task<Results<Ok<TemplateDetail>, ProblemHttpResult>> Show(
        string name, int? version, DaxlinDb db, HttpResponse response, CancellationToken cancel)
    {
        var newest = await Newest(db, name, cancel);
        if (newest is null)
            return NotThere(name);
        var row = version is null ? newest : await Version(db, name, version.Value, cancel);
        if (row is null)
            return NotThere(name, version);
        Seen.Tag(response, newest.Version);
        var names = await TemplateNames.Of(db, name, cancel);
        var last = await db.Invoices.Where(invoice => names.Contains(invoice.Template)).MaxAsync(invoice => (int?)invoice.Id, cancel);
        using var document = JsonDocument.Parse(row.Document);
        return TypedResults.Ok(new TemplateDetail(
            row.Name, row.Vendor, row.Currency, row.Version, newest.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, row.Formerly, last, document.RootElement.Clone()));
    }

    private static async Task<Results<Ok<List<TemplateVersionRecord>>, ProblemHttpResult>> Versions(string name, DaxlinDb db, CancellationToken cancel)
    {
        var versions = await db.Templates.Where(row => row.Name == name).OrderByDescending(row => row.Version)
            .Select(row => new TemplateVersionRecord(row.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, db.Invoices.Count(invoice => invoice.Template == name && invoice.TemplateVersion == row.Version)))
            .ToListAsync(cancel);
        return versions.Count == 0 ? NotThere(name) : TypedResults.Ok(versions);
    }

    private static async Task<Results<Ok<List<TemplateDifferenceRecord>>, ProblemHttpResult>> Compare(string name, int from, int to, DaxlinDb db, CancellationToken cancel)
    {
        if (await Version(db, name, from, cancel) is not { } before)
            return NotThere(name, from);
        if (await Version(db, name, to, cancel) is not { } after)
            return NotThere(name, to);
        return TypedResults.Ok(TemplateComparison.Of(before.Document, after.Document).Select(one => new TemplateDifferenceRecord(one.Place, one.Before, one.After)).ToList());
    }

    private static Task<TemplateVersion?> Newest(DaxlinDb db, string name, CancellationToken cancel) =>
        db.Templates.Where(row => row.Name == name).OrderByDescending(row => row.Version).FirstOrDefaultAsync(cancel);

    private static Task<TemplateVersion?> Version(DaxlinDb db, string name, int version, CancellationToken cancel) =>
        db.Templates.SingleOrDefaultAsync(row => row.Name == name && row.Version == version, cancel);

    private static ProblemHttpResult NotThere(string name, int? version = null) =>
        Problem.NotThere(version is null ? $"template “{name}”" : $"version {version} of the template “{name}”");

    private static async Task<Ok<TemplateChecked>> Check(HttpRequest request, CancellationToken cancel)
    {
        var (template, faults) = TemplateReader.Check(await SentDocument.Of(request, TemplateReader.LongestDocument, cancel));
        return TypedResults.Ok(TemplateChecks.Record("", template, faults));
    }

    private static async Task<Results<Ok<TemplateSaved>, Created<TemplateSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, bool? recapture, Actor actor, TemplateHistory history, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        var json = await SentDocument.Of(request, TemplateReader.LongestDocument, cancel);
        Template template;
        try
        {
            template = TemplateReader.Read(json);
        }
        catch (JsonFaultException error)
        {
            return Faulty(error);
        }
        if (Note.Of(note) is not { } words)
            return Note.TooLong;
        await using var change = await turn.Take(db, cancel);
        var newest = await Newest(db, template.Name, cancel);
        if (newest is not null && Seen.RefuseVersion(request, newest.Version, $"template “{template.Name}”", newest.SavedBy, newest.SavedAt, newest.Note) is { } unseen)
            return unseen;
        var saved = await history.Save(newest, template, json, words, actor.Name, recapture ?? true, cancel);
        await change.Commit(cancel);
        return saved.IsNew ? TypedResults.Created($"/api/v1/templates/{template.Name}", saved) : TypedResults.Ok(saved);
    }

    private static Task<Results<Ok<TemplateSaved>, ProblemHttpResult>> Retire(
        string name, TemplateNote said, HttpRequest request, Actor actor, TemplateHistory history, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Act(name, said.Note, request, db, turn, async (newest, note) => newest.IsRetired
            ? Problem.Of(StatusCodes.Status409Conflict, "already-retired", $"The template “{name}” is retired already.")
            : TypedResults.Ok(await history.SetRetired(newest, true, note, actor.Name, cancel)), cancel);

    private static Task<Results<Ok<TemplateSaved>, ProblemHttpResult>> BringBack(
        string name, TemplateNote said, HttpRequest request, Actor actor, TemplateHistory history, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Act(name, said.Note, request, db, turn, async (newest, note) => !newest.IsRetired
            ? Problem.Of(StatusCodes.Status409Conflict, "not-retired", $"The template “{name}” is in use.")
            : TypedResults.Ok(await history.SetRetired(newest, false, note, actor.Name, cancel)), cancel);

    private static Task<Results<Ok<TemplateSaved>, ProblemHttpResult>> Return(
        string name, VersionToReturnTo wanted, HttpRequest request, Actor actor, TemplateHistory history, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Act(name, wanted.Note, request, db, turn, async (newest, note) => await Version(db, name, wanted.Version, cancel) is { } older
            ? TypedResults.Ok(await history.Return(newest, older, note, actor.Name, cancel)) : NotThere(name, wanted.Version), cancel);

    private static Task<Results<Ok<TemplateSaved>, ProblemHttpResult>> Rename(
        string name, NewName wanted, HttpRequest request, Actor actor, TemplateHistory history, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Act(name, wanted.Note, request, db, turn, async (newest, note) =>
        {
            var to = wanted.Name?.Trim() ?? "";
            if (DocumentName.FaultOf(to) is { } fault)
                return Problem.Of(StatusCodes.Status422UnprocessableEntity, "name-faulty", fault);
            return await db.Templates.AnyAsync(row => row.Name == to, cancel)
                ? Problem.Of(StatusCodes.Status409Conflict, "name-taken", $"There is a template “{to}” already, or there was one.")
                : TypedResults.Ok(await history.Rename(newest, to, note, actor.Name, cancel));
        }, cancel);

    /// <summary>An act on a template that was seen: nobody retires a version that somebody else has just mended.</summary>
    private static async Task<Results<Ok<TemplateSaved>, ProblemHttpResult>> Act(
        string name, string? said, HttpRequest request, DaxlinDb db, WriteTurn turn, Func<TemplateVersion, string, Task<Results<Ok<TemplateSaved>, ProblemHttpResult>>> act, CancellationToken cancel)
    {
        if (Note.Of(said) is not { } note)
            return Note.TooLong;
        await using var change = await turn.Take(db, cancel);
        if (await Newest(db, name, cancel) is not { } newest)
            return NotThere(name);
        if (Seen.Refuse(request, newest.Version, () => Changed(newest)) is { } unseen)
            return unseen;
        var answer = await act(newest, note);
        if (answer.Result is Ok<TemplateSaved>)
            await change.Commit(cancel);
        return answer;
    }

    private static string Changed(TemplateVersion newest) =>
        Seen.ChangedVersion(newest.Version, $"template “{newest.Name}”", newest.SavedBy, newest.SavedAt, newest.Note);

    /// <summary>The refusal of a document with faults.</summary>
    public static ProblemHttpResult Faulty(JsonFaultException error) => Problem.Of(
        StatusCodes.Status422UnprocessableEntity, "template-faulty",
        error.Faults.Length == 1 ? $"The template has a fault: {error.Faults[0]}" : $"The template has {error.Faults.Length} faults.",
        ("faults", TemplateChecks.Records(error.Faults)));
}
