using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Values;
using Daxlin.Service.People;
using Daxlin.Service.Review;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Approvals;

/// <summary>Holds an approval against the rules for approvals and against who has had a hand in the invoice.</summary>
internal sealed class FourEyes(DaxlinDb db, ApprovalRulings rulings)
{
    public async Task<ApprovalVerdict> Of(Invoice invoice, Approver who, CancellationToken cancel)
    {
        var rules = ApprovalRulings.RulesOf(await rulings.Newest(cancel));
        var facts = await FactsOf(invoice, cancel);
        var verdict = facts.Of(who, rules);
        return verdict.Refusal.Length == 0 ? verdict : ApprovalVerdict.Refused($"{verdict.Refusal} {await Others(facts, rules, cancel)}");
    }

    /// <summary>Those who approve, and whom these rules do not keep from it.</summary>
    private Task<string> Others(ApprovalFacts facts, ApprovalRules rules, CancellationToken cancel) => WhoCan.Sentence(
        db, person => person.Rights.Contains(Right.Approve) && facts.Of(new Approver(person.Name), rules).Refusal.Length == 0, "Another approver has to.", cancel);

    private async Task<ApprovalFacts> FactsOf(Invoice invoice, CancellationToken cancel)
    {
        var corrections = await db.Corrections.AsNoTracking().Where(row => row.InvoiceId == invoice.Id && row.Undoes == null).ToListAsync(cancel);
        var template = await db.Templates.Where(row => row.Name == invoice.Template && row.Version == invoice.TemplateVersion).Select(row => row.SavedBy).FirstOrDefaultAsync(cancel);
        var account = invoice.Iban.Length == 0 || invoice.VendorId is null ? null
            : await db.VendorAccounts.AsNoTracking().FirstOrDefaultAsync(row => row.VendorId == invoice.VendorId && row.Iban == invoice.Iban && row.EndedAt == null, cancel);
        return new ApprovalFacts(
            $"Invoice {invoice.Id}", Currency.Find(invoice.Currency),
            ExpressionType.Number.Read(invoice.Total) as decimal?,
            [.. corrections.Where(row => CorrectedInvoices.Of(row).What is not (null or LineCoded or FindingAccepted)).Select(row => row.By).Distinct()],
            template ?? "", [.. new[] { account?.AddedBy, account?.ConfirmedBy }.OfType<string>().Where(name => name.Length > 0)],
            await IsAccountChanged(invoice, cancel), invoice.FirstApprovedSha256.Length > 0 && invoice.FirstApprovedSha256 == HistoryChain.ContentOf(invoice.Record) ? Approving.FirstOf(invoice) : null);
    }

    /// <summary>Says that the vendor's invoices were approved for other accounts before, and none yet for this one.</summary>
    private async Task<bool> IsAccountChanged(Invoice invoice, CancellationToken cancel)
    {
        if (invoice.Iban.Length == 0 || invoice.VendorId is not { } vendor)
            return false;
        var paid = db.Invoices.Where(row => row.VendorId == vendor && row.Id != invoice.Id && row.Iban != "" && (row.State == InvoiceState.Approved || row.State == InvoiceState.Posted));
        return await paid.AnyAsync(row => row.Iban != invoice.Iban, cancel) && !await paid.AnyAsync(row => row.Iban == invoice.Iban, cancel);
    }
}
