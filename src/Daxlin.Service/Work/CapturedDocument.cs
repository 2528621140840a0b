using System.Collections.Immutable;
using Daxlin.Core.Electronic;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Puts what a document was captured as into the rows of its invoices.</summary>
/// <remarks>
/// A row is known by its first page. Pages of a decided invoice are never captured over. A row whose first page begins no
/// invoice any more goes, but for one on which a person has worked: that stays as it was, held, and says what became of its pages. Of one that no template captured there is nothing to keep.
/// </remarks>
internal static class CapturedDocument
{
    /// <param name="db">Within a transaction, by who has the turn to write.</param>
    public static async Task Keep(DaxlinDb db, Intake intake, DocumentOutcome outcome, DateTime now, CancellationToken cancel)
    {
        var known = await db.Invoices.Where(row => row.IntakeId == intake.Id).ToListAsync(cancel);
        var left = known.FindAll(BoundActs.IsUndecided);
        var decided = known.Except(left).ToList();
        var keys = left.ConvertAll(InvoiceKeys.Of);
        var filled = new List<(Invoice Row, string Before)>();
        foreach (var captured in outcome.Invoices.Where(one => !decided.Any(row => row.FirstPage <= one.LastPage && row.LastPage >= one.FirstPage)))
        {
            var invoice = captured.State == InvoiceState.Unplaced ? captured.LookingLike(await LikeInvoices.VendorOf(db, captured, intake.Id, cancel)) : captured;
            var row = left.Find(row => row.FirstPage == invoice.FirstPage);
            if (row is null)
            {
                row = new Invoice { Id = await NumberFor(intake, db, cancel), CapturedAt = default, IntakeId = intake.Id, BatchId = intake.BatchId };
                db.Invoices.Add(row);
            }
            left.Remove(row);
            row.CapturedAt = now;
            var before = known.Contains(row) ? row.Record : "";
            filled.Add((row, before));
            row.Intake = intake;
            invoice.Fill(row);
            if (known.Contains(row))
                await CorrectedInvoices.TakeOver(row, db, cancel);
            StoreFindings.Carry(row, before);
        }
        var kept = left.FindAll(row => row.IsTouched && row.State != InvoiceState.Unplaced);
        foreach (var row in kept)
        {
            filled.Add((row, row.Record));
            row.Intake = intake;
            PartedOtherwise.Hold(row, filled.Select(one => one.Row).Where(other => other.FirstPage <= row.LastPage && other.LastPage >= row.FirstPage && other != row));
        }
        db.Invoices.RemoveRange(left.Except(kept));
        (intake.State, intake.Pages, intake.Attempts) = (IntakeState.Done, outcome.Pages, 0);
        (intake.Reason, intake.ReasonCode) = ("", "");
        await StoreFindings.Refresh(db, filled.ConvertAll(one => one.Row), keys, now, cancel);
        // What is captured anew as it was is nothing new.
        await HistoryLog.Record(db, [.. filled.Where(one => one.Row.Record != one.Before).Select(one => Told(one.Row, now))], cancel);
        await db.SaveChangesAsync(cancel);
    }

    private static Deed Told(Invoice row, DateTime at) => new(
        HistoryStreams.Invoice(row.Id), at, Deed.Daxlin, HistoryActs.Captured,
        PartedOtherwise.IsSo(row) ? "kept as it was: its file is parted otherwise now"
        : row.Template.Length == 0 ? "placed by no template"
        : row.Template == ElectronicTemplate.Name ? "read as an electronic invoice" : $"captured by the template {row.Template}, version {row.TemplateVersion}")
    {
        After = InvoiceDetails.Word(row.State),
        Reason = row.FirstFinding,
        Content = HistoryChain.ContentOf(row.Record),
    };

    /// <summary>The first invoice of a document has its number from the intake; others get theirs when they are found.</summary>
    private static async Task<int> NumberFor(Intake intake, DaxlinDb db, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        return intake.InvoiceNumber > 0 && !await db.Invoices.AnyAsync(other => other.Id == intake.InvoiceNumber, cancel)
            ? intake.InvoiceNumber : await InvoiceNumbers.Next(db, cancel);
    }
}
