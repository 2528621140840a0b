using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Reading;
using Daxlin.Reading.Containers;
using Daxlin.Service.Batches;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

/// <summary>Takes in what came from a source, once: its own bytes, the documents in it, and a note of what was left out, in one change.</summary>
internal sealed class Taking(IDbContextFactory<DaxlinDb> databases, DocumentStore documents, ReadingProcesses readers, DataFolder folder, WriteTurn turn, BatchEvents events, IServiceScopeFactory scopes, TimeProvider clock, ILogger<Taking> log)
{
    /// <summary>What a mail server hands out is a message, whatever it begins with.</summary>
    private const string AsMessage = "message.eml";

    /// <summary>Says that a file was taken as it is, by its place, size and time.</summary>
    public async Task<bool> Knows(string source, string stamp, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.SourceItems.AnyAsync(row => row.Source == source && row.Stamp == stamp, cancel);
    }

    /// <param name="came">Whose bytes are kept already, unless it is too large.</param>
    /// <returns>What became of it, and whether that was now.</returns>
    public async Task<(SourceItem Item, bool IsNew)> TakeOnce(ComingItem came, CancellationToken cancel)
    {
        await using (var db = await databases.CreateDbContextAsync(cancel))
        {
            if (await db.SourceItems.AsNoTracking().SingleOrDefaultAsync(row => row.Source == came.Source && row.Key == came.Key, cancel) is { } before)
                return (before, false);
        }
        if (came.Sha256.Length == 0)
            return (await LeaveOut(came, new TooLargeException().Message, cancel), true);
        try
        {
            return (await Take(came, cancel), true);
        }
        catch (Exception error) when (!cancel.IsCancellationRequested && error is not IOException && StorageFaults.Of(error) is null)
        {
            // A fault of ours must not hold up all that comes after it.
            log.LogError(error, "Taking {Name} from the source {Source} failed", came.Key, came.Source);
            return (await LeaveOut(came, "Daxlin failed on it; the log has the details. Its bytes are kept.", cancel), true);
        }
    }

    private async Task<SourceItem> Take(ComingItem came, CancellationToken cancel)
    {
        // A PDF as it is needs no opening.
        if (!came.IsMessage && FileKinds.Of(came.Name, (await documents.BeginningOf(came.Sha256, cancel)).Span) is FileKind.Pdf)
            return await Store(came, OpenedItem.Document(new KeptFile(FileName.Of(came.Name), came.Sha256, came.Size)), cancel);
        var opened = folder.NewPart();
        Directory.CreateDirectory(opened);
        try
        {
            var found = await Open(came, opened, cancel);
            if (found.IsEmpty)
                found = OpenedItem.LeftOut(WholeOf(came), came.IsMessage ? "Nothing is attached to it." : "It is empty.");
            return await Store(came, came.IsMessage && came.Totals.Subject is { } subject ? WithSubject(found, subject.Read(came.Name)) : found, cancel);
        }
        finally
        {
            Directory.Delete(opened, recursive: true);
        }
    }

    /// <summary>Notes that something was not taken as a whole, so that it is not looked at again.</summary>
    private Task<SourceItem> LeaveOut(ComingItem came, string why, CancellationToken cancel) =>
        Store(came, OpenedItem.LeftOut(WholeOf(came), why), cancel);

    /// <summary>What is said to be left out where nothing of it is taken.</summary>
    private static string WholeOf(ComingItem came) => came.IsMessage ? "the message" : FileName.Of(came.Name);

    /// <summary>With what the subject states, of the same invoices as a cover sheet among them: each is held against them.</summary>
    private static OpenedItem WithSubject(OpenedItem found, (ImmutableArray<StatedTotal> Stated, string Fault) said) => found with
    {
        Stated = [.. found.Stated.Union(said.Stated)],
        Others = said.Fault.Length == 0 ? found.Others : found.Others.Add(new SourcePart("the subject", "left-out", $"It states a total that cannot be read. {said.Fault}", "")),
    };

    private async Task<OpenedItem> Open(ComingItem came, string opened, CancellationToken cancel)
    {
        ImmutableArray<FoundFile> found;
        try
        {
            found = await readers.Unpack(came.Sha256, came.IsMessage ? AsMessage : FileName.Of(came.Name), opened, came.Totals.Covers, cancel);
        }
        catch (Exception error) when (error is UnreadableException or ReaderDiedException)
        {
            // Whatever is in it, it cannot be told; the rest goes on.
            return OpenedItem.LeftOut(WholeOf(came), error is UnreadableException ? error.Message : "It is built so that opening it never ends or takes all memory.");
        }
        var files = ImmutableArray.CreateBuilder<(KeptFile, string)>();
        var (others, stated) = (ImmutableArray.CreateBuilder<SourcePart>(), ImmutableArray.CreateBuilder<StatedTotal>());
        foreach (var one in found)
        {
            if (one.LeftOut.Length > 0)
            {
                others.Add(new SourcePart(NameOf(one, came), "left-out", one.LeftOut, ""));
                continue;
            }
            if (one.IsCover)
            {
                var (said, fault) = CoverFile.Read(await File.ReadAllBytesAsync(one.File, cancel));
                stated.AddRange(said);
                others.Add(fault.Length > 0
                    ? new SourcePart(NameOf(one, came), "left-out", $"It is a cover sheet that cannot be read. {fault}", "")
                    : new SourcePart(NameOf(one, came), "cover", $"It states {ComparedTotal.Told(said)}.", ""));
                continue;
            }
            await using var content = File.OpenRead(one.File);
            var (sha256, size) = await documents.Keep(content, cancel);
            files.Add((new KeptFile(one.Name, sha256, size), NameOf(one, came)));
        }
        return new OpenedItem(files.ToImmutable(), others.ToImmutable(), StatedTotal.Together(stated)) { IsCover = found is [{ IsCover: true, Within: "" }] && stated.Count > 0 };
    }

    /// <summary>A part's name with the way to it, without the message or archive itself that all parts stand in.</summary>
    private static string NameOf(FoundFile file, ComingItem came)
    {
        var outer = came.IsMessage ? AsMessage : FileName.Of(came.Name);
        var within = file.Within == outer ? "" : file.Within.StartsWith(outer + "/", StringComparison.Ordinal) ? file.Within[(outer.Length + 1)..] : file.Within;
        return within.Length == 0 ? file.Name : $"{within}/{file.Name}";
    }

    private async Task<SourceItem> Store(ComingItem came, OpenedItem found, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        await using var db = await databases.CreateDbContextAsync(cancel);
        var batch = default(Batch);
        SourceItem item;
        await using (var change = await turn.Take(db, cancel))
        {
            // Another service took it while this one opened it, or this one did before it was killed.
            if (await db.SourceItems.AsNoTracking().SingleOrDefaultAsync(row => row.Source == came.Source && row.Key == came.Key, cancel) is { } before)
                return before;
            var taken = new List<FileTaken>();
            if (found.WantsBatch)
            {
                (batch, _) = await OpeningBatch.Within(db, came.Batch, "", clock.GetUtcNow().UtcDateTime, cancel);
                taken = await scope.ServiceProvider.GetRequiredService<BatchIntake>().AddWithin(
                    db, batch.Id, [.. found.Files.Select(one => one.File)], Deed.Daxlin, $"took in a document from the source “{came.Source}”", came.Template, cancel);
            }
            ImmutableArray<SourcePart> parts = [.. taken.Zip(found.Files, (file, one) => new SourcePart(one.Name, file.Outcome, file.Reason, file.Sha256)), .. found.Others];
            item = new SourceItem
            {
                Source = came.Source,
                Key = came.Key,
                Name = came.Name,
                Stamp = came.Stamp,
                From = came.From,
                At = clock.GetUtcNow().UtcDateTime,
                Sha256 = came.Sha256,
                Size = came.Size,
                BatchId = batch?.Id,
                Documents = taken.Count(file => file.Outcome == "taken"),
                LeftOut = parts.Count(part => part.Outcome == "left-out"),
                AnswerState = came.Answer.To.Length > 0 ? MailState.Waiting : MailState.None,
                AnswerTo = came.Answer.To,
                AnswerSays = came.Answer.Says,
                MessageId = came.MessageId,
                Stated = JsonSerializer.Serialize(found.Stated),
                IsCover = found.IsCover,
                Parts = JsonSerializer.Serialize(parts, JsonSerializerOptions.Web),
            };
            // A cover sheet that was changed where it stands states what it says now, if that can be read, and no more what it said.
            if (came.Stays && came.Totals.IsCover(FileName.Of(came.Name)))
            {
                await db.SourceItems.Where(row => row.Source == came.Source && row.Name == came.Name && row.IsCover)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.Stated, "[]"), cancel);
            }
            db.SourceItems.Add(item);
            if (!found.Files.IsEmpty && await db.SourceStates.SingleOrDefaultAsync(row => row.Name == came.Source, cancel) is { } state)
                state.TakenAt = item.At;
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
        }
        if (batch is not null)
            events.Moved(batch.Id);
        return item;
    }
}
