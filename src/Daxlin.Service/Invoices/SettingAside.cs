using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Letters;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>A person sets an invoice aside or returns it to its vendor, with a reason: it posts nothing and holds no other.</summary>
public sealed class SettingAside(DaxlinDb db, SendingLetter sending, TimeProvider clock)
{
    private const int LongestLetter = 20_000;

    /// <summary>Sets an invoice aside that nobody has decided on.</summary>
    /// <param name="letter">What the vendor is told; null if it does not go back to the vendor.</param>
    /// <param name="sendTo">The address that the letter is sent to; empty if it is not sent from here.</param>
    /// <param name="who">Who decides.</param>
    internal async Task<Refused?> Do(Invoice invoice, string? why, string? letter, string sendTo, string who, CancellationToken cancel)
    {
        var reason = why?.Trim() ?? "";
        if (!Reason.SaysSomething(reason))
        {
            return Refused.Faulty(
                CorrectionFault.ReasonMissing,
                $"Say why invoice {invoice.Id} is {(letter is null ? "set aside" : "returned")}, in words of {Reason.FewestLetters} letters at least; it is kept on record.");
        }
        if (letter?.Length > LongestLetter)
            return Refused.Faulty("letter-too-long", $"A letter has at most {LongestLetter} characters.");
        if (!BoundActs.IsUndecided(invoice))
            return BoundActs.AlreadyDecided(invoice);
        if (sendTo.Length > 0 && await sending.Do(invoice, sendTo, letter ?? "", cancel) is { } unsent)
            return unsent;
        var now = clock.GetUtcNow().UtcDateTime;
        await HistoryLog.Record(
            db,
            new Deed(HistoryStreams.Invoice(invoice.Id), now, who, letter is null ? HistoryActs.SetAside : HistoryActs.Returned, letter is null ? "set aside" : sendTo.Length > 0 ? $"returned to the vendor, with a letter to {sendTo}" : "returned to the vendor")
            {
                Before = InvoiceDetails.Word(invoice.State),
                After = "returned",
                Reason = reason,
                Letter = letter ?? "",
            },
            cancel);
        invoice.State = InvoiceState.Returned;
        await StoreFindings.Refresh(db, [], [InvoiceKeys.Of(invoice)], now, cancel);
        return null;
    }
}
