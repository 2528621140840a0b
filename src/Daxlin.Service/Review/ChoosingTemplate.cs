using Daxlin.Core.Electronic;
using Daxlin.Core.History;
using Daxlin.Reading;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Review;

/// <summary>A person says which template an invoice is for, or leaves that to the cues again; it is captured by it at once.</summary>
/// <remarks>
/// The document is captured before the turn to write is taken: that may take a minute, and others go on meanwhile. What came of
/// it is stored only if the document was not captured otherwise since.
/// </remarks>
public sealed class ChoosingTemplate(DaxlinDb db, ReadingProcesses processes, TimeProvider clock)
{
    /// <summary>What the document comes to by a choice that is not made yet.</summary>
    /// <param name="Choice">Null if the cues are to say it again.</param>
    internal sealed record Tried(int IntakeId, int Round, TemplateChoice? Choice, string By, DocumentOutcome Outcome);

    internal async Task<(Tried? Tried, Refused? Refusal)> Try(int id, string? template, string who, CancellationToken cancel)
    {
        var name = template?.Trim() ?? "";
        if (await db.Invoices.AsNoTracking().Include(row => row.Intake).SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } row)
            return (null, Refused.NotThere($"invoice {id}"));
        if (!BoundActs.IsUndecided(row))
            return (null, BoundActs.AlreadyDecided(row));
        if (row.Intake.State != IntakeState.Done)
            return (null, Busy(row));
        if (row.Template == ElectronicTemplate.Name)
            return (null, Refused.Conflict("electronic", "An electronic invoice says itself what its values are; no template is chosen for it."));
        if (name.Length > 0 && !await TemplateVersions.Newest(db).AnyAsync(version => version.Name == name, cancel))
            return (null, Refused.Faulty("template-unknown", $"There is no template “{name}”, or it is retired."));
        var choice = name.Length == 0 ? null : new TemplateChoice
        {
            IntakeId = row.IntakeId,
            FirstPage = row.FirstPage,
            LastPage = row.LastPage,
            Template = name,
            At = clock.GetUtcNow().UtcDateTime,
            By = who,
        };
        var batch = await db.Batches.Where(one => one.Id == row.BatchId).Select(one => one.Name).SingleAsync(cancel);
        var others = await Of(db, row.IntakeId).Where(one => one.FirstPage > row.LastPage || one.LastPage < row.FirstPage).ToListAsync(cancel);
        try
        {
            var outcome = await processes.Capture(
                row.Intake.Sha256, row.Intake.Facts(batch), isSuspect: false, [.. others.Append(choice).OfType<TemplateChoice>().Select(ChosenPages.Of)], cancel);
            return (new Tried(row.IntakeId, row.Intake.Round, choice, who, outcome), null);
        }
        catch (UnreadableException error)
        {
            return (null, Refused.Conflict(error.Code, error.Message));
        }
        catch (ReaderDiedException)
        {
            return (null, Refused.Conflict(ReaderDiedException.Code, ReaderDiedException.Sentence));
        }
    }

    internal async Task<Refused?> Do(Invoice row, Tried tried, CancellationToken cancel)
    {
        var intake = await db.Intakes.SingleAsync(one => one.Id == tried.IntakeId, cancel);
        if (intake.Round != tried.Round || intake.State != IntakeState.Done)
            return Busy(row);
        if (!BoundActs.IsUndecided(row))
            return BoundActs.AlreadyDecided(row);
        var (before, now) = (row.Template, clock.GetUtcNow().UtcDateTime);
        db.TemplateChoices.RemoveRange(await Of(db, row.IntakeId).Where(one => one.FirstPage <= row.LastPage && one.LastPage >= row.FirstPage).ToListAsync(cancel));
        if (tried.Choice is { } choice)
            db.TemplateChoices.Add(choice);
        row.IsTouched = true;
        await HistoryLog.Record(
            db,
            new Deed(
                HistoryStreams.Invoice(row.Id), now, tried.By, HistoryActs.TemplateChosen,
                tried.Choice is null ? "left the template to the cues" : $"chose the template {tried.Choice.Template}")
            {
                Before = before,
                After = tried.Choice?.Template ?? "",
            },
            cancel);
        await CapturedDocument.Keep(db, intake, tried.Outcome, now, cancel);
        return null;
    }

    /// <summary>What persons chose for the invoices of a document.</summary>
    internal static IQueryable<TemplateChoice> Of(DaxlinDb db, int intake) => db.TemplateChoices.Where(one => one.IntakeId == intake).OrderBy(one => one.Id);

    private static Refused Busy(Invoice row) =>
        Refused.Conflict("being-captured", $"The file of invoice {row.Id} is being captured just now; look at what comes of it first.");
}
