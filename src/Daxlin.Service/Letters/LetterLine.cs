using Daxlin.Core.Posting.Receivers;
using Daxlin.Core.Sources;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Letters;

/// <summary>How a letter about an invoice goes to its vendor: by a mailbox that answers, the one that the invoice came from where it can.</summary>
/// <param name="Source">The source that the mailbox belongs to.</param>
/// <param name="To">Who sent the invoice; empty for one that came otherwise.</param>
/// <param name="InReplyTo">The id of the message that it came with; empty for none.</param>
internal sealed record LetterLine(string Source, MailWay Line, string To, string InReplyTo)
{
    /// <returns>Null where no mailbox answers anybody: the letter is sent by hand then.</returns>
    public static async Task<LetterLine?> Of(Invoice invoice, DaxlinDb db, CancellationToken cancel)
    {
        var sha256 = await db.Intakes.Where(intake => intake.Id == invoice.IntakeId).Select(intake => intake.Sha256).SingleAsync(cancel);
        var message = await db.SourceItems.AsNoTracking().Where(item => item.BatchId == invoice.BatchId && item.From != "" && item.Parts.Contains(sha256)).OrderBy(item => item.Id).FirstOrDefaultAsync(cancel);
        var lines = (await SourceShelf.Newest(db).AsNoTracking().Where(row => !row.IsRetired).OrderBy(row => row.Name).ToListAsync(cancel))
            .Select(row => (row.Name, (SourceShelf.Read(row)?.Way as MailboxSource)?.Answer?.Line)).Where(one => one.Line is not null).ToList();
        if (lines.Count == 0)
            return null;
        var (name, line) = lines.Find(one => one.Name == message?.Source) is { Line: not null } own ? own : lines[0];
        return new LetterLine(name, line!, message is null ? "" : message.AnswerTo.Length > 0 ? message.AnswerTo : message.From.Split(',')[0].Trim(), message?.MessageId ?? "");
    }
}
