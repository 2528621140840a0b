using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Invoices;

/// <summary>Has acts done on invoices, each bound to what its person saw. What the invoice has become is the answer.</summary>
public sealed class BoundActs(DaxlinDb db, WriteTurn turn)
{
    /// <param name="act">Does it and stores it, or says why it cannot be done; null for done.</param>
    internal Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Do(int id, HttpRequest request, Func<Invoice, Task<Refused?>> act, CancellationToken cancel) =>
        Bound.Do<Invoice, InvoiceDetail>(
            id, "invoice", db, turn, request, invoice => InvoiceDetails.Changed(invoice, db), act, async invoice => (await InvoiceDetails.Find(invoice.Id, db, cancel))!, cancel);

    /// <summary>What is said of an invoice that is decided on.</summary>
    internal static Refused AlreadyDecided(Invoice invoice) =>
        Refused.Conflict("already-decided", $"Invoice {invoice.Id} is {InvoiceDetails.Word(invoice.State)} already.");

    /// <summary>Says that nobody has decided on an invoice yet.</summary>
    internal static bool IsUndecided(Invoice invoice) => invoice.State is InvoiceState.Unplaced or InvoiceState.Held or InvoiceState.Clear;
}
