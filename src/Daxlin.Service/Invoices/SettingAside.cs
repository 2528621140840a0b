using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>A person sets an invoice aside or returns it to its vendor, with a reason: it posts nothing and holds no other.</summary>
internal static class SettingAside
{
    /// <summary>Sets an invoice aside that nobody has decided on.</summary>
    /// <param name="who">Who decides.</param>
    /// <param name="letter">What the vendor is told; null if it does not go back to the vendor.</param>
    /// <returns>False if it is decided on already.</returns>
    public static async Task<bool> Do(Invoice invoice, string reason, string? letter, string who, DaxlinDb db, TimeProvider clock, CancellationToken cancel)
    {
        if (invoice.State is not (InvoiceState.Held or InvoiceState.Clear or InvoiceState.Unplaced))
            return false;
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        db.Decisions.Add(new Decision
        {
            InvoiceId = invoice.Id,
            At = clock.GetUtcNow().UtcDateTime,
            By = who,
            What = letter is null ? "set aside" : "returned to the vendor",
            Before = invoice.State.ToString().ToLowerInvariant(),
            After = "returned",
            Reason = reason,
            Letter = letter ?? "",
        });
        invoice.State = InvoiceState.Returned;
        await Doubles.Refresh(db, [invoice.SeenKey], cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }
}
