using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Core.Vendors;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Approvals;

/// <summary>A person approves an invoice for posting; one that is held only with a reason.</summary>
/// <remarks>Where a second approver is needed, the first approval is kept with what was approved: it counts as long as that is what the invoice says.</remarks>
internal sealed class Approving(DaxlinDb db, FourEyes fourEyes, CodingWorker coding, TimeProvider clock)
{
    public const string SecondNeeded = "second-approver-needed";

    /// <summary>What is said of an invoice that one person has approved.</summary>
    public static string SecondSentence(Invoice invoice) => $"Invoice {invoice.Id} was approved by {FirstOf(invoice)}; a second approver has to, too.";

    /// <summary>Who approved it first, whatever became of it since.</summary>
    public static Approver FirstOf(Invoice invoice) => new(invoice.FirstApprovedBy, invoice.FirstApprovedFor);

    internal async Task<Refused?> Do(Invoice invoice, string? reason, Approver approver, CancellationToken cancel)
    {
        var (despite, who) = (reason?.Trim() ?? "", approver.ToString());
        var at = clock.GetUtcNow().UtcDateTime;
        if (await StoreFindings.CodeAnew(db, invoice, at, cancel))
        {
            // A refusal leaves nothing stored; it is coded by who codes all of them.
            coding.Wake();
            return Refused.Conflict("coded-anew", $"The coding rules changed since invoice {invoice.Id} was shown, and it gets other codes by them. Look at it again.");
        }
        if (await Refusal(invoice, despite, cancel) is { } refusal)
            return refusal;
        var verdict = await fourEyes.Of(invoice, approver, cancel);
        if (verdict.Refusal.Length > 0)
            return Refused.Conflict("four-eyes", verdict.Refusal);
        if (verdict.WhySecond.Length > 0)
        {
            (invoice.FirstApprovedBy, invoice.FirstApprovedFor, invoice.FirstApprovedSha256) = (approver.Name, approver.For, HistoryChain.ContentOf(invoice.Record));
            invoice.IsTouched |= invoice.State == InvoiceState.Held;
            await HistoryLog.Record(
                db,
                new Deed(HistoryStreams.Invoice(invoice.Id), at, who, HistoryActs.ApprovedFirst, $"approved first; a second approver is needed, since {verdict.WhySecond}") { Before = InvoiceDetails.Word(invoice.State), After = InvoiceDetails.Word(invoice.State), Reason = despite, Content = invoice.FirstApprovedSha256 },
                cancel);
            await db.SaveChangesAsync(cancel);
            return null;
        }
        invoice.ApprovedSha256 = HistoryChain.ContentOf(invoice.Record);
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Invoice(invoice.Id), at, who, HistoryActs.Approved, invoice.FirstApprovedSha256 == invoice.ApprovedSha256 ? $"approved, as the second after {FirstOf(invoice)}" : "approved")
            {
                Before = InvoiceDetails.Word(invoice.State),
                After = "approved",
                Reason = despite,
                Content = invoice.ApprovedSha256,
            },
            cancel);
        invoice.IsTouched |= invoice.State == InvoiceState.Held;
        invoice.State = InvoiceState.Approved;
        // Opened again later, it needs both anew.
        (invoice.FirstApprovedBy, invoice.FirstApprovedFor, invoice.FirstApprovedSha256) = ("", "", "");
        CodedCases.Remember(db, invoice);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private async Task<Refused?> Refusal(Invoice invoice, string despite, CancellationToken cancel)
    {
        if (!BoundActs.IsUndecided(invoice))
            return BoundActs.AlreadyDecided(invoice);
        if (invoice.State == InvoiceState.Unplaced)
            return Refused.Conflict("unplaced", $"Invoice {invoice.Id} was not captured: {invoice.FirstFinding} Nothing of it can be approved.");
        if (PartedOtherwise.IsSo(invoice))
            return Refused.Conflict(PartedOtherwise.Code, $"Invoice {invoice.Id} cannot be approved, whatever the reason. {invoice.FirstFinding}");
        if (invoice.State == InvoiceState.Held && InvoiceRecords.FromJson(invoice.Record).Findings.FirstOrDefault(one => one.Code == VendorChecks.AccountChanged) is { } account)
            return Refused.Conflict("second-person-needed", $"Invoice {invoice.Id} cannot be approved with an account that nobody confirmed, whatever the reason. {account.Message}");
        if (Reason.SaysSomething(despite))
            return null;
        if (invoice.State == InvoiceState.Held)
        {
            return Refused.Conflict(
                "findings-open",
                $"Invoice {invoice.Id} is held by {(invoice.Findings == 1 ? "a finding" : $"{invoice.Findings} findings")}: {invoice.FirstFinding} To approve it all the same, say why.");
        }
        // An invoice that became clear before its double was taken in: the double is held, but this one may come second.
        var other = invoice.SeenKey.Length == 0 ? 0 : await db.Invoices
            .Where(row => row.SeenKey == invoice.SeenKey && row.Id != invoice.Id
                && (row.State == InvoiceState.Approved || row.State == InvoiceState.Posted))
            .Select(row => row.Id).FirstOrDefaultAsync(cancel);
        return other == 0 ? null
            : Refused.Conflict(SeenBefore.Code, $"{invoice.Vendor} {invoice.InvoiceNumber} is approved already as invoice {other}. To approve it again, say why.");
    }
}
