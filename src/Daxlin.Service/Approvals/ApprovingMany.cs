using System.Collections.Immutable;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Values;
using Daxlin.Service.Batches;
using Daxlin.Service.Figures;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Approvals;

/// <summary>A person approves many invoices of a batch at once: each as it was seen, and none kept back by another that cannot be.</summary>
/// <remarks>Only clear ones: one that is held asks for a reason of its own. Where the sum is large, who approves types it, so that it was read.</remarks>
internal sealed class ApprovingMany(DaxlinDb db, Approving approving, ApprovalRulings rulings, WriteTurn turn)
{
    private const int Most = 1000;

    /// <summary>What there is to approve in a batch at the moment.</summary>
    public async Task<ApprovableMany> Approvable(int batch, CancellationToken cancel)
    {
        var rows = db.Invoices.AsNoTracking().Where(row => row.BatchId == batch && row.State == InvoiceState.Clear).OrderBy(row => row.Id).Take(Most);
        var (sums, rules) = (await CountedInvoice.SumsOf(rows, cancel), ApprovalRulings.RulesOf(await rulings.Newest(cancel)));
        return new ApprovableMany(
            [.. await rows.Select(row => new SeenInvoice(row.Id, row.Revision)).ToListAsync(cancel)], Settled(sums), [.. sums.Where(sum => rules.IsTyped(sum.Key, sum.Value)).Select(sum => sum.Key)]);
    }

    private static ImmutableSortedDictionary<string, string> Settled(SortedDictionary<string, decimal> sums) => sums.ToImmutableSortedDictionary(sum => sum.Key, sum => BatchSheets.Settled(sum.Value, sum.Key));

    public async Task<(ManyApproved? Done, Refused? Refused)> Do(int batch, ManyToApprove wanted, Approver who, CancellationToken cancel)
    {
        ImmutableArray<SeenInvoice> seen = wanted.Invoices is { IsDefaultOrEmpty: false } named ? [.. named.OfType<SeenInvoice>()] : [];
        if (seen.Length is 0 or > Most)
            return (null, Refused.Faulty("invoices-missing", $"Name 1 to {Most} invoices, each with the revision that was seen."));
        var ids = seen.Select(one => one.Id).ToList();
        await using var change = await turn.Take(db, cancel);
        var rows = await Named(batch, ids).ToDictionaryAsync(row => row.Id, cancel);
        if (await SumRefusal(await CountedInvoice.SumsOf(Named(batch, ids), cancel), wanted.Sums, cancel) is { } refusal)
            return (null, refusal);
        var (approved, first, refused) = (new List<int>(), new List<ToldInvoice>(), new List<ToldInvoice>());
        foreach (var (id, revision) in seen.DistinctBy(one => one.Id))
        {
            var row = rows.TryGetValue(id, out var known) ? known : null;
            var told = row is null ? Refused.NotThere($"invoice {id} in batch {batch}")
                : row.Revision != revision ? Refused.Conflict("changed-since", InvoiceDetails.Changed(row, db))
                : row.State == InvoiceState.Held ? Refused.Conflict("findings-open", $"Invoice {id} is held: {row.FirstFinding} It is approved by itself, with a reason.")
                : await change.Part(() => approving.Do(row, null, who, cancel), cancel);
            if (told is not null)
            {
                refused.Add(new ToldInvoice(id, told.Code, told.Sentence));
                // What a refusal has begun to change is as it was.
                if (row is not null)
                    await db.Entry(row).ReloadAsync(cancel);
                continue;
            }
            if (row!.State == InvoiceState.Approved)
                approved.Add(id);
            else
                first.Add(new ToldInvoice(id, Approving.SecondNeeded, Approving.SecondSentence(row)));
        }
        await change.Commit(cancel);
        return (new ManyApproved([.. approved], [.. first], [.. refused], Settled(await CountedInvoice.SumsOf(Named(batch, approved), cancel))), null);
    }

    private IQueryable<Invoice> Named(int batch, List<int> ids) => db.Invoices.Where(row => row.BatchId == batch && ids.Contains(row.Id));

    private async Task<Refused?> SumRefusal(SortedDictionary<string, decimal> sums, ImmutableSortedDictionary<string, string>? typed, CancellationToken cancel)
    {
        var rules = ApprovalRulings.RulesOf(await rulings.Newest(cancel));
        foreach (var (code, sum) in sums)
        {
            var currency = Currency.Find(code);
            var said = typed?.GetValueOrDefault(code);
            if (said is null && rules.IsTyped(code, sum))
                return Refused.Conflict("sum-needed", $"These come to {currency!.Show(sum)}, which is more than {currency.Show(rules.TypedAbove[code])}: type the sum to approve them.");
            if (said is not null && ExpressionType.Number.Read(said) as decimal? != sum)
                return Refused.Conflict("sum-differs", $"These come to {currency?.Show(sum) ?? $"{sum} {code}"}, not to {said} {code}. Nothing was approved.");
        }
        return null;
    }
}
