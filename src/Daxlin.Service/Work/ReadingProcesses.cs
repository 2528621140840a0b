using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Reading;
using Daxlin.Reading.Containers;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;
using Daxlin.Service.Desk;
using Daxlin.Service.Operation;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;

namespace Daxlin.Service.Work;

/// <summary>Reads and captures documents in processes of their own, and keeps those processes for the next document.</summary>
public sealed class ReadingProcesses(ReaderPool pool, DataFolder folder, DocumentStore documents, TemplateShelf shelf, RecognitionProgress recognition, Measures measures, ILogger<ReadingProcesses> log) : IDisposable
{
    /// <summary>How long one document may take before it is set aside.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private readonly SemaphoreSlim places = new(Environment.ProcessorCount);
    private readonly SemaphoreSlim alone = new(1);

    /// <summary>Recognises, captures and checks a document by the newest templates.</summary>
    /// <param name="isSuspect">Says that a process died on it before: nothing else is worked on beside it.</param>
    /// <param name="chosen">What persons said of its invoices' templates.</param>
    /// <param name="moved">Told of each page that was recognised.</param>
    /// <param name="draft">A template to be used in the place of the one of its name, for a rehearsal.</param>
    /// <exception cref="UnreadableException">The document cannot be read, or its reading did not come to an end.</exception>
    internal Task<DocumentOutcome> Capture(string sha256, DocumentFacts facts, bool isSuspect, ImmutableArray<ChosenPages> chosen, CancellationToken cancel, string? draft = null, Action? moved = null) => WithPictures(() => InPlaces(
        isSuspect ? Environment.ProcessorCount : 1,
        async () =>
        {
            using var templates = await shelf.Newest(cancel);
            return await Result(
                TaskOf(sha256) with { Facts = facts, Templates = templates.Path, Draft = draft, Chosen = chosen },
                async stream => (await JsonSerializer.DeserializeAsync<DocumentOutcome>(stream, DocumentOutcome.Json, cancel))!, cancel);
        }, cancel), cancel, moved);

    /// <summary>The pages of a document with their words, as JSON, handed to <paramref name="take"/>.</summary>
    /// <exception cref="UnreadableException">The document cannot be read, or its reading did not come to an end.</exception>
    internal Task Words(string sha256, Func<Stream, Task> take, CancellationToken cancel) =>
        WithPictures(() => Handed(TaskOf(sha256), take, cancel), cancel);

    /// <summary>A template drafted or tried, as JSON, handed to <paramref name="take"/>.</summary>
    /// <exception cref="UnreadableException">A document cannot be read, or the work did not come to an end.</exception>
    internal Task Desk(DeskTask task, Func<Stream, Task> take, CancellationToken cancel) =>
        WithPictures(() => Handed(new ReadingTask("", "", folder.NewPart(), null, null) { Desk = task }, take, cancel), cancel);

    /// <summary>What stands in an archive or a message.</summary>
    /// <param name="name">What it was called.</param>
    /// <param name="into">An empty folder, which whoever asks deletes.</param>
    /// <param name="covers">What cover sheets are called.</param>
    /// <exception cref="UnreadableException">Taking it apart did not come to an end.</exception>
    internal async Task<ImmutableArray<FoundFile>> Unpack(string sha256, string name, string into, ImmutableArray<string> covers, CancellationToken cancel)
    {
        var found = ImmutableArray<FoundFile>.Empty;
        await Handed(
            TaskOf(sha256) with { Unpack = new UnpackTask(name, into, covers) },
            async stream => found = await JsonSerializer.DeserializeAsync<ImmutableArray<FoundFile>>(stream, JsonSerializerOptions.Web, cancel), cancel);
        return found;
    }

    private ReadingTask TaskOf(string sha256) => new(documents.PathOf(sha256), sha256, folder.NewPart(), null, null) { Recognised = documents.RecognisedOf(sha256) };

    /// <summary>Does what needs documents' pages; those that are pictures are recognised when it turns out that they are.</summary>
    private async Task<T> WithPictures<T>(Func<Task<T>> work, CancellationToken cancel, Action? moved = null)
    {
        while (true)
        {
            try
            {
                return await work();
            }
            catch (PicturesUnreadException unread)
            {
                var done = 0;
                Tell(0);
                try
                {
                    await Parallel.ForEachAsync(unread.Pages, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = cancel }, async (page, stop) =>
                    {
                        await InPlaces(1, () => Recognise(unread.Document, page, stop), stop);
                        Tell(Interlocked.Increment(ref done));
                    });
                }
                finally
                {
                    recognition.End(unread.Document);
                }

                void Tell(int pages)
                {
                    recognition.Tell(unread.Document, pages, unread.Pages.Length);
                    moved?.Invoke();
                }
            }
        }
    }

    /// <summary>Recognises a page, and keeps what is recognised.</summary>
    private async Task<bool> Recognise(string sha256, PicturedPage page, CancellationToken cancel)
    {
        var (document, drawn, dpi) = (documents.PathOf(sha256), folder.NewPart() + ".pgm", page.Dpi);
        var picture = dpi > 0 ? null : folder.NewPart();
        var task = new ReadingTask(dpi > 0 ? drawn : document, sha256, folder.NewPart(), null, null) { Recognise = new RecogniseTask(page.Number, dpi, picture) };
        try
        {
            if (dpi > 0)
                await PageRaster.Draw(document, page.Number, dpi, drawn, Patience, cancel);
            Ensure(await Ask(task, cancel));
            new RecognisedPages(documents.RecognisedOf(sha256)).Take(page.Number, task.Result, picture);
            return true;
        }
        catch (RecognitionMissingException error)
        {
            throw new UnreadableException(RecognitionMissingException.Code, $"Page {page.Number} of the document is a picture. {error.Message}");
        }
        catch (UnreadableException) when (new DriveInfo(folder.Incoming).AvailableFreeSpace < RoomForAPage)
        {
            // Half a drawn page looks like a damaged one; the document is not to be set aside for it.
            throw DiskFull();
        }
        finally
        {
            File.Delete(drawn);
            File.Delete(task.Result);
            if (picture is not null)
                File.Delete(picture);
        }
    }

    /// <summary>A drawn page of the largest kind, in bytes.</summary>
    private const long RoomForAPage = 32L << 20;

    private static IOException DiskFull() => new("The disk is full.", StorageFaults.NoSpace);

    /// <summary>Throws what an answer without a result stands for.</summary>
    private static void Ensure(ReadingAnswer answer)
    {
        if (answer.Code == "disk-full")
            throw DiskFull();
        if (answer.Code == RecognitionMissingException.Code)
            throw new RecognitionMissingException(answer.Sentence);
        if (!answer.Pictured.IsDefaultOrEmpty)
            throw new PicturesUnreadException(answer.Pictured) { Document = answer.Sha256 };
        if (answer.Code.Length > 0)
            throw new UnreadableException(answer.Code, answer.Sentence);
    }

    private Task<bool> Handed(ReadingTask task, Func<Stream, Task> take, CancellationToken cancel) => InPlaces(1, () => Result(
        task,
        async stream =>
        {
            await take(stream);
            return true;
        }, cancel), cancel);

    private async Task<T> InPlaces<T>(int count, Func<Task<T>> work, CancellationToken cancel)
    {
        var taken = 0;
        // Two that each want all places would each wait for the other's.
        if (count > 1)
            await alone.WaitAsync(cancel);
        try
        {
            for (; taken < count; taken++)
                await places.WaitAsync(cancel);
            return await work();
        }
        finally
        {
            if (taken > 0)
                places.Release(taken);
            if (count > 1)
                alone.Release();
        }
    }

    private async Task<T> Result<T>(ReadingTask task, Func<Stream, Task<T>> take, CancellationToken cancel)
    {
        try
        {
            Ensure(await Ask(task, cancel));
            await using var stream = new FileStream(task.Result, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16, useAsync: true);
            return await take(stream);
        }
        finally
        {
            File.Delete(task.Result);
        }
    }

    private async Task<ReadingAnswer> Ask(ReadingTask task, CancellationToken cancel)
    {
        var reader = pool.Take(log, task.Recognise is not null);
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        measures.BeginReading();
        try
        {
            var answer = await reader.Ask(task, patience.Token);
            pool.GiveBack(reader, task.Recognise is not null);
            return answer;
        }
        catch (OperationCanceledException)
        {
            reader.Dispose();
            cancel.ThrowIfCancellationRequested();
            throw new UnreadableException(
                "too-slow", $"Reading and capturing the document took longer than {Patience.TotalSeconds:F0} seconds; it was set aside.");
        }
        catch (Exception error) when (error is IOException or EndOfStreamException or InvalidOperationException)
        {
            log.LogWarning(error, "The reading process ended on {Path}", task.Desk is null ? task.Document : "the desk's documents");
            reader.Dispose();
            measures.AddDeath();
            throw new ReaderDiedException(error);
        }
        finally
        {
            measures.EndReading();
        }
    }

    public void Dispose()
    {
        places.Dispose();
        alone.Dispose();
    }
}
