using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>An invoice as an act or a look at it answers: all that is known of it, bound to its revision.</summary>
internal static class InvoiceDetails
{
    public static Ok<InvoiceDetail> Tagged(InvoiceDetail invoice, HttpResponse response)
    {
        Seen.Tag(response, invoice.Revision);
        return TypedResults.Ok(invoice);
    }

    public static async Task<InvoiceDetail?> Find(int id, DaxlinDb db, CancellationToken cancel)
    {
        var row = await db.Invoices.Include(invoice => invoice.Intake).SingleOrDefaultAsync(invoice => invoice.Id == id, cancel);
        if (row is null)
            return null;
        var batch = await db.Batches.SingleAsync(batch => batch.Id == row.BatchId, cancel);
        var stream = HistoryStreams.Invoice(id);
        var decisions = await db.History.Where(entry => entry.Stream == stream && entry.Act != HistoryActs.Captured).OrderBy(entry => entry.Number).ToListAsync(cancel);
        var run = await db.PostedInvoices.Where(posted => posted.InvoiceId == id && posted.WithdrawnIn == null).Select(posted => (int?)posted.RunNumber)
            .SingleOrDefaultAsync(cancel);
        var letters = row.State == InvoiceState.Returned ? await db.LettersToVendors.AsNoTracking().Where(letter => letter.InvoiceId == id).OrderBy(letter => letter.Id).ToListAsync(cancel) : [];
        var record = InvoiceRecords.FromJson(row.Record);
        return new InvoiceDetail(
            row.Id, row.Revision, Word(row.State), record.Kind, row.BatchId, batch.Name,
            new InvoiceDocument(row.Intake.FileName, row.Intake.Sha256, row.Intake.Size, row.Intake.ReceivedAt),
            row.Intake.Pages, row.FirstPage, row.LastPage, row.Template, row.TemplateVersion, row.Vendor, row.Currency,
            record.Fields, record.Lines, record.Taxes, record.Others, record.Findings, record.Ties, record.Tied, record.Unproved, record.LeftOut,
            [.. decisions.Select(one => new DecisionRecord(one.At, one.By, one.What, one.Before, one.After, one.Reason, one.Letter))],
            run, record.Entered, record.Struck, record.Accepted, row.HandedTo, row.VendorId, record.Proof, record.Unsure,
            record.CodedByHand, record.Coding, record.Electronic)
        {
            FirstApprovedBy = row.FirstApprovedSha256.Length > 0 && row.FirstApprovedSha256 == HistoryChain.ContentOf(row.Record) ? Approvals.Approving.FirstOf(row).ToString() : "",
            Letters = [.. letters.Select(letter => new SentLetter(letter.To, MailWords.Of(letter.State), letter.Says))],
        };
    }

    /// <summary>What became of an invoice since it was shown.</summary>
    public static string Changed(Invoice invoice, DaxlinDb db)
    {
        var stream = HistoryStreams.Invoice(invoice.Id);
        var last = db.History.Where(entry => entry.Stream == stream).OrderByDescending(entry => entry.Number).FirstOrDefault();
        return $"Invoice {Text(invoice.Id)} is not as it was shown: "
            + (last is not null && last.Act != HistoryActs.Captured
                ? $"it is {Word(invoice.State)} by {last.By}, {Time(last.At)}."
                : $"it was captured again{(invoice.TemplateVersion > 0 ? $" by the template {invoice.Template}, version {Text(invoice.TemplateVersion)}" : "")}, {Time(invoice.CapturedAt)}, {(invoice.CodedBy.Length > 0 ? "or coded anew since by other rules, " : "")}and is {Word(invoice.State)}.")
            + " Look at it again.";
    }

    private static string Time(DateTime at) => at.ToString("yyyy-MM-dd HH:mm:ss 'UTC'", CultureInfo.InvariantCulture);

    /// <summary>A state as the interface names it.</summary>
    public static string Word(InvoiceState state) => state.ToString().ToLowerInvariant();

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
