using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;
using Daxlin.Service.Figures;
using Daxlin.Service.Invoices;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

/// <summary>Works out what a batch comes to.</summary>
internal static class BatchSheets
{
    private const int MostHeld = 500;

    /// <returns>Null if there is no such batch.</returns>
    public static async Task<BatchSheet?> Of(int id, DaxlinDb db, CancellationToken cancel) =>
        await db.Batches.SingleOrDefaultAsync(row => row.Id == id, cancel) is { } batch ? await Of(batch, db, cancel) : null;

    public static async Task<BatchSheet> Of(Batch batch, DaxlinDb db, CancellationToken cancel)
    {
        var rows = db.Invoices.AsNoTracking().Where(row => row.BatchId == batch.Id);
        var counted = CountedInvoice.Of(rows);
        var groups = await counted.GroupBy(invoice => new { invoice.State, invoice.Vendor, invoice.Currency, invoice.IsUntouched })
            .Select(group => new Group(group.Key.State, group.Key.Vendor, group.Key.Currency, group.Key.IsUntouched, group.Count(), group.Sum(invoice => invoice.Size)))
            .ToListAsync(cancel);
        var held = await rows.Where(row => row.State == InvoiceState.Held || row.State == InvoiceState.Unplaced)
            .OrderBy(row => row.Intake.FileName).ThenBy(row => row.FirstPage).Take(MostHeld)
            .Select(row => new { row.Id, row.Intake.FileName, row.Vendor, row.LooksLike, row.InvoiceNumber, row.State, row.FirstFinding, row.Findings }).ToListAsync(cancel);
        var intakes = db.Intakes.AsNoTracking().Where(row => row.BatchId == batch.Id);
        var aside = await intakes.Where(row => row.State == IntakeState.Unreadable).OrderBy(row => row.FileName).Take(MostHeld).Select(row => new SetAsideFile(row.FileName, row.Reason)).ToListAsync(cancel);
        var kept = groups.FindAll(group => group.State != InvoiceState.Returned);
        return new BatchSheet(
            batch.Id, batch.Name, batch.CreatedAt, batch.Revision, await intakes.CountAsync(cancel), await intakes.CountAsync(row => row.State == IntakeState.Waiting, cancel),
            [
                .. groups.GroupBy(group => (group.State, group.Currency)).OrderBy(all => all.Key.State).ThenBy(all => all.Key.Currency, StringComparer.Ordinal)
                    .Select(all => new StateTotal(InvoiceDetails.Word(all.Key.State), all.Key.Currency, all.Sum(one => one.Count), Settled(all.Sum(one => one.Sum), all.Key.Currency))),
            ],
            [
                .. kept.Where(group => group.Vendor.Length > 0).GroupBy(group => (group.Vendor, group.Currency))
                    .OrderBy(all => all.Key.Vendor, StringComparer.Ordinal).ThenBy(all => all.Key.Currency, StringComparer.Ordinal)
                    .Select(all => new VendorTotal(
                        all.Key.Vendor, all.Key.Currency, all.Sum(one => one.Count), all.Where(one => one.IsUntouched).Sum(one => one.Count),
                        all.Where(one => one.State == InvoiceState.Held).Sum(one => one.Count), Settled(all.Sum(one => one.Sum), all.Key.Currency))),
            ],
            await ReasonCount.Of(counted, cancel),
            [.. held.Select(row => new HeldInvoice(row.Id, row.FileName, row.Vendor.Length > 0 ? row.Vendor : row.LooksLike, row.InvoiceNumber, InvoiceDetails.Word(row.State), row.FirstFinding, row.Findings))],
            [
                .. ComparedTotal.Of(Stated(batch), [.. kept.Where(group => group.Currency.Length > 0).Select(group => (group.Currency, group.Count, group.Sum))]).Select(Told),
            ],
            [
                .. (await CoveredTotals.Of(batch.Id, db, cancel))
                    .SelectMany(covered => covered.Totals.Select(total => new CoverTotal(covered.Source, covered.ItemId, covered.Name, covered.From, covered.At, Told(total)))),
            ],
            [.. aside]);
    }

    /// <summary>What batches do not come to that was stated of them, each in a sentence with its name.</summary>
    public static async Task<List<string>> Disagreements(IReadOnlyCollection<int> batches, DaxlinDb db, CancellationToken cancel)
    {
        var found = new List<string>();
        var stated = await db.Batches
            .Where(row => batches.Contains(row.Id) && (row.ControlTotals != NothingStated || db.SourceItems.Any(item => item.BatchId == row.Id && item.Stated != NothingStated)))
            .OrderBy(row => row.Id).ToListAsync(cancel);
        foreach (var batch in stated)
        {
            var sheet = await Of(batch, db, cancel);
            var says = sheet.ControlTotals.Select(total => total.Says).Concat(sheet.Covers.Select(cover => cover.Total.Says.Length > 0 ? $"{cover.Name}: {cover.Total.Says}" : ""))
                .Where(sentence => sentence.Length > 0).ToList();
            if (says.Count > 0)
                found.Add($"“{batch.Name}”: {string.Join(' ', says)}");
        }
        return found;
    }

    private static ControlTotal Told(ComparedTotal total) => new(
        total.Currency, total.Stated?.Invoices, total.Stated?.Sum is { } sum ? Settled(sum, total.Currency) : null, total.Invoices, Settled(total.Sum, total.Currency), total.Says);

    private const string NothingStated = "[]";

    public static ImmutableArray<StatedTotal> Stated(Batch batch) => JsonSerializer.Deserialize<ImmutableArray<StatedTotal>>(batch.ControlTotals);

    /// <summary>An amount in the settled form; one without a currency has none of its digits.</summary>
    public static string Settled(decimal amount, string currency) => Currency.Find(currency)?.Settled(amount) ?? "";

    private sealed record Group(InvoiceState State, string Vendor, string Currency, bool IsUntouched, int Count, long Size)
    {
        public decimal Sum => Invoice.AmountOf(Size);
    }
}
