using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.Electronic;
using Daxlin.Core.Recognition;
using Daxlin.Core.Rehearsal;
using Daxlin.Reading;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Rehearsals;

/// <summary>Goes over the documents of a rehearsal, some at a time, and stores after each some how far it is: a kill costs no more than those.</summary>
public sealed class RehearsalWork(
    IDbContextFactory<DaxlinDb> databases, ReadingProcesses processes, WriteTurn turn, RehearsalEvents events)
{
    /// <summary>So many documents are stored at once, and a stop waits for no more than these.</summary>
    private const int AtOnce = 8;

    /// <summary>The invoices that a draft is rehearsed on: those that its earlier versions captured, whatever is held or unplaced, and some others.</summary>
    /// <param name="names">The template's name, and those that it had before.</param>
    /// <param name="others">Of <see cref="OfOtherTemplates(CancellationToken)"/>.</param>
    public static IQueryable<Invoice> InvoicesOf(DaxlinDb db, IReadOnlyCollection<string> names, int? batch, IReadOnlyCollection<int> others) => db.Invoices.Where(invoice =>
        (batch == null || invoice.BatchId == batch) && invoice.State != InvoiceState.Returned
        && (names.Contains(invoice.Template) || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Unplaced || others.Contains(invoice.Id)));

    /// <summary>So many invoices of other templates are gone over, but one of each template at least, and of none more than <see cref="MostOfOne"/>.</summary>
    private const int MostOfOthers = 1_000;

    private const int MostOfOne = 20;

    /// <summary>The newest invoices of each template: a draft must not claim those of the others.</summary>
    public static async Task<List<int>> OfOtherTemplates(DaxlinDb db, CancellationToken cancel)
    {
        var captured = db.Invoices.Where(invoice => invoice.Template != "" && invoice.Template != ElectronicTemplate.Name && invoice.State != InvoiceState.Returned);
        var templates = await captured.Select(invoice => invoice.Template).Distinct().CountAsync(cancel);
        var ofOne = Math.Clamp(MostOfOthers / Math.Max(1, templates), 1, MostOfOne);
        return await captured.Select(invoice => invoice.Template).Distinct()
            .SelectMany(name => captured.Where(invoice => invoice.Template == name).OrderByDescending(invoice => invoice.Id).Take(ofOne).Select(invoice => invoice.Id)).ToListAsync(cancel);
    }

    /// <summary>The same, once for all steps of a rehearsal.</summary>
    public async Task<List<int>> OfOtherTemplates(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await OfOtherTemplates(db, cancel);
    }

    /// <summary>Rehearses the next documents.</summary>
    /// <param name="others">Of <see cref="OfOtherTemplates(CancellationToken)"/>.</param>
    /// <returns>False if there was nothing more to do.</returns>
    public async Task<bool> Next(int id, IReadOnlyCollection<int> others, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await db.Rehearsals.SingleOrDefaultAsync(row => row.Id == id && row.State == RehearsalState.Running, cancel) is not { } rehearsal)
            return false;
        var names = await TemplateNames.Of(db, rehearsal.Template, cancel);
        var intakes = await InvoicesOf(db, names, rehearsal.BatchId, others).Where(invoice => invoice.IntakeId > rehearsal.LastIntakeId)
            .Select(invoice => invoice.IntakeId).Distinct().OrderBy(intake => intake).Take(AtOnce).ToListAsync(cancel);
        var documents = await db.Intakes.Where(intake => intakes.Contains(intake.Id)).OrderBy(intake => intake.Id)
            .Join(db.Batches, intake => intake.BatchId, batch => batch.Id, (intake, batch) => new { Intake = intake, Batch = batch.Name }).ToListAsync(cancel);
        var invoices = (await InvoicesOf(db, names, rehearsal.BatchId, others).Where(invoice => intakes.Contains(invoice.IntakeId)).AsNoTracking().ToListAsync(cancel)).ToLookup(invoice => invoice.IntakeId);
        var outcomes = await Task.WhenAll(documents.Select(one => Rehearse(
            one.Intake, one.Intake.Facts(one.Batch), rehearsal.Document, cancel)));
        var after = documents.SelectMany((one, index) => outcomes[index] is { } outcome ? invoices[one.Intake.Id].Select(invoice => (Before: invoice, After: After(invoice, outcome))) : []).ToList();
        var found = after.ConvertAll(one => Compare(id, names, one.Before, one.After));

        await using (var change = await turn.Take(db, cancel))
        {
            // It may have been stopped meanwhile, or be gone on with by another service that thought this one dead.
            var last = rehearsal.LastIntakeId;
            await db.Entry(rehearsal).ReloadAsync(cancel);
            if (rehearsal.State != RehearsalState.Running || rehearsal.LastIntakeId != last)
                return false;
            db.RehearsalOutcomes.AddRange(found.Where(one => one.Verdict != Verdict.Same));
            rehearsal.Same += found.Count(one => one.Verdict == Verdict.Same);
            rehearsal.Own += after.Count(one => names.Contains(one.Before.Template));
            rehearsal.OwnRecognised += after.Count(one => names.Contains(one.Before.Template) && one.After?.Template == rehearsal.Template);
            rehearsal.Others += after.Count(one => IsOfAnother(one.Before, names));
            rehearsal.OthersRecognised += after.Count(one => IsOfAnother(one.Before, names) && (one.After?.Template == rehearsal.Template || one.After?.HeldBy.Split(',').Contains(Placing.SeveralTemplates) == true));
            rehearsal.Unreadable += outcomes.Count(outcome => outcome is null);
            rehearsal.Done += intakes.Count;
            rehearsal.LastIntakeId = intakes.Count > 0 ? intakes[^1] : rehearsal.LastIntakeId;
            if (intakes.Count < AtOnce)
                (rehearsal.State, rehearsal.Documents) = (RehearsalState.Done, rehearsal.Done);
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
        }
        events.Moved(id);
        return rehearsal.State == RehearsalState.Running;
    }

    /// <summary>Gives a rehearsal up that cannot go on.</summary>
    public async Task Fail(int id, string sentence, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using (var change = await turn.Take(db, cancel))
        {
            await db.Rehearsals.Where(row => row.Id == id && row.State == RehearsalState.Running).ExecuteUpdateAsync(
                set => set.SetProperty(row => row.State, RehearsalState.Failed).SetProperty(row => row.Failure, sentence), cancel);
            await change.Commit(cancel);
        }
        events.Moved(id);
    }

    /// <returns>Null for a document that cannot be read any more, or on which the reading gave up.</returns>
    private async Task<DocumentOutcome?> Rehearse(Intake intake, DocumentFacts facts, string draft, CancellationToken cancel)
    {
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var chosen = await ChoosingTemplate.Of(db, intake.Id).ToListAsync(cancel);
            return await processes.Capture(intake.Sha256, facts, isSuspect: false, [.. chosen.Select(ChosenPages.Of)], cancel, draft);
        }
        catch (Exception error) when (error is UnreadableException or ReaderDiedException)
        {
            return null;
        }
    }

    private static bool IsOfAnother(Invoice invoice, IReadOnlyCollection<string> names) =>
        invoice.Template.Length > 0 && invoice.Template != ElectronicTemplate.Name && !names.Contains(invoice.Template);

    /// <summary>What an invoice's pages would be captured as; null if no invoice is on them.</summary>
    private static InvoiceOutcome? After(Invoice invoice, DocumentOutcome outcome) => outcome.Invoices.FirstOrDefault(one => one.FirstPage == invoice.FirstPage)
        ?? outcome.Invoices.FirstOrDefault(one => one.FirstPage <= invoice.LastPage && one.LastPage >= invoice.FirstPage);

    private static RehearsalOutcome Compare(int rehearsal, IReadOnlyCollection<string> names, Invoice invoice, InvoiceOutcome? after)
    {
        var result = RehearsalResult.Of(RehearsedInvoices.Of(invoice, names), RehearsedInvoices.Of(after));
        ImmutableArray<ValueChangeRecord> changes = [.. result.Changes.Select(change => new ValueChangeRecord(change.Name, change.Column, change.Before, change.After))];
        return new RehearsalOutcome
        {
            RehearsalId = rehearsal,
            InvoiceId = invoice.Id,
            Verdict = result.Verdict,
            Before = invoice.State,
            After = after?.State ?? InvoiceState.Unplaced,
            FirstFinding = after is null ? "Its pages hold no invoice any more."
                : after.Template.Length > 0 && result.Verdict == Verdict.Lost ? $"The template {after.Template} would take it from {invoice.Template}." : after.FirstFinding,
            Changes = JsonSerializer.Serialize(changes, JsonSerializerOptions.Web),
        };
    }
}
