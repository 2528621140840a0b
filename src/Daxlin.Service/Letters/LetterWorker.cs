using System.Globalization;
using Daxlin.Core.Sources;
using Daxlin.Service.Nodes;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Letters;

/// <summary>Sends letters about returned invoices, each once.</summary>
internal sealed class LetterWorker(IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn turn, Leases leases, TimeProvider clock, ILogger<LetterWorker> log) : RegularWork(TimeSpan.FromSeconds(2), clock, log)
{
    protected override async Task Do(CancellationToken cancel)
    {
        foreach (var id in await Due(cancel))
            await Send(id, cancel);
    }

    private async Task<List<int>> Due(CancellationToken cancel)
    {
        var now = Clock.GetUtcNow().UtcDateTime;
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.LettersToVendors.Where(row => row.State == MailState.Sending || row.State == MailState.Waiting && (row.NextAt == null || row.NextAt <= now))
            .OrderBy(row => row.Id).Select(row => row.Id).ToListAsync(cancel);
    }

    private async Task Send(int id, CancellationToken cancel)
    {
        if (!await leases.Take(Leases.Letter, id, cancel))
            return;
        try
        {
            LetterToVendor letter;
            MailAnswer? answer;
            bool isReturned;
            await using (var db = await databases.CreateDbContextAsync(cancel))
            {
                letter = await db.LettersToVendors.AsNoTracking().SingleAsync(row => row.Id == id, cancel);
                isReturned = await db.Invoices.AnyAsync(invoice => invoice.Id == letter.InvoiceId && invoice.State == InvoiceState.Returned, cancel);
                answer = (SourceShelf.Read(await SourceShelf.Newest(db).AsNoTracking().SingleAsync(row => row.Name == letter.Source, cancel))?.Way as MailboxSource)?.Answer;
            }
            if (letter.State is not (MailState.Waiting or MailState.Sending))
                return;
            if (answer is null)
            {
                await Change(id, row => (row.State, row.Says) = (MailState.GivenUp, $"The source “{letter.Source}” answers nobody any more."), cancel);
                return;
            }
            if (letter.State == MailState.Waiting && !isReturned)
            {
                await Change(id, row => (row.State, row.Says) = (MailState.GivenUp, "The invoice was taken back before the letter could be sent."), cancel);
                return;
            }
            using var message = MessageOf(letter, answer);
            await once.Send(letter.State, message, answer.Line, act => Change(id, act, cancel), cancel);
        }
        finally
        {
            await leases.End(Leases.Letter, id, CancellationToken.None);
        }
    }

    private static MimeMessage MessageOf(LetterToVendor letter, MailAnswer answer)
    {
        var message = new MimeMessage { Subject = letter.Subject, Body = new TextPart("plain") { Text = letter.Text } };
        message.From.Add(MailboxAddress.Parse(answer.Line.From));
        message.To.Add(new MailboxAddress("", letter.To));
        // The same however often it is made, so that it can be found.
        message.MessageId = string.Create(CultureInfo.InvariantCulture, $"letter-{letter.Id}-{letter.AskedAt.Ticks}@{answer.Line.From[(answer.Line.From.IndexOf('@', StringComparison.Ordinal) + 1)..]}");
        if (letter.InReplyTo.Length > 0)
        {
            message.InReplyTo = letter.InReplyTo;
            message.References.Add(letter.InReplyTo);
        }
        return message;
    }

    private async Task Change(int id, Action<IMailedOnce> act, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        act(await db.LettersToVendors.SingleAsync(row => row.Id == id, cancel));
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }
}
