using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting;

/// <summary>Says from the history who approved invoices, and when.</summary>
internal static class Approvals
{
    private const int AtATime = 500;

    /// <param name="until">Approvals after this count for a later run.</param>
    public static async Task<Dictionary<int, Approval>> Of(DaxlinDb db, IReadOnlyCollection<int> invoices, DateTime until, CancellationToken cancel)
    {
        var found = new Dictionary<int, Approval>();
        foreach (var some in invoices.Chunk(AtATime))
        {
            var streams = some.ToDictionary(HistoryStreams.Invoice);
            var entries = await db.History.Where(entry => streams.Keys.Contains(entry.Stream) && entry.Act == HistoryActs.Approved && entry.At <= until)
                .OrderBy(entry => entry.Id).Select(entry => new { entry.Stream, entry.By, entry.At }).ToListAsync(cancel);
            foreach (var entry in entries)
                found[streams[entry.Stream]] = new Approval(entry.By, entry.At);
        }
        return found;
    }
}

/// <summary>Who approved an invoice, and when.</summary>
internal sealed record Approval(string By, DateTime At);
