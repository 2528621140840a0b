using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Reading;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Work;

/// <summary>Takes one document along the path read → recognise → capture → check, and stores what comes of it.</summary>
public sealed class DocumentCapture(
    IDbContextFactory<DaxlinDb> databases, DocumentStore documents, DocumentReader reader, TemplateShelf shelf,
    WriteTurn turn, BatchEvents events, TimeProvider clock)
{
    /// <summary>A document whose reading stopped the service this often is not begun again.</summary>
    private const int MostAttempts = 3;

    public async Task Run(int intakeId, CancellationToken cancel)
    {
        if (await Begin(intakeId, cancel) is not var (intake, facts))
            return;
        if (intake.Attempts > MostAttempts)
        {
            await SetAside(
                intakeId, "failed", $"Work on this document stopped {MostAttempts} times without a result; it was set aside.", cancel);
            return;
        }
        ImmutableArray<Page> pages;
        try
        {
            pages = await reader.Read(documents.PathOf(intake.Sha256), cancel);
        }
        catch (UnreadableException error)
        {
            await SetAside(intakeId, error.Code, error.Message, cancel);
            return;
        }
        var templates = await shelf.Newest(cancel);
        var invoices = InvoicePath.Take(pages, [.. templates.Select(entry => entry.Template)], facts)
            .Select(taken => (taken, Version: taken.Found.Template is { } of ? templates.First(entry => entry.Template == of).Version : 0))
            .ToList();
        await Store(intakeId, pages.Length, invoices, cancel);
    }

    /// <summary>Counts the attempt before it is made, so that a document that kills the service is known by it.</summary>
    private async Task<(Intake Intake, DocumentFacts Facts)?> Begin(int intakeId, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var intake = await db.Intakes.SingleOrDefaultAsync(
            row => row.Id == intakeId && row.State == IntakeState.Waiting, cancel);
        if (intake is null)
            return null;
        intake.Attempts++;
        await db.SaveChangesAsync(cancel);
        var batch = await db.Batches.Where(row => row.Id == intake.BatchId).Select(row => row.Name).SingleAsync(cancel);
        return (intake, new DocumentFacts(intake.FileName, batch, DateOnly.FromDateTime(intake.ReceivedAt)));
    }

    public async Task SetAside(int intakeId, string code, string reason, CancellationToken cancel)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            (intake.State, intake.ReasonCode, intake.Reason) = (IntakeState.Unreadable, code, reason);
            var gone = await Undecided(db, intakeId, cancel);
            db.Invoices.RemoveRange(gone);
            await db.SaveChangesAsync(cancel);
            foreach (var key in gone.Select(invoice => invoice.SeenKey).Distinct())
                await Doubles.Refresh(db, key, cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private async Task Store(int intakeId, int pages, List<(TakenInvoice Taken, int Version)> invoices, CancellationToken cancel)
    {
        int batch;
        using (await turn.Take(cancel))
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var intake = await db.Intakes.SingleAsync(row => row.Id == intakeId, cancel);
            var undecided = await Undecided(db, intakeId, cancel);
            var known = undecided.Select(row => row.Id).ToList();
            var decided = await db.Invoices.Where(row => row.IntakeId == intakeId && !known.Contains(row.Id)).ToListAsync(cancel);
            // Pages of a decided invoice are never captured over.
            foreach (var (invoice, version) in invoices.Where(one => !decided.Any(row => row.FirstPage <= one.Taken.LastPage && row.LastPage >= one.Taken.FirstPage)))
            {
                var row = undecided.Find(row => row.FirstPage == invoice.FirstPage);
                if (row is null)
                {
                    var isFree = intake.InvoiceNumber > 0 && !await db.Invoices.AnyAsync(other => other.Id == intake.InvoiceNumber, cancel);
                    row = new Invoice
                    {
                        Id = isFree ? intake.InvoiceNumber : await InvoiceNumbers.Next(db, cancel),
                        CapturedAt = clock.GetUtcNow().UtcDateTime,
                        IntakeId = intakeId,
                        BatchId = intake.BatchId,
                    };
                    db.Invoices.Add(row);
                }
                undecided.Remove(row);
                var keyBefore = row.SeenKey;
                (row.CapturedAt, row.FirstPage, row.LastPage) = (clock.GetUtcNow().UtcDateTime, invoice.FirstPage, invoice.LastPage);
                if (invoice.Checked is null)
                    FillUnplaced(row, invoice.Found.Matches);
                else
                    Fill(row, invoice.Checked, version);
                await Doubles.Refresh(db, row.SeenKey, cancel);
                if (keyBefore != row.SeenKey)
                    await Doubles.Refresh(db, keyBefore, cancel);
            }
            db.Invoices.RemoveRange(undecided);
            foreach (var key in undecided.Select(gone => gone.SeenKey).Distinct())
                await Doubles.Refresh(db, key, cancel);
            (intake.State, intake.Pages, intake.Attempts) = (IntakeState.Done, pages, 0);
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            batch = intake.BatchId;
        }
        events.Moved(batch);
    }

    private static Task<List<Invoice>> Undecided(DaxlinDb db, int intakeId, CancellationToken cancel) => db.Invoices
        .Where(invoice => invoice.IntakeId == intakeId
            && (invoice.State == InvoiceState.Unplaced || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Clear))
        .ToListAsync(cancel);

    private static string KeyOf(CheckedInvoice invoice) =>
        invoice.Captured.Find(TradeNames.InvoiceNumber) is { } number
            ? SeenBefore.Key(invoice.Captured.Template.Vendor, number.Value)
            : "";

    private static void Fill(Invoice row, CheckedInvoice invoice, int version)
    {
        var (captured, template) = (invoice.Captured, invoice.Captured.Template);
        row.State = invoice.IsClear ? InvoiceState.Clear : InvoiceState.Held;
        (row.Template, row.TemplateVersion, row.Vendor) = (template.Name, version, template.Vendor);
        row.InvoiceNumber = captured.Find(TradeNames.InvoiceNumber)?.Value ?? "";
        row.InvoiceDate = captured.Find(TradeNames.InvoiceDate)?.Value ?? "";
        row.Currency = captured.Find(TradeNames.Currency)?.Value ?? template.Reads.Currency.Code;
        row.Total = captured.Find(TradeNames.Total)?.Value ?? "";
        row.SeenKey = KeyOf(invoice);
        row.IsCreditNote = captured.IsCreditNote;
        row.Lines = captured.Lines.Length;
        SetFindings(row, [.. invoice.Findings.Where(finding => finding.Severity == Severity.Hold)]);
        row.Record = InvoiceRecords.ToJson(InvoiceRecords.Of(invoice));
    }

    private static void FillUnplaced(Invoice row, ImmutableArray<TemplateMatch> matches)
    {
        var finding = Placing.FindingOf(matches);
        row.State = InvoiceState.Unplaced;
        (row.Template, row.TemplateVersion, row.Vendor, row.SeenKey, row.Lines) = ("", 0, "", "", 0);
        (row.InvoiceNumber, row.InvoiceDate, row.Currency, row.Total, row.IsCreditNote) = ("", "", "", "", false);
        SetFindings(row, [finding]);
        row.Record = InvoiceRecords.ToJson(InvoiceRecord.Empty with { Findings = [InvoiceRecords.Of(finding)] });
    }

    private static void SetFindings(Invoice row, ImmutableArray<Finding> holds) =>
        (row.Findings, row.FirstFinding) = (holds.Length, holds.IsEmpty ? "" : holds[0].Message);
}
