using Daxlin.Core.Sources;
using Daxlin.Service.Nodes;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Letters;

/// <summary>Sends letters about returned invoices.</summary>
internal sealed class LetterWorker(IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn turn, Leases leases, TimeProvider clock, ILogger<LetterWorker> log)
    : WaitingMail<LetterToVendor>(Leases.Letter, databases, once, turn, leases, clock, log)
{
    protected override async Task<MailToSend> Make(LetterToVendor row, DaxlinDb db, CancellationToken cancel)
    {
        if ((SourceShelf.Read(await SourceShelf.Newest(db).AsNoTracking().SingleAsync(source => source.Name == row.Source, cancel))?.Way as MailboxSource)?.Answer is not { } answer)
            return MailToSend.Not($"The source “{row.Source}” answers nobody any more.");
        if (row.State == MailState.Waiting && !await db.Invoices.AnyAsync(invoice => invoice.Id == row.InvoiceId && invoice.State == InvoiceState.Returned, cancel))
            return MailToSend.Not("The invoice was taken back before the letter could be sent.");
        var message = new MimeMessage { Subject = row.Subject, Body = new TextPart("plain") { Text = row.Text }, MessageId = MessageIds.Of("letter", row.Id, row.AskedAt, answer.Line) };
        message.From.Add(MailboxAddress.Parse(answer.Line.From));
        message.To.Add(new MailboxAddress("", row.To));
        if (row.InReplyTo.Length > 0)
        {
            message.InReplyTo = row.InReplyTo;
            message.References.Add(row.InReplyTo);
        }
        return MailToSend.By(answer.Line, message);
    }
}
