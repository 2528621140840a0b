using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Rehearsals;

/// <summary>Begins a rehearsal: it has its row before anything is done, so that a kill loses nothing of it.</summary>
public sealed class RehearsalStart(DaxlinDb db, WriteTurn turn, RehearsalWorker worker, TimeProvider clock)
{
    /// <summary>So many rehearsals of a template are kept to be looked at again.</summary>
    private const int MostKept = 5;

    /// <param name="template">The name of the template that is rehearsed.</param>
    /// <param name="document">Without faults.</param>
    /// <param name="batch">Null for all batches.</param>
    /// <param name="requestKey">The request's Idempotency-Key: begun with it once, it is the same rehearsal again.</param>
    public async Task<Rehearsal> Begin(string template, string document, int? batch, string? requestKey, string who, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (requestKey is not null && await db.Rehearsals.SingleOrDefaultAsync(row => row.RequestKey == requestKey, cancel) is { } begun)
            return begun;
        var (names, others) = (await TemplateNames.Of(db, template, cancel), await RehearsalWork.OfOtherTemplates(db, cancel));
        await Forget(template, cancel);
        var rehearsal = new Rehearsal
        {
            Template = template,
            BaseVersion = await db.Templates.Where(row => row.Name == template).MaxAsync(row => (int?)row.Version, cancel) ?? 0,
            Document = document,
            BatchId = batch,
            At = clock.GetUtcNow().UtcDateTime,
            By = who,
            RequestKey = requestKey,
            Documents = await RehearsalWork.InvoicesOf(db, names, batch, others).Select(invoice => invoice.IntakeId).Distinct().CountAsync(cancel),
        };
        db.Rehearsals.Add(rehearsal);
        await db.SaveChangesAsync(cancel);
        change.Then(worker.Wake);
        await change.Commit(cancel);
        return rehearsal;
    }

    private async Task Forget(string template, CancellationToken cancel)
    {
        var old = await db.Rehearsals.Where(row => row.Template == template && row.State != RehearsalState.Running).OrderByDescending(row => row.Id)
            .Skip(MostKept - 1).Select(row => row.Id).ToListAsync(cancel);
        await db.RehearsalOutcomes.Where(row => old.Contains(row.RehearsalId)).ExecuteDeleteAsync(cancel);
        await db.Rehearsals.Where(row => old.Contains(row.Id)).ExecuteDeleteAsync(cancel);
    }
}
