using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Daxlin.Core.Checks;
using Daxlin.Core.History;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Vendors;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Adds versions to templates; nothing is ever changed or taken away.</summary>
/// <remarks>
/// Whatever makes another template recognise or capture another way is a version of its own, with who, when and a note:
/// a changed document, one made current again, retiring and bringing back. In the same transaction the documents are put
/// back to wait of which an invoice is unplaced, or held by a version that is the newest no more. What is clear keeps the
/// version that captured it, and what is decided on is never captured again.
/// </remarks>
public sealed class TemplateHistory(DaxlinDb db, CaptureQueue queue, BatchEvents events, TimeProvider clock)
{
    private static readonly JsonSerializerOptions Readable = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Saves a document as the next version, unless the newest says the same.</summary>
    /// <param name="newest">Null for a new template.</param>
    /// <param name="template">What the document says.</param>
    /// <param name="recaptures">False if more templates are to be saved first.</param>
    public Task<TemplateSaved> Save(TemplateVersion? newest, Template template, string document, string note, string who, bool recaptures, CancellationToken cancel) =>
        Change(recaptures, () => newest is { IsRetired: false } && newest.Document == document ? (newest, false)
            : (Add(newest, template.Name, template.Vendor, template.Reads.Currency.Code, document, note, who), true), cancel);

    /// <summary>Retires a template, or brings it back.</summary>
    public Task<TemplateSaved> SetRetired(TemplateVersion newest, bool isRetired, string note, string who, CancellationToken cancel) =>
        Change(true, () =>
        {
            var row = Copy(newest, newest, note, who);
            row.IsRetired = isRetired;
            return (row, true);
        }, cancel);

    /// <summary>Makes an older version's document the newest one again.</summary>
    public Task<TemplateSaved> Return(TemplateVersion newest, TemplateVersion older, string note, string who, CancellationToken cancel) =>
        Change(true, () => (Copy(newest, older, note.Length > 0 ? note : $"As version {older.Version}", who), true), cancel);

    /// <summary>Gives a template another name: the old one is retired, and the new one knows it.</summary>
    public Task<TemplateSaved> Rename(TemplateVersion newest, string name, string note, string who, CancellationToken cancel) =>
        Change(true, () =>
        {
            Copy(newest, newest, $"Renamed to {name}", who).IsRetired = true;
            var document = JsonNode.Parse(newest.Document)!.AsObject();
            document["name"] = name;
            var row = Add(null, name, newest.Vendor, newest.Currency, document.ToJsonString(Readable) + "\n", note.Length > 0 ? note : $"Renamed from {newest.Name}", who);
            row.Formerly = newest.Name;
            return (row, true);
        }, cancel);

    private TemplateVersion Copy(TemplateVersion newest, TemplateVersion of, string note, string who) =>
        Add(newest, newest.Name, of.Vendor, of.Currency, of.Document, note, who);

    private TemplateVersion Add(TemplateVersion? newest, string name, string vendor, string currency, string document, string note, string who)
    {
        var row = new TemplateVersion
        {
            Name = name,
            Version = (newest?.Version ?? 0) + 1,
            Vendor = vendor,
            Currency = currency,
            Document = document,
            Note = note,
            Formerly = newest?.Formerly ?? "",
            SavedAt = clock.GetUtcNow().UtcDateTime,
            SavedBy = who,
        };
        db.Templates.Add(row);
        return row;
    }

    /// <remarks>The turn to write is taken by who asks, before looking at the newest version: what was seen is then still so.</remarks>
    private async Task<TemplateSaved> Change(bool recaptures, Func<(TemplateVersion Row, bool IsNew)> change, CancellationToken cancel)
    {
        var (row, isNew) = change();
        if (isNew)
        {
            var saved = db.ChangeTracker.Entries<TemplateVersion>().Where(entry => entry.State == EntityState.Added).Select(entry => entry.Entity).ToList();
            await HistoryLog.Record(db, saved.ConvertAll(Told), cancel);
            if (SeenBefore.Squash(row.Vendor).Length > 0)
                await VendorRegister.Of(db, row.Vendor, row.SavedAt, cancel);
        }
        await db.SaveChangesAsync(cancel);
        var again = recaptures ? await Stale(cancel) : [];
        db.Then(() =>
        {
            foreach (var intake in again)
                queue.Add(intake.BatchId, intake.Id);
            foreach (var batch in again.Select(intake => intake.BatchId).Distinct())
                events.Moved(batch);
        });
        return new TemplateSaved(row.Name, row.Version, isNew, again.Count);
    }

    private static Deed Told(TemplateVersion row) => new(
        HistoryStreams.Template(row.Name), row.SavedAt, row.SavedBy, HistoryActs.TemplateSaved, row.IsRetired ? $"retired, as version {row.Version}" : $"saved version {row.Version}")
    {
        Before = row.Formerly,
        After = row.Name,
        Reason = row.Note,
        Content = HistoryChain.ContentOf(row.Document),
    };

    /// <returns>Batch and document of each that waits anew.</returns>
    private async Task<List<(int BatchId, int Id)>> Stale(CancellationToken cancel)
    {
        // What is being captured at the moment began before, so it is captured once more; whatever else waits is none the worse.
        await db.Intakes.Where(intake => intake.State == IntakeState.Waiting).ExecuteUpdateAsync(set => set.SetProperty(intake => intake.Round, intake => intake.Round + 1), cancel);
        var stale = db.Intakes.Where(intake => intake.State == IntakeState.Done && db.Invoices.Any(invoice => invoice.IntakeId == intake.Id
            && (invoice.State == InvoiceState.Unplaced
                || (invoice.State == InvoiceState.Held && db.Templates.Any(row => row.Name == invoice.Template && row.Version > invoice.TemplateVersion)))));
        var found = await stale.Select(intake => new { intake.BatchId, intake.Id }).ToListAsync(cancel);
        await stale.ExecuteUpdateAsync(
            set => set.SetProperty(intake => intake.State, IntakeState.Waiting).SetProperty(intake => intake.Attempts, 0).SetProperty(intake => intake.Round, intake => intake.Round + 1), cancel);
        return found.ConvertAll(one => (one.BatchId, one.Id));
    }
}
