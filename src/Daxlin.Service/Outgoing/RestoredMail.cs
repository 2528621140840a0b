using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Outgoing;

/// <summary>Messages that waited in a backup: whether each was sent since, nobody can tell where it is restored, so none is.</summary>
internal static class RestoredMail
{
    /// <returns>How many answers, letters and digests are given up by it.</returns>
    public static async Task<int> GiveUp(DaxlinDb db, CancellationToken cancel)
    {
        List<(IMailedOnce Mail, string To)> waiting =
        [
            .. (await db.SourceItems.Where(item => item.AnswerState == MailState.Waiting || item.AnswerState == MailState.Sending).ToListAsync(cancel)).Select(item => ((IMailedOnce)item, item.AnswerTo)),
            .. (await db.LettersToVendors.Where(letter => letter.State == MailState.Waiting || letter.State == MailState.Sending).ToListAsync(cancel)).Select(letter => ((IMailedOnce)letter, letter.To)),
            .. (await db.ScheduledTurns.Where(turn => turn.State == MailState.Waiting || turn.State == MailState.Sending).ToListAsync(cancel)).Select(turn => ((IMailedOnce)turn, "anybody")),
        ];
        foreach (var (mail, to) in waiting)
            (mail.State, mail.Says) = (MailState.GivenUp, $"It waited when the backup was made that this was restored from; whether {to} was told since, nobody can tell here.");
        await db.SaveChangesAsync(cancel);
        return waiting.Count;
    }
}
