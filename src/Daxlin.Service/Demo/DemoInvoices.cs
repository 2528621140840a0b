using Daxlin.Core.Templates.Json;
using Daxlin.Service.Batches;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Demo;

/// <summary>Made-up invoices for an installation that has none, to learn on.</summary>
public sealed class DemoInvoices(ServiceSettings settings, DaxlinDb db, TemplateHistory history, BatchIntake intake, WriteTurn turn, TimeProvider clock)
{
    private const string BatchName = "Kestrel Sound Ferries, to learn on";

    public bool AreAtHand => Vendors.Count > 0;

    /// <summary>One folder a vendor, with a template and invoices.</summary>
    private List<string> Vendors => settings.Samples is { } samples && Directory.Exists(samples)
        ? [.. Directory.GetDirectories(samples).Where(folder => Directory.GetFiles(folder, "*.template.json").Length > 0 && Directory.GetFiles(folder, "*.pdf").Length > 0).Order(StringComparer.Ordinal)] : [];

    /// <summary>Takes all of them in, with the templates of all vendors but the last, which is the first that a newcomer makes.</summary>
    /// <returns>Null if the installation has batches or templates already.</returns>
    public async Task<DemoTaken?> Take(string who, CancellationToken cancel)
    {
        var vendors = Vendors;
        Batch batch;
        await using (var change = await turn.Take(db, cancel))
        {
            if (await db.Batches.AnyAsync(cancel) || await db.Templates.AnyAsync(cancel))
                return null;
            batch = new Batch { Name = BatchName, CreatedAt = clock.GetUtcNow().UtcDateTime };
            db.Batches.Add(batch);
            await db.SaveChangesAsync(cancel);
            foreach (var file in vendors.SkipLast(1).SelectMany(folder => Directory.GetFiles(folder, "*.template.json")))
            {
                var document = await File.ReadAllTextAsync(file, cancel);
                await history.Save(null, TemplateReader.Read(document), document, "Of the made-up invoices", who, recaptures: false, cancel);
            }
            await change.Commit(cancel);
        }
        var pdfs = vendors.SelectMany(folder => Directory.GetFiles(folder, "*.pdf")).Order(StringComparer.Ordinal).ToList();
        var taken = await intake.Take(batch.Id, pdfs.ConvertAll(file => (Path.GetFileName(file), (Func<Stream>)(() => File.OpenRead(file)))), who, cancel);
        return new DemoTaken(batch.Id, taken.Count, vendors.Count - 1);
    }
}
