using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Sources;
using Daxlin.Service.Figures;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

/// <summary>What was stated of invoices by what they came with, beside what they come to: by the subject of their message, or by a cover sheet in their message, their archive or their folder.</summary>
/// <param name="Name">Of the message, the archive, or the cover sheet; several cover sheets of a folder state their totals together.</param>
/// <param name="Totals">Those currencies that were stated.</param>
internal sealed record CoveredTotals(int ItemId, string Source, string Name, string From, DateTime At, ImmutableArray<ComparedTotal> Totals)
{
    private const string NothingStated = "[]";

    /// <returns>Everything that states something of a batch's invoices, in the order in which it came.</returns>
    public static async Task<ImmutableArray<CoveredTotals>> Of(int batch, DaxlinDb db, CancellationToken cancel)
    {
        var stating = await db.SourceItems.AsNoTracking().Where(item => item.BatchId == batch && item.Stated != NothingStated).OrderBy(item => item.Id).ToListAsync(cancel);
        var covered = ImmutableArray.CreateBuilder<CoveredTotals>();
        foreach (var (items, stated) in StatingItem.Together(stating.Select(StatingOf)))
        {
            var first = stating.Find(item => item.Id == items[0].Id)!;
            var hashes = items[0].IsCover ? await Beside(items[0], batch, db, cancel) : Hashes(first.Parts);
            var invoices = await CountedInvoice.Of(db.Invoices.Where(invoice => invoice.BatchId == batch && invoice.State != InvoiceState.Returned && EF.Parameter(hashes).Contains(invoice.Intake.Sha256)))
                .Where(invoice => invoice.Currency != "").GroupBy(invoice => invoice.Currency).Select(group => new { Currency = group.Key, Count = group.Count(), Size = group.Sum(invoice => invoice.Size) }).ToListAsync(cancel);
            covered.Add(new CoveredTotals(
                first.Id, first.Source, string.Join(", ", items.Select(item => item.Place)), first.From, first.At,
                ComparedTotal.OfStated(stated, invoices.ConvertAll(group => (group.Currency, group.Count, Invoice.AmountOf(group.Size))))));
        }
        return covered.ToImmutable();
    }

    private static StatingItem StatingOf(SourceItem item) => new(item.Id, item.Source, item.Name, item.IsCover, JsonSerializer.Deserialize<ImmutableArray<StatedTotal>>(item.Stated));

    /// <summary>What does not agree, in sentences; nothing for an item that states nothing.</summary>
    public static async Task<ImmutableArray<string>> Disagreements(SourceItem item, DaxlinDb db, CancellationToken cancel) =>
        item.BatchId is not { } batch || item.Stated == NothingStated ? []
            : [.. (await Of(batch, db, cancel)).Where(covered => covered.ItemId == item.Id).SelectMany(covered => covered.Totals).Select(total => total.Says).Where(says => says.Length > 0)];

    private static async Task<string[]> Beside(StatingItem cover, int batch, DaxlinDb db, CancellationToken cancel)
    {
        var (source, folder) = (cover.Source, cover.Folder);
        var others = await db.SourceItems.AsNoTracking().Where(item => item.Source == source && item.BatchId == batch && !item.IsCover && item.Name.StartsWith(folder))
            .Select(item => new { item.Name, item.Parts }).ToListAsync(cancel);
        return [.. others.Where(item => cover.IsBeside(item.Name)).SelectMany(item => Hashes(item.Parts)).Distinct()];
    }

    private static string[] Hashes(string parts) =>
        [.. JsonSerializer.Deserialize<ImmutableArray<SourcePart>>(parts, JsonSerializerOptions.Web).Select(part => part.Sha256).Where(sha256 => sha256.Length > 0)];
}
