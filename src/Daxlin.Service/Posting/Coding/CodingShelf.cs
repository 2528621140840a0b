using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>The coding rules that were saved: each change is a version, and none is ever changed or taken away.</summary>
internal sealed class CodingShelf(DaxlinDb db, CodingWorker worker, TimeProvider clock)
{
    /// <returns>Null if there is no such version, or none at all.</returns>
    public Task<CodingVersion?> Row(int? version, CancellationToken cancel) => version is { } number
        ? db.Codings.SingleOrDefaultAsync(row => row.Version == number, cancel)
        : db.Codings.OrderByDescending(row => row.Version).FirstOrDefaultAsync(cancel);

    /// <summary>A plan with the accounts of its journals.</summary>
    /// <param name="version">Of the rules; null for the newest.</param>
    /// <param name="lists">All lists: rules that no journal asks may look words up in any.</param>
    public async Task<PostingPlan> WithJournal(PostingPlan plan, int? version, TranslationLists lists, CancellationToken cancel)
    {
        if (await Row(version, cancel) is not { } row)
            return plan;
        try
        {
            return plan with { Journal = CodingReader.Read(row.Document, lists).Journal, CodingVersion = row.Version };
        }
        catch (JsonFaultException)
        {
            // The journal says that it has no accounts; the rules' own page says why.
            return plan;
        }
    }

    public async Task<CodingSaved> Save(CodingVersion? newest, string document, string note, string who, CancellationToken cancel)
    {
        if (newest?.Document == document)
            return new CodingSaved(newest.Version, false);
        var row = new CodingVersion { Version = (newest?.Version ?? 0) + 1, Document = document, SavedAt = clock.GetUtcNow().UtcDateTime, SavedBy = who, Note = note };
        db.Codings.Add(row);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Coding, row.SavedAt, who, HistoryActs.CodingSaved, $"saved version {row.Version}") { Reason = note, Content = HistoryChain.ContentOf(document) },
            cancel);
        await db.SaveChangesAsync(cancel);
        db.Then(worker.Wake);
        return new CodingSaved(row.Version, true);
    }
}
