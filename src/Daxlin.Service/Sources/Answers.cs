using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Core.Sources;
using Daxlin.Service.Captures;
using Daxlin.Service.Nodes;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting.Tables;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Daxlin.Service.Sources;

/// <summary>Answers messages once all that came with them is captured: each once, or not at all and a person is told.</summary>
internal sealed class Answers(
    IDbContextFactory<DaxlinDb> databases, MailOnce once, WriteTurn turn, Leases leases, TimeProvider clock, ILogger<Answers> log) : RegularWork(TimeSpan.FromSeconds(2), clock, log)
{
    /// <summary>So many are looked at at a time.</summary>
    private const int Some = 50;

    protected override async Task Do(CancellationToken cancel)
    {
        foreach (var id in await Due(cancel))
            await Answer(id, cancel);
    }

    /// <summary>Messages whose documents have all been captured, and what a death left in the middle.</summary>
    private async Task<List<int>> Due(CancellationToken cancel)
    {
        var now = Clock.GetUtcNow().UtcDateTime;
        await using var db = await databases.CreateDbContextAsync(cancel);
        var open = await db.SourceItems.AsNoTracking()
            .Where(row => row.AnswerState == MailState.Sending || row.AnswerState == MailState.Waiting && (row.AnswerNextAt == null || row.AnswerNextAt <= now))
            .OrderBy(row => row.Id).Take(Some).ToListAsync(cancel);
        var due = new List<int>();
        foreach (var item in open)
        {
            var hashes = Parts(item).Select(part => part.Sha256).Where(sha256 => sha256.Length > 0).ToList();
            if (!await db.Intakes.AnyAsync(intake => intake.BatchId == item.BatchId && hashes.Contains(intake.Sha256) && intake.State == IntakeState.Waiting, cancel))
                due.Add(item.Id);
        }
        return due;
    }

    private async Task Answer(int id, CancellationToken cancel)
    {
        if (!await leases.Take(Leases.Answer, id, cancel))
            return;
        try
        {
            await AnswerHeld(id, cancel);
        }
        finally
        {
            await leases.End(Leases.Answer, id, CancellationToken.None);
        }
    }

    private async Task AnswerHeld(int id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var item = await db.SourceItems.AsNoTracking().SingleAsync(row => row.Id == id, cancel);
        if (item.AnswerState is not (MailState.Waiting or MailState.Sending))
            return;
        var newest = await SourceShelf.Newest(db).AsNoTracking().SingleAsync(row => row.Name == item.Source, cancel);
        if (SourceShelf.Read(newest)?.Way is not MailboxSource { Answer: { } answer })
        {
            await Change(id, row => (row.State, row.Says) = (MailState.None, "Nobody is answered: the source says so by now."), cancel);
            return;
        }
        using var message = await MessageOf(item, answer, db, cancel);
        await once.Send(item.AnswerState, message, answer.Line, act => Change(id, act, cancel), cancel);
    }

    private async Task Change(int id, Action<IMailedOnce> act, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        act(await db.SourceItems.SingleAsync(row => row.Id == id, cancel));
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }

    private static async Task<MimeMessage> MessageOf(SourceItem item, MailAnswer answer, DaxlinDb db, CancellationToken cancel)
    {
        var (told, tables) = await Told(item, answer.Attached, db, cancel);
        var disagreements = await CoveredTotals.Disagreements(item, db, cancel);
        var message = new MimeMessage { Subject = AnswerText.Fill(answer.Line.Subject, item.Name, told, disagreements) };
        message.From.Add(MailboxAddress.Parse(answer.Line.From));
        message.To.Add(new MailboxAddress("", item.AnswerTo));
        message.MessageId = MessageIds.Of("answer", item.Id, item.At, answer.Line);
        if (item.MessageId.Length > 0)
        {
            message.InReplyTo = item.MessageId;
            message.References.Add(item.MessageId);
        }
        // So that no program answers it in turn (RFC 3834, 5).
        message.Headers.Add("Auto-Submitted", "auto-replied");
        var body = new BodyBuilder { TextBody = AnswerText.Fill(answer.Text, item.Name, told, disagreements) };
        // Written as text, a table's line ends would become those of mail.
        foreach (var table in tables)
            ((MimePart)body.Attachments.Add(table.Name, table.Content, ContentType.Parse(table.MediaType))).ContentTransferEncoding = ContentEncoding.Base64;
        message.Body = body.ToMessageBody();
        return message;
    }

    /// <summary>What is said of each part, and the rows of each document.</summary>
    private static async Task<(ImmutableArray<AnsweredInvoice> Told, ImmutableArray<TableFile> Tables)> Told(SourceItem item, AnswerTable attached, DaxlinDb db, CancellationToken cancel)
    {
        var told = ImmutableArray.CreateBuilder<AnsweredInvoice>();
        var tables = ImmutableArray.CreateBuilder<TableFile>();
        foreach (var part in Parts(item))
        {
            if (part.Outcome == "cover")
                continue;
            if (part.Outcome == "left-out")
            {
                told.Add(new AnsweredInvoice(part.Name, "", "left-out", part.Reason));
                continue;
            }
            var intake = await db.Intakes.AsNoTracking().FirstAsync(row => row.BatchId == item.BatchId && row.Sha256 == part.Sha256, cancel);
            if (intake.State == IntakeState.Unreadable)
            {
                told.Add(new AnsweredInvoice(part.Name, "", "unreadable", intake.Reason));
                continue;
            }
            var invoices = await db.Invoices.AsNoTracking().Where(row => row.IntakeId == intake.Id).OrderBy(row => row.FirstPage).ThenBy(row => row.Id)
                .Select(row => new { row.Id, row.State, row.InvoiceNumber, row.Total, row.Currency, row.FirstFinding }).ToListAsync(cancel);
            told.AddRange(invoices.Select(one => new AnsweredInvoice(
                one.InvoiceNumber.Length > 0 ? $"{one.InvoiceNumber} ({part.Name})" : part.Name, SettledForm.Shown(one.Total, one.Currency),
                one.State switch { InvoiceState.Held => "held", InvoiceState.Unplaced => "unplaced", _ => "clear" }, one.FirstFinding)));
            if (attached != AnswerTable.None)
            {
                tables.Add(TableFile.Of(
                    await CapturedTable.Of([.. invoices.Select(one => one.Id)], db, cancel), attached == AnswerTable.Csv ? TableFile.Csv : TableFile.Xlsx,
                    Path.GetFileNameWithoutExtension(FileName.Of(part.Name)))!);
            }
        }
        return (told.ToImmutable(), tables.ToImmutable());
    }

    private static ImmutableArray<SourcePart> Parts(SourceItem item) => JsonSerializer.Deserialize<ImmutableArray<SourcePart>>(item.Parts, JsonSerializerOptions.Web);
}
