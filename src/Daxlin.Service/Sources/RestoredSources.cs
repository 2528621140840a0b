using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

/// <summary>What sources and answers of a backup must not do by themselves: the service that it was made of may have gone on.</summary>
/// <remarks>Two services that look at one mailbox would each have half of the invoices: what is restored looks at none until a person says so. An answer that waited may have been sent since.</remarks>
internal static class RestoredSources
{
    /// <returns>How many are paused by it.</returns>
    public static async Task<int> Pause(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        var retired = await SourceShelf.Newest(db).Where(row => row.IsRetired).Select(row => row.Name).ToListAsync(cancel);
        var watched = await db.SourceStates.Where(state => !state.IsPaused && !retired.Contains(state.Name)).OrderBy(state => state.Name).ToListAsync(cancel);
        foreach (var state in watched)
        {
            state.IsPaused = true;
            await HistoryLog.Record(db, new Deed(HistoryStreams.Source(state.Name), at, Deed.Daxlin, HistoryActs.SourcePaused, "paused") { Reason = "It was restored from a backup." }, cancel);
        }
        await db.SaveChangesAsync(cancel);
        return watched.Count;
    }

    /// <returns>How many answers and letters are given up by it.</returns>
    public static async Task<int> GiveAnswersUp(DaxlinDb db, CancellationToken cancel)
    {
        var waiting = await db.SourceItems.Where(item => item.AnswerState == MailState.Waiting || item.AnswerState == MailState.Sending).ToListAsync(cancel);
        foreach (var item in waiting)
            (item.AnswerState, item.AnswerSays) = (MailState.GivenUp, $"It waited when the backup was made that this was restored from; whether {item.AnswerTo} was told since, nobody can tell here.");
        var letters = await db.LettersToVendors.Where(letter => letter.State == MailState.Waiting || letter.State == MailState.Sending).ToListAsync(cancel);
        foreach (var letter in letters)
            (letter.State, letter.Says) = (MailState.GivenUp, $"It waited when the backup was made that this was restored from; whether {letter.To} has it since, nobody can tell here.");
        await db.SaveChangesAsync(cancel);
        return waiting.Count + letters.Count;
    }
}
