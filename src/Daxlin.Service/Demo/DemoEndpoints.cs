using Daxlin.Core.Templates.Json;
using Daxlin.Service.Batches;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Demo;

/// <summary>Made-up invoices for an installation that has none, to learn on.</summary>
internal static class DemoEndpoints
{
    private const string BatchName = "Kestrel Sound Ferries, to learn on";

    public static void Map(RouteGroupBuilder api)
    {
        var demo = api.MapGroup("/demo").WithTags("Demo");
        demo.MapGet("", Offer).WithSummary("Whether made-up invoices are at hand to try Daxlin on.");
        demo.MapPost("", Take).WithSummary("Takes the made-up invoices in, into an installation that has none yet; one vendor's template is left to be made.");
    }

    private static Ok<DemoOffer> Offer(ServiceSettings settings) => TypedResults.Ok(new DemoOffer(FoldersIn(settings).Count > 0));

    private static async Task<Results<Created<DemoTaken>, ProblemHttpResult>> Take(
        ServiceSettings settings, Actor actor, DaxlinDb db, TemplateHistory history, BatchIntake intake, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        var vendors = FoldersIn(settings);
        if (vendors.Count == 0)
            return Problem.NotThere("folder of made-up invoices where this service was started");
        Batch batch;
        using (await turn.Take(cancel))
        {
            if (await db.Batches.AnyAsync(cancel) || await db.Templates.AnyAsync(cancel))
                return Problem.Of(StatusCodes.Status409Conflict, "not-empty", "Made-up invoices are taken in only where there are no others: they would stand among yours.");
            batch = new Batch { Name = BatchName, CreatedAt = clock.GetUtcNow().UtcDateTime };
            db.Batches.Add(batch);
            await db.SaveChangesAsync(cancel);
            // The last vendor's is the first that a newcomer makes.
            foreach (var file in vendors.SkipLast(1).SelectMany(folder => Directory.GetFiles(folder, "*.template.json")))
            {
                var document = await File.ReadAllTextAsync(file, cancel);
                await history.Save(null, TemplateReader.Read(document), document, "Of the made-up invoices", actor.Name, false, cancel);
            }
        }
        var pdfs = vendors.SelectMany(folder => Directory.GetFiles(folder, "*.pdf")).Order(StringComparer.Ordinal).ToList();
        var taken = await intake.Take(batch.Id, pdfs.ConvertAll(file => (Path.GetFileName(file), (Func<Stream>)(() => File.OpenRead(file)))), cancel);
        return TypedResults.Created($"/api/v1/batches/{batch.Id}", new DemoTaken(batch.Id, taken.Count, vendors.Count - 1));
    }

    /// <summary>One folder a vendor, with a template and invoices.</summary>
    private static List<string> FoldersIn(ServiceSettings settings) => settings.Samples is { } samples && Directory.Exists(samples)
        ? [.. Directory.GetDirectories(samples).Where(folder => Directory.GetFiles(folder, "*.template.json").Length > 0 && Directory.GetFiles(folder, "*.pdf").Length > 0).Order(StringComparer.Ordinal)] : [];
}
