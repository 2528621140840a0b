using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.Approvals;

/// <summary>A person takes an approval back before the invoice was posted: it is open again as it was before.</summary>
internal sealed class WithdrawingApproval(DaxlinDb db, CodingWorker coding, TimeProvider clock)
{
    public async Task<Refused?> Do(Invoice invoice, string? why, string who, CancellationToken cancel)
    {
        var reason = why?.Trim() ?? "";
        var isFirstOnly = BoundActs.IsUndecided(invoice) && invoice.FirstApprovedBy.Length > 0;
        if (invoice.State != InvoiceState.Approved && !isFirstOnly)
            return Refused.Conflict("not-approved", $"Invoice {invoice.Id} is {InvoiceDetails.Word(invoice.State)}; there is no approval to take back.");
        if (!Reason.SaysSomething(reason))
            return Refused.Faulty(CorrectionFault.ReasonMissing, $"Say why the approval of invoice {invoice.Id} is taken back, in words of {Reason.FewestLetters} letters at least; it is kept on record.");
        var before = isFirstOnly ? $"approved by {Approving.FirstOf(invoice)}, to be approved by a second" : "approved";
        (invoice.FirstApprovedBy, invoice.FirstApprovedFor, invoice.FirstApprovedSha256) = ("", "", "");
        if (!isFirstOnly)
        {
            invoice.State = invoice.Findings == 0 ? InvoiceState.Clear : InvoiceState.Held;
            (invoice.ApprovedSha256, invoice.CodedBy) = ("", "");
            await CodedCases.Forget(db, [invoice.Id], cancel);
        }
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Invoice(invoice.Id), clock.GetUtcNow().UtcDateTime, who, HistoryActs.ApprovalWithdrawn, "took the approval back") { Before = before, After = InvoiceDetails.Word(invoice.State), Reason = reason },
            cancel);
        await db.SaveChangesAsync(cancel);
        db.Then(coding.Wake);
        return null;
    }
}
