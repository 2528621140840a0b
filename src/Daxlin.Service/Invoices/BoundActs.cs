using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>Has acts done on invoices, each bound to what its person saw.</summary>
/// <remarks>
/// The turn to write is held from the look at the revision to the end of the act, so what was seen is still so when the act is
/// stored. What the invoice has become is the answer, with its new revision.
/// </remarks>
public sealed class BoundActs(DaxlinDb db, WriteTurn turn)
{
    /// <param name="act">Does it and stores it, or says why it cannot be done; null for done.</param>
    internal async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Do(int id, HttpRequest request, Func<Invoice, Task<Refused?>> act, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        if (await db.Invoices.SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } invoice)
            return Problem.NotThere($"invoice {id}");
        if (Seen.Refuse(request, invoice.Revision, () => InvoiceDetails.Changed(invoice, db)) is { } unseen)
            return unseen;
        if (await act(invoice) is { } refused)
            return refused.ToProblem();
        return InvoiceDetails.Tagged((await InvoiceDetails.Find(id, db, cancel))!, request.HttpContext.Response);
    }

    /// <summary>What is said of an invoice that is decided on.</summary>
    internal static Refused AlreadyDecided(Invoice invoice) =>
        Refused.Conflict("already-decided", $"Invoice {invoice.Id} is {InvoiceDetails.Word(invoice.State)} already.");

    /// <summary>Says that nobody has decided on an invoice yet.</summary>
    internal static bool IsUndecided(Invoice invoice) => invoice.State is InvoiceState.Unplaced or InvoiceState.Held or InvoiceState.Clear;
}
