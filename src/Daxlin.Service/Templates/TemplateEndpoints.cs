using System.Text.Json;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

internal static class TemplateEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var templates = api.MapGroup("/templates").WithTags("Templates");
        templates.MapGet("", List).WithSummary("All templates, the newest version of each.");
        templates.MapPost("", Save).WithSummary("Saves a template document; a changed one becomes the next version.");
        templates.MapPost("/check", Check).WithSummary("Says what is wrong with a template document, and saves nothing.");
        api.MapGet("/template.schema.json", () => Results.Stream(TemplateSchema.Open(), "application/schema+json")).WithTags("Templates")
            .WithSummary("The JSON Schema of template documents.");
        templates.MapGet("/{name}", Show).WithSummary("A template with its document, the newest version unless one is named.");
    }

    private static async Task<Ok<List<TemplateSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var after = page.After ?? "";
        return TypedResults.Ok(await page.Of(
            db.Templates
                .Where(row => string.Compare(row.Name, after) > 0 && row.Version == db.Templates.Where(other => other.Name == row.Name).Max(other => other.Version))
                .OrderBy(row => row.Name)
                .Select(row => new TemplateSummary(row.Name, row.Vendor, row.Currency, row.Version, row.SavedAt, row.SavedBy)),
            row => row.Name, context, cancel));
    }

    private static async Task<Results<Ok<TemplateDetail>, ProblemHttpResult>> Show(
        string name, int? version, DaxlinDb db, CancellationToken cancel)
    {
        var row = await db.Templates.Where(row => row.Name == name && (version == null || row.Version == version))
            .OrderByDescending(row => row.Version).FirstOrDefaultAsync(cancel);
        if (row is null)
            return Problem.NotThere(version is null ? $"template “{name}”" : $"version {version} of the template “{name}”");
        using var document = JsonDocument.Parse(row.Document);
        return TypedResults.Ok(new TemplateDetail(
            row.Name, row.Vendor, row.Currency, row.Version, row.SavedAt, row.SavedBy, document.RootElement.Clone()));
    }

    private static async Task<Ok<TemplateChecked>> Check(HttpRequest request, CancellationToken cancel)
    {
        var (template, faults) = TemplateReader.Check(await TextOf(request, cancel));
        return TypedResults.Ok(TemplateChecks.Record("", template, faults));
    }

    /// <summary>The document as it was sent: faults are named by their line in it.</summary>
    private static async Task<string> TextOf(HttpRequest request, CancellationToken cancel)
    {
        using var reader = new StreamReader(request.Body);
        var buffer = new char[TemplateReader.LongestDocument + 1];
        return new string(buffer, 0, await reader.ReadBlockAsync(buffer, cancel));
    }

    private static async Task<Results<Ok<TemplateSaved>, Created<TemplateSaved>, ProblemHttpResult>> Save(
        HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        var json = await TextOf(request, cancel);
        Template template;
        try
        {
            template = TemplateReader.Read(json);
        }
        catch (TemplateFaultException error)
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "template-faulty",
                error.Faults.Length == 1 ? $"The template has a fault: {error.Faults[0]}" : $"The template has {error.Faults.Length} faults.",
                ("faults", TemplateChecks.Records(error.Faults)));
        }

        using var _ = await turn.Take(cancel);
        var newest = await db.Templates.Where(row => row.Name == template.Name)
            .OrderByDescending(row => row.Version).FirstOrDefaultAsync(cancel);
        if (newest?.Document == json)
            return TypedResults.Ok(new TemplateSaved(template.Name, newest.Version, IsNew: false));
        var version = (newest?.Version ?? 0) + 1;
        db.Templates.Add(new TemplateVersion
        {
            Name = template.Name,
            Version = version,
            Vendor = template.Vendor,
            Currency = template.Reads.Currency.Code,
            Document = json,
            SavedAt = clock.GetUtcNow().UtcDateTime,
            SavedBy = actor.Name,
        });
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/v1/templates/{template.Name}", new TemplateSaved(template.Name, version, IsNew: true));
    }
}
