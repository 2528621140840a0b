using Daxlin.Core.Corrections;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using MimeKit;

namespace Daxlin.Service.Letters;

/// <summary>A person has a letter about a returned invoice sent to its vendor.</summary>
public sealed class SendingLetter(DaxlinDb db, TimeProvider clock)
{
    /// <summary>Notes it, within the change that returns the invoice.</summary>
    internal async Task<Refused?> Do(Invoice invoice, string to, string text, CancellationToken cancel)
    {
        if (!MailboxAddress.TryParse(to, out var address) || address.Address.Length != to.Length || !to.Contains('@', StringComparison.Ordinal))
            return Refused.Faulty("address-faulty", $"“{to}” is no address; one is written as billing@vendor.example.");
        if (string.IsNullOrWhiteSpace(text))
            return Refused.Faulty("letter-missing", "The letter is empty: say what the vendor is told.");
        if (await LetterLine.Of(invoice, db, cancel) is not { } line)
            return Refused.Conflict("no-mail-line", "No mailbox here answers anybody, so nothing can be sent. Return the invoice without sending, and send the letter yourself; or let an administrator add “answer” to a source.");
        db.LettersToVendors.Add(new LetterToVendor
        {
            InvoiceId = invoice.Id,
            Source = line.Source,
            To = to,
            Subject = ReturnLetter.SubjectOf(invoice.InvoiceNumber),
            Text = text,
            InReplyTo = to.Equals(line.To, StringComparison.OrdinalIgnoreCase) ? line.InReplyTo : "",
            AskedAt = clock.GetUtcNow().UtcDateTime,
            State = MailState.Waiting,
        });
        return null;
    }
}
